import { CHECKS, type CheckContext, type CheckKind, contextOf, judgeCheck, type Verdict, voidVerdict } from "../checks";
import { readSections, type SmokeRun } from "../checks/smoke";
import type { Shop } from "../shop/settings";
import { causesOf, codeObservations, type Evidence, familiesOf, nextChecks, weighSuspects } from "../suspects";
import { canonicalJson, contentHash } from "./canonical";
import { type At, type Bodies, type EntryKind, isEntryKind, type JournalEntry, spanOf } from "./entries";
import { blocksOf, confoundedChanges, stationsOf } from "./gates";
import { planReadiness } from "./readiness";
import type { AfterRepair, CheckState, JobState, OffCarItem, RepairState } from "./state";

/** Version of the judging rules; a verdict shown under older rules is kept beside what they would say now. */
export const RULES_VERSION = 3;

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
  const undone = new Set(of("undone").map((e) => e.body.repair));
  const repairs = of("repair").map(
    (e): RepairState => ({ entry: e.id, at: e.at, by: e.by, body: e.body, undone: undone.has(e.id) }),
  );
  const lastRepair = of("repair").at(-1);
  const relative = (entry: JournalEntry) => relativeToRepair(entry, lastRepair);

  const context = vehicle && contextOf(vehicle, shop);
  const restored = new Map(of("restored").map((e) => [e.body.item, spanOf(e.at).from]));
  const commands = of("displaced").filter((e) => e.body.commanded);
  const shown = new Map(of("judged").map((e) => [e.body.entry, e.body]));
  const contextKey = context ? canonicalJson([vehicle, shop.limits, shop.house]) : "";
  const checks = context
    ? of("check").map((entry): CheckState => {
        const kind = CHECKS[entry.body.check] as unknown as CheckKind;
        const place = kind.place?.(entry.body.record);
        const standing = commandInTheWay(entry, place, commands, restored);
        const verdict = standing
          ? voidVerdict("This check proves nothing", `${standing} was still commanded: release it, then check again`)
          : judged(entry.body, context, contextKey);
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
          tested: verdict.tested ?? [],
          ...(place === undefined ? {} : { place }),
          onBench: kind.onBench?.(entry.body.record) ?? false,
          ...(flipped ? { wasShown: { outcome: before.outcome, headline: before.headline } } : {}),
        };
      })
    : [];

  const offCar = of("displaced").map(
    (e): OffCarItem => ({
      entry: e.id,
      what: e.body.what,
      ...(e.body.joint ? { joint: e.body.joint } : {}),
      since: spanStart(e.at),
      open: !restored.has(e.id),
      ...(e.body.commanded ? { commanded: e.body.commanded } : {}),
      ...(e.body.swappedBack ? { swappedBack: e.body.swappedBack } : {}),
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
    kit: newest("kit")?.body.items ?? [],
    ...(newest("conditions") ? { conditions: newest("conditions")?.body as Bodies["conditions"] } : {}),
    ...(tried ? { complaint: { ...tried.body, at: spanStart(tried.at), afterRepair: relative(tried) } } : {}),
    ...(handover ? { handover: { ...handover.body, at: spanStart(handover.at), by: handover.by } } : {}),
  };
  const sections = context && sectionsOf(checks, context);
  const { suspects, next, retired } = context
    ? judgeSuspects(context, { ...base, ...(sections ? { sections } : {}) })
    : { suspects: [], next: [], retired: [] };
  const confounded = confoundedChanges(checks, repairs, of("displaced"), restored);
  const clearedAfter = cleared ? relative(cleared) === "after" || !lastRepair : false;
  const monitor = newest("monitor");
  const parked = newest("readiness");
  const planned = parked && context && relative(parked) !== "before" ? parked.body : undefined;
  const vapour = {
    ...(planned && context ? { readiness: planReadiness(planned, context, { cleared: clearedAfter }, now) } : {}),
    ...(monitor ? { monitor: { ...monitor.body, at: spanStart(monitor.at), afterRepair: relative(monitor) } } : {}),
  };
  const blocks = blocksOf({ ...base, ...vapour, clearedAfter, now });
  const status = closed ? (blocks.close.length > 0 ? "review" : "closed") : handover ? "handed-over" : "open";
  const stations = stationsOf({ ...base, status, blocks, next });
  return {
    ...base,
    ...vapour,
    status,
    suspects,
    next,
    retired,
    ...(sections ? { sections } : {}),
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

/** Name of a command that stood when a check began and is no part of it; undefined when none did. */
function commandInTheWay(
  check: Of<"check">,
  place: string | undefined,
  commands: readonly Of<"displaced">[],
  restored: ReadonlyMap<string, number>,
): string | undefined {
  const began = spanOf(check.at).from;
  const { record } = check.body;
  const { heldOpen = [], blocked = [] } = record as Partial<SmokeRun>;
  const own = new Set([...heldOpen, ...blocked, ...(place ? [place] : [])]);
  // The chain commands its own solenoid, the pull-down trace both its valves.
  if (check.body.check === "chain") own.add("flap-solenoid");
  if (check.body.check === "pulldown") for (const id of ["purge-valve", "vent-valve"]) own.add(id);
  return commands.find((c) => {
    const stands = spanOf(c.at).from <= began && (restored.get(c.id) ?? Number.POSITIVE_INFINITY) > began;
    return stands && !(c.body.joint && own.has(c.body.joint));
  })?.body.what;
}

/** What the smoke runs since the last repair say together, where they are of different sections. */
function sectionsOf(checks: readonly CheckState[], { layout }: CheckContext): JobState["sections"] {
  const since = checks.some((c) => c.afterRepair === "after") ? checks.filter((c) => c.afterRepair === "after") : checks;
  const runs = since.filter((c) => c.check === "smoke").map((c) => ({ run: c.record as SmokeRun, verdict: c.verdict }));
  return runs.length < 2 ? undefined : readSections(runs, layout);
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

/**
 * Weighs the suspects and ranks what to do next. After a repair that checks have answered, what the repaired cause
 * explained is retired; what it did not explain, and all that came since, is weighed anew, so a second cause shows.
 */
function judgeSuspects(
  context: CheckContext,
  state: Pick<
    JobState,
    "codes" | "checks" | "story" | "repairs" | "findings" | "sections" | "offCar" | "conditions" | "complaint"
  >,
): Pick<JobState, "suspects" | "next" | "retired"> {
  const { vehicle, layout } = context;
  const telling = (list: readonly CheckState[]) =>
    list.filter((c) => c.verdict.outcome !== "void" && c.verdict.observation !== undefined);
  const fromChecks = (list: readonly CheckState[]): Evidence[] =>
    telling(list).map((c) => ({ observation: c.verdict.observation as string, entry: c.entry, tested: c.tested }));
  const sinceRepair = state.checks.filter((c) => c.afterRepair === "after");
  const answered =
    state.repairs.some((r) => !r.undone) && sinceRepair.some((c) => c.verdict.outcome === "pass" || c.verdict.outcome === "fail");
  const story: Evidence[] = [
    ...codeObservations(
      state.codes.filter((c) => !c.asideReason).map((c) => c.code),
      vehicle.banks,
    ).map((observation) => ({ observation, entry: "codes" })),
    ...(state.story?.symptoms ?? []).map((s) => ({ observation: `symptom:${s}`, entry: "story" })),
  ];
  const families = familiesOf(
    story.map((e) => e.observation),
    state.checks.map((c) => c.check),
  );
  const causes = causesOf(layout, vehicle, families);
  const sections: Evidence[] = state.sections?.within.length
    ? [{ observation: "section-within", entry: "sections", tested: state.sections.within }]
    : [];
  const before = [...story, ...fromChecks(state.checks.filter((c) => c.afterRepair !== "after"))];
  const repaired = new Set(state.findings.filter((f) => f.repairedBy).map((f) => f.body.joint));
  const isRepaired = (c: { readonly id: string; readonly joint?: string }) => repaired.has(c.id) || repaired.has(c.joint ?? "");

  let evidence = [...before, ...sections];
  const retired: string[] = [];
  let open = causes;
  if (answered) {
    // What a repaired cause made likelier than the average suspect did is explained by it.
    const explained = new Set(
      weighSuspects(causes, before)
        .filter((s) => isRepaired(s.cause))
        .flatMap((s) => s.because.filter((b) => b.factor >= 1).map((b) => `${b.entry} ${b.observation}`)),
    );
    // A complaint that remains is not explained by what was repaired.
    const remains = state.complaint?.afterRepair === "after" && state.complaint.result === "remains";
    const stays = (e: Evidence) =>
      (remains && e.observation.startsWith("symptom:")) || !explained.has(`${e.entry} ${e.observation}`);
    retired.push(...before.filter((e) => !stays(e)).map((e) => e.observation));
    evidence = [...before.filter(stays), ...fromChecks(sinceRepair), ...sections];
    open = causes.map((c) => (isRepaired(c) ? { ...c, prior: c.prior * 0.1 } : c));
  }
  const suspects = weighSuspects(open, evidence);
  // A seat that holds warm is still to be tried cold.
  const read = telling(answered ? sinceRepair : state.checks).filter((c) => c.verdict.observation !== "valve-good-warm");
  const done = read.map((c) => ({
    check: c.check,
    tested: c.tested,
    ...(c.place ? { place: c.place } : {}),
  }));
  const standing = state.offCar.filter((i) => i.open && i.commanded).map((i) => i.what);
  const engine = state.conditions?.engine;
  return { suspects, next: nextChecks(suspects, context, done, { standing, ...(engine ? { engine } : {}) }, families), retired };
}
