import { type CheckContext, judgeCheck, type Verdict } from "../checks";
import type { SmokeRun } from "../checks/smoke";
import type { Shop } from "../shop/settings";
import { causesOf, codeObservations, type Evidence, nextChecks, weighSuspects } from "../suspects";
import { type Layout, layoutOf, reachOf } from "../vehicle";
import { canonicalJson, contentHash } from "./canonical";
import { type At, type Bodies, type EntryKind, isEntryKind, type JournalEntry, spanOf } from "./entries";
import { blocksOf, confoundedChanges, stationsOf } from "./gates";
import type { AfterRepair, CheckState, JobState, OffCarItem, RepairState } from "./state";

/** Version of the judging rules; a verdict shown under older rules is kept beside what they would say now. */
export const RULES_VERSION = 1;

type Of<K extends EntryKind> = JournalEntry & { readonly body: Bodies[K] };

/**
 * The state of a job, folded from its entries. Pure and total: any order of entries, any clock, no input throws.
 * @param entries as recorded; corrections and retractions among them; @param shop the snapshot judging rests on;
 * @param now ms since 1970, the one injected clock.
 */
export function foldJob(entries: readonly JournalEntry[], shop: Shop, now: number): JobState {
  const lines = inOrder(resolveCorrections(entries));
  const of = <K extends EntryKind>(kind: K) => lines.filter((e) => e.kind === kind) as Of<K>[];
  const newest = <K extends EntryKind>(kind: K) => of(kind).at(-1);

  const vehicle = newest("vehicle")?.body;
  const layout = vehicle ? layoutOf(vehicle) : undefined;
  const undone = new Set(of("undone").map((e) => e.body.repair));
  const repairs = of("repair").map(
    (e): RepairState => ({ entry: e.id, at: e.at, by: e.by, body: e.body, undone: undone.has(e.id) }),
  );
  const lastRepair = of("repair").at(-1);
  const relative = (entry: JournalEntry) => relativeToRepair(entry, lastRepair);

  const context: CheckContext | undefined =
    vehicle && layout ? { vehicle, layout, limits: shop.limits, house: shop.house } : undefined;
  const shown = new Map(of("judged").map((e) => [e.body.entry, e.body]));
  const contextKey = context ? canonicalJson([vehicle, shop.limits, shop.house]) : "";
  const checks = context
    ? of("check").map((entry): CheckState => {
        const verdict = judged(entry.body, context, contextKey);
        const before = shown.get(entry.id);
        const flipped = before && (before.outcome !== verdict.outcome || before.headline !== verdict.headline);
        return {
          entry: entry.id,
          check: entry.body.check,
          record: entry.body.record,
          at: entry.at,
          by: entry.by,
          verdict,
          afterRepair: relative(entry),
          tested: testedJoints(entry.body, verdict, context.layout),
          ...(flipped ? { wasShown: { outcome: before.outcome, headline: before.headline } } : {}),
        };
      })
    : [];

  const restored = new Set(of("restored").map((e) => e.body.item));
  const offCar = of("displaced").map(
    (e): OffCarItem => ({
      entry: e.id,
      what: e.body.what,
      ...(e.body.joint ? { joint: e.body.joint } : {}),
      since: spanStart(e.at),
      open: !restored.has(e.id),
    }),
  );
  const findings = of("finding").map((e) => {
    const repairedBy = repairs.find((r) => r.body.finding === e.id && !r.undone)?.entry;
    return { entry: e.id, body: e.body, ...(repairedBy ? { repairedBy } : {}) };
  });
  const codes = newest("codes")?.body.codes ?? [];
  const cleared = newest("codes-cleared");
  const tried = newest("complaint-tried");
  const story = newest("story")?.body;
  const handover = newest("handover");
  const closed = newest("close");

  const base = {
    number: newest("opened")?.body.number ?? 0,
    codes,
    codesRead: of("codes").length > 0,
    checks,
    findings,
    repairs,
    offCar,
    cautions: [...new Set(of("caution").map((e) => e.body.caution))],
    zones: zoneKnowledge(checks, lastRepair),
    outcomes: of("outcome").map((e) => ({ ...e.body, at: spanStart(e.at) })),
    notes: of("note").map((e) => ({ entry: e.id, text: e.body.text, at: spanStart(e.at), by: e.by })),
    unknown: lines.filter((e) => !isEntryKind(e.kind)).map((e) => ({ entry: e.id, kind: e.kind })),
    lastSeq: entries.reduce((max, e) => Math.max(max, e.seq), 0),
    updatedAt: lines.reduce<string>((max, e) => (spanEnd(e.at) > max ? spanEnd(e.at) : max), ""),
    ...(vehicle ? { vehicle } : {}),
    ...(story ? { story } : {}),
    ...(cleared ? { codesClearedAt: spanStart(cleared.at) } : {}),
    ...(newest("conditions") ? { conditions: newest("conditions")?.body as Bodies["conditions"] } : {}),
    ...(tried ? { complaint: { ...tried.body, at: spanStart(tried.at), afterRepair: relative(tried) } } : {}),
    ...(handover ? { handover: { ...handover.body, at: spanStart(handover.at), by: handover.by } } : {}),
  };
  const { suspects, next } = vehicle && layout ? judgeSuspects(vehicle, layout, base) : { suspects: [], next: [] };
  const confounded = confoundedChanges(checks, repairs);
  const clearedAfter = cleared ? relative(cleared) === "after" || !lastRepair : false;
  const blocks = blocksOf({ ...base, clearedAfter, now });
  const status = closed ? (blocks.close.length > 0 ? "review" : "closed") : handover ? "handed-over" : "open";
  const stations = stationsOf({ ...base, status, blocks, next });
  return {
    ...base,
    status,
    suspects,
    next,
    confounded,
    blocks,
    stations: stations.states,
    nextStation: stations.next,
    waiting: newest("waiting")?.body ?? { on: "me" },
  };
}

const spanEnd = (at: At) => (typeof at === "string" ? at : at.to);
const spanStart = (at: At) => (typeof at === "string" ? at : at.from);

/** Newest correction by `seq` replaces its root; a retracted root drops out. Both stay in the journal. */
function resolveCorrections(entries: readonly JournalEntry[]): JournalEntry[] {
  const last = new Map<string, JournalEntry>();
  for (const entry of entries) {
    if (!entry.corrects) continue;
    const rival = last.get(entry.corrects);
    if (!rival || entry.seq > rival.seq) last.set(entry.corrects, entry);
  }
  if (last.size === 0) return entries.filter((e) => e.kind !== "retract");
  return entries.flatMap((entry) => {
    if (entry.corrects || entry.kind === "retract") return [];
    const correction = last.get(entry.id);
    if (!correction) return [entry];
    if (correction.kind === "retract") return [];
    // A correction keeps the root's identity and place in time unless it says another time.
    return correction.kind === entry.kind ? [{ ...entry, at: correction.at, body: correction.body }] : [entry];
  });
}

/** Order of the record: when it happened, then as recorded. */
function inOrder(entries: readonly JournalEntry[]): JournalEntry[] {
  const keyed = entries.map((entry) => ({ entry, from: spanOf(entry.at).from }));
  return keyed.sort((a, b) => a.from - b.from || a.entry.seq - b.entry.seq).map((k) => k.entry);
}

/** After the repair only when it began after the repair ended and its device had seen the repair. */
function relativeToRepair(entry: JournalEntry, repair: JournalEntry | undefined): AfterRepair {
  if (!repair) return "no-repair";
  const began = spanOf(entry.at).from >= spanOf(repair.at).to;
  if (!began) return "before";
  const knew = entry.seenSeq >= repair.seq || (entry.device === repair.device && entry.deviceSeq > repair.deviceSeq);
  return knew ? "after" : "unknown";
}

/** Verdicts by record object and context: a fit is made once, however often the job is folded. */
const memo = new WeakMap<object, { key: string; verdict: Verdict }>();

function judged(body: Bodies["check"], context: CheckContext, key: string): Verdict {
  const known = memo.get(body.record);
  if (known?.key === key) return known.verdict;
  let verdict: Verdict;
  try {
    verdict = judgeCheck(body.check, body.record, context);
  } catch (error) {
    // A record from elsewhere may name what this vehicle has not: it is kept, and proves nothing.
    verdict = {
      outcome: "void",
      headline: "This record cannot be judged",
      measures: [],
      reasons: [error instanceof Error ? error.message : String(error)],
      zones: [],
    };
  }
  memo.set(body.record, { key, verdict });
  return verdict;
}

/** Hash of everything a verdict rests on, journalled with what was shown. */
export function inputsHash(body: Bodies["check"], context: CheckContext): string {
  return contentHash([body, context.vehicle, context.limits, context.house]);
}

/** What is known of each zone: the newest word of a check that is not void; a repair un-proves nothing it did not touch. */
function zoneKnowledge(checks: readonly CheckState[], lastRepair: JournalEntry | undefined): JobState["zones"] {
  const known = new Map<string, JobState["zones"][number]>();
  for (const check of checks) {
    for (const zone of check.verdict.zones) {
      const before = known.get(zone.zone);
      // "Not reached" never wipes out what an earlier check did prove.
      if (zone.state === "not-reached" && before) continue;
      // A leak found before the repair is repaired, not proved: only a check after it can say tight.
      known.set(zone.zone, { ...zone, entry: check.entry });
    }
  }
  if (lastRepair) {
    const proved = new Set(checks.filter((c) => c.afterRepair === "after").map((c) => c.entry));
    for (const [zone, knowledge] of known) {
      if (knowledge.state === "leaking" && !proved.has(knowledge.entry)) {
        known.set(zone, { ...knowledge, state: "not-reached", why: `${knowledge.why}; repaired since, not proved yet` });
      }
    }
  }
  return [...known.values()];
}

function judgeSuspects(
  vehicle: Bodies["vehicle"],
  layout: Layout,
  state: Pick<JobState, "codes" | "checks" | "story" | "repairs" | "findings">,
): Pick<JobState, "suspects" | "next"> {
  const causes = causesOf(layout, vehicle);
  const fromChecks = (list: readonly CheckState[]): Evidence[] =>
    list.flatMap((c) => {
      if (c.verdict.outcome === "void" || !c.verdict.observation) return [];
      return [{ observation: c.verdict.observation, entry: c.entry, reached: c.tested }];
    });
  const sinceRepair = state.checks.filter((c) => c.afterRepair === "after");
  const confirmed =
    state.repairs.some((r) => !r.undone) && sinceRepair.some((c) => c.verdict.outcome === "pass" || c.verdict.outcome === "fail");
  const story: Evidence[] = [
    ...codeObservations(
      state.codes.filter((c) => !c.asideReason).map((c) => c.code),
      vehicle.banks,
    ).map((observation) => ({ observation, entry: "codes" })),
    ...(state.story?.symptoms ?? []).map((s) => ({ observation: `symptom:${s}`, entry: "story" })),
  ];
  // After a repair that checks have answered, what it explained is retired and only what came since is weighed.
  const evidence = confirmed ? fromChecks(sinceRepair) : [...story, ...fromChecks(state.checks)];
  const repairedJoints = new Set(state.findings.filter((f) => f.repairedBy).map((f) => f.body.joint));
  const open = confirmed
    ? causes.map((c) => (c.joint && repairedJoints.has(c.joint) ? { ...c, prior: c.prior * 0.2 } : c))
    : causes;
  const suspects = weighSuspects(open, evidence);
  const relevant = confirmed ? sinceRepair : state.checks;
  const done = relevant
    .filter((c) => c.verdict.outcome === "pass" || c.verdict.outcome === "fail")
    .map((c) => ({ check: c.check, ...(c.check === "smoke" ? { entry: (c.record as SmokeRun).entry } : {}) }));
  return { suspects, next: nextChecks(suspects, layout, vehicle, done) };
}

/** Joints a smoke run really tested: those of zones where smoke was shown. */
function testedJoints(body: Bodies["check"], verdict: Verdict, layout: Layout): string[] {
  if (body.check !== "smoke" || verdict.outcome === "void") return [];
  const shown = new Set<string>(verdict.zones.filter((z) => z.state !== "not-reached").map((z) => z.zone));
  return reachOf(layout, body.record as SmokeRun)
    .tested.filter((j) => shown.has(j.from) || shown.has(j.to))
    .map((j) => j.id);
}
