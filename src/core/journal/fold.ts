import { contentHash } from "../canonical";
import { CHECK_IDS, CHECKS, type CheckContext, contextOf, voidVerdict } from "../checks";
import { requiredOf } from "../checks/evap-fields";
import type { RequiredSize } from "../checks/required-size";
import { codeText, isOfSecondBank } from "../faults";
import type { Shop } from "../shop/settings";
import { NOTHING_FOUND, type Tally } from "../suspects";
import type { Quantity } from "../units";
import { requiredLeakOf, type VehicleRecord, vehicleFacts, withPorts, withSecondBank } from "../vehicle";
import { comebackSince } from "./comeback";
import { type Bodies, type EntryKind, isEntryKind, isOfVapour, monitorResult } from "./entries";
import { type At, type JournalEntry, spanOf } from "./envelope";
import { blocksOf, stationsOf } from "./gates";
import { inspectionOf, inspectNext } from "./inspection";
import { judged } from "./judged";
import { countsHere, endedElsewhere } from "./origin";
import { ownCodes } from "./own-codes";
import {
  type AfterRepair,
  confoundedChanges,
  evidenceOf,
  isAfter,
  type Line,
  type LineOf,
  lastWorkOf,
  linesOf,
  proofOf,
  type Resolved,
  resolveLines,
  seemsAfter,
  setupOf,
} from "./proof";
import { planReadiness } from "./readiness";
import { signingOf } from "./signing";
import type { CheckState, JobState, OffCarItem, RepairState } from "./state";
import { judgeSuspects } from "./weighing";
import { zoneKnowledge } from "./zones";

/** Version of the judging rules; a verdict shown under older rules is kept beside what they would say now. */
export const RULES_VERSION = 10;

/**
 * The state of a job, folded from its entries. Pure and total: any order of entries, any clock, no input throws.
 * @param recorded the entries as recorded; corrections and retractions among them; @param shop the snapshot judging rests on;
 * @param now ms since 1970, the one injected clock; @param experience what the shop's own jobs say of such a car, where that counts.
 */
export function foldJob(recorded: readonly JournalEntry[], shop: Shop, now: number, experience?: Tally): JobState {
  const all = recorded.every(isTimed) ? recorded : recorded.map(timed);
  // What is kept as history is shown in the journal, and nowhere else.
  const history = all.filter((e) => e.history !== undefined);
  const entries = history.length > 0 ? all.filter((e) => e.history === undefined) : all;
  const state = foldResolved(resolveLines(entries), shop, now, experience);
  const lastSeq = all.reduce((max, e) => Math.max(max, e.seq), 0);
  const imported = entries.find((e) => e.imported)?.imported;
  const { closed } = state;
  // Closed under older rules or limits: what held then and would ask today keeps it closed and says so; what came since,
  // or was corrected since, opens it for review.
  const then =
    closed && state.blocks.close.length > 0
      ? foldResolved(resolveLines(entries.filter((e) => e.seq < closed.seq)), shop, now).blocks.close
      : [];
  const wouldAsk = state.blocks.close.filter((b) => then.some((t) => t.reason === b.reason));
  const fresh = state.blocks.close.length > wouldAsk.length;
  const status = closed
    ? fresh
      ? "review"
      : "closed"
    : state.handover
      ? "handed-over"
      : endedElsewhere(entries)
        ? "elsewhere"
        : "open";
  const stations = stationsOf({ ...state, status });
  const { closed: _, ...rest } = state;
  return {
    ...rest,
    lastSeq,
    status,
    history: history.map(({ id, kind, by, history: why = "" }) => ({ entry: id, kind, by, why })),
    ...(imported ? { imported } : {}),
    wouldAsk: closed && !fresh ? wouldAsk : [],
    stations: stations.states,
    nextStation: stations.next,
  };
}

type Folded = Omit<JobState, "lastSeq" | "status" | "history" | "imported" | "wouldAsk" | "stations" | "nextStation"> & {
  readonly closed: Line | undefined;
};

function foldResolved({ lines: all, retracted }: Resolved, shop: Shop, now: number, experience?: Tally): Folded {
  const lines = all.every(countsHere) ? all : all.filter(countsHere);
  const of = <K extends EntryKind>(kind: K) => linesOf(lines, kind);
  const newest = <K extends EntryKind>(kind: K) => of(kind).at(-1);

  const described = of("vehicle").map((e) => e.body);
  const given = described.at(-1);
  const seen = of("codes").some((e) => e.body.codes.some((c) => isOfSecondBank(c.code)));
  const shown = given && seen ? withSecondBank(given) : given;
  const vehicle = shown && vehicleFacts(withPorts(shown, described));
  // A job is what it was opened as: no later line makes a real car a simulated one.
  const practice = of("opened").reduce<LineOf<"opened"> | undefined>((a, b) => (a && a.seq < b.seq ? a : b), undefined)?.body
    .practice;
  const leak = vehicle && requiredLeakOf(vehicle, criteriaOf(lines));
  const required = leak && requiredOf(leak);
  const context = vehicle && contextOf(vehicle, shop, practice, required);
  const verdicts = verdictsOf(lines, context);
  const evidence = context
    ? evidenceOf(
        lines,
        retracted,
        context,
        (line) => verdicts.get(line.id) ?? judged(line.body, context),
        vehicleThen(lines, shop, practice, required),
      )
    : [];
  const { touches, ...proof } = proofOf({ lines, retracted, evidence, context });
  const lastWork = lastWorkOf(touches);
  const relative = (line: Line) => relativeTo(line, lastWork);

  const checks = checksOf(lines, verdicts, relative);
  const told = of("check").filter((c) => verdicts.get(c.id)?.outcome !== "void");
  const signing = signingOf(lines, practice !== undefined);
  const repairs = repairsOf(lines, signing.proposed);
  const setAside = of("set-aside").map((e) => ({ ...e.body, entry: e.id }));
  const cleared = newest("codes-cleared");
  const tried = newest("complaint-tried");
  const story = newest("story")?.body;
  const conditions = newest("conditions")?.body;
  const handover = newest("handover");

  const base = {
    number: newest("opened")?.body.number ?? 0,
    ...(practice ? { practice } : {}),
    codes: newest("codes")?.body.codes ?? [],
    ...(leak ? { requiredLeak: leak } : {}),
    codesRead: of("codes").length > 0,
    ownCodes: ownCodes(lines),
    checks,
    findings: findingsOf(lines, repairs, setAside),
    repairs,
    offCar: offCarOf(lines),
    cautions: [...new Set(of("caution").map((e) => e.body.caution))],
    zones: zoneKnowledge(checks, lines, touches, lastWork, context),
    setAside,
    drives: of("drive").map((e) => ({ ...e.body, at: spanStart(e.at) })),
    proof,
    ...comebackOf(lines, lastWork, relative, { codes: proof.codes.map((c) => c.code), soak: shop.limits.coldSoak.value }),
    outcomes: of("outcome").map((e) => ({ ...e.body, at: spanStart(e.at) })),
    notes: of("note").map((e) => ({ entry: e.id, text: e.body.text, at: spanStart(e.at), by: e.by })),
    tried: of("tried").map((e) => ({ entry: e.id, cause: e.body.cause, just: told.every((c) => c.seq < e.seq) })),
    engineNotes: of("engine-note").map((e) => ({ ...e.body, at: spanStart(e.at), by: e.by })),
    unknown: lines.filter((e) => !isEntryKind(e.kind)).map((e) => ({ entry: e.id, kind: e.kind })),
    updatedAt: lines.reduce<string>((max, e) => (spanEnd(e.at) > max ? spanEnd(e.at) : max), ""),
    kit: newest("kit")?.body.items ?? [],
    ...(vehicle ? { vehicle } : {}),
    ...(story ? { story } : {}),
    ...(cleared ? { codesClearedAt: spanStart(cleared.at) } : {}),
    ...(conditions ? { conditions } : {}),
    ...(tried ? { complaint: { ...tried.body, at: spanStart(tried.at), afterRepair: relative(tried) } } : {}),
    ...(handover ? { handover: { ...handover.body, at: spanStart(handover.at), by: handover.by } } : {}),
  };
  const sections = context && sectionsOf(checks, context);
  const { suspects, next, byHand, retired }: ReturnType<typeof judgeSuspects> = context
    ? judgeSuspects(context, { ...base, ...(sections ? { sections } : {}) }, experience)
    : { suspects: [], next: [], retired: [] };
  const inspection = context && story?.purpose === "inspection" ? inspectionOf(context, checks) : undefined;
  const confounded = confoundedChanges(evidence, repairs, lines);
  const [first] = suspects;
  const nothing = first?.cause.trait === "healthy" && first.odds >= NOTHING_FOUND ? { nothingFound: first.odds } : {};
  const blocks = blocksOf({ ...base, ...nothing });
  // Repaired and proved, nothing is left to explain.
  const explained =
    repairs.some((r) => !r.undone && r.body.permanence !== "bypass") &&
    blocks.close.every((b) => b.onRoad || (b.station !== "prove" && b.station !== "fix"));
  return {
    ...base,
    ...monitorOf(lines, context, relative, now, cleared !== undefined && (!lastWork || relative(cleared) === "after")),
    closed: signing.closed,
    ...(signing.closing ? { closing: signing.closing } : {}),
    suspects: explained ? [] : suspects,
    next: explained ? [] : inspection ? inspectNext(inspection, next) : next,
    ...(byHand && !explained ? { byHand } : {}),
    ...nothing,
    ...(inspection ? { inspection } : {}),
    retired,
    ...(sections ? { sections } : {}),
    confounded,
    standing: standingOf(base, confounded),
    blocks,
    waiting: newest("waiting")?.body ?? { on: "me" },
  };
}

/** When each thing that came off was put back, ms since 1970, by its entry. */
const restoredAt = (lines: readonly Line[]): ReadonlyMap<string, number> =>
  new Map(linesOf(lines, "restored").map((e) => [e.body.item, spanOf(e.at).from]));

/** Each check's verdict, void where something stood in its way; none on a vehicle that nobody described. */
function verdictsOf(lines: readonly Line[], context: CheckContext | undefined): ReadonlyMap<string, CheckState["verdict"]> {
  if (!context) return new Map();
  const restored = restoredAt(lines);
  const commands = linesOf(lines, "displaced").filter((e) => e.body.commanded);
  return new Map(
    linesOf(lines, "check").map((entry) => {
      const standing = commandInTheWay(entry, commands, restored);
      const trap = standing ? `${standing} was still commanded: release it, then check again` : provedElsewhere(entry);
      return [entry.id, trap ? voidVerdict("This check proves nothing", trap) : judged(entry.body, context)] as const;
    }),
  );
}

/** The checks with what each says, where it was done, and whether before or after the last work. */
function checksOf(
  lines: readonly Line[],
  verdicts: ReturnType<typeof verdictsOf>,
  relative: (line: Line) => AfterRepair,
): CheckState[] {
  const shown = new Map(linesOf(lines, "judged").map((e) => [e.body.entry, e.body]));
  return linesOf(lines, "check").flatMap((entry): CheckState[] => {
    const verdict = verdicts.get(entry.id);
    if (!verdict) return [];
    const kind = CHECKS[entry.body.check];
    const place = kind.place?.(entry.body.record);
    const before = shown.get(entry.id);
    const flipped = before && (before.outcome !== verdict.outcome || before.headline !== verdict.headline);
    return [
      {
        entry: entry.id,
        check: entry.body.check,
        record: entry.body.record,
        at: entry.at,
        by: entry.by,
        verdict,
        afterRepair: relative(entry),
        tested: verdict.tested ?? [],
        ...(entry.body.pictures ? { pictures: entry.body.pictures } : {}),
        ...(place === undefined ? {} : { place }),
        onBench: kind.onBench?.(entry.body.record) ?? false,
        ...(flipped ? { wasShown: { outcome: before.outcome, headline: before.headline } } : {}),
      },
    ];
  });
}

/** The repairs, each with whether it was undone, and whether it waits for a signature. */
function repairsOf(lines: readonly Line[], proposed: ReadonlySet<string>): RepairState[] {
  const undone = new Set(linesOf(lines, "undone").map((e) => e.body.repair));
  return linesOf(lines, "repair").map((e) => ({
    entry: e.id,
    at: e.at,
    by: e.by,
    body: e.body,
    undone: undone.has(e.id),
    proposed: proposed.has(e.id),
  }));
}

/** The findings, each with what repairs it or why it is left. */
const findingsOf = (
  lines: readonly Line[],
  repairs: readonly RepairState[],
  setAside: JobState["setAside"],
): JobState["findings"] =>
  linesOf(lines, "finding").map((e) => {
    const repairedBy = repairs.find((r) => r.body.finding === e.id && !r.undone)?.entry;
    const left = setAside.find((a) => a.id === e.id);
    return { entry: e.id, body: e.body, ...(repairedBy ? { repairedBy } : {}), ...(left ? { setAside: left } : {}) };
  });

/** All that came off, went in or was commanded, and whether it still is. */
function offCarOf(lines: readonly Line[]): OffCarItem[] {
  const restored = restoredAt(lines);
  return linesOf(lines, "displaced").map(({ id, at, body: { what, joint, commanded, swappedBack, kept } }) => ({
    entry: id,
    what,
    ...(joint ? { joint } : {}),
    since: spanStart(at),
    open: !restored.has(id),
    ...(commanded ? { commanded } : {}),
    ...(swappedBack ? { swappedBack } : {}),
    ...(kept ? { kept } : {}),
  }));
}

/** A fault that is not always there, since the last repair; none where it was seen to hold weeks later. */
function comebackOf(
  lines: readonly Line[],
  lastWork: Line | undefined,
  relative: (line: Line) => AfterRepair,
  { codes, soak }: { readonly codes: readonly string[]; readonly soak: number },
): Pick<JobState, "comeback"> {
  const told = linesOf(lines, "story").at(-1)?.body.comeback;
  const held = linesOf(lines, "outcome").some((o) => o.body.result === "held" && relative(o) === "after");
  if (!lastWork || held) return {};
  const ran = engineRuns(lines);
  const drives = linesOf(lines, "drive").map((d) => {
    const { from } = spanOf(d.at);
    const at = spanStart(d.at);
    const before = ran.filter((r) => r.id !== d.id && r.to <= from).map((r) => r.to);
    const stood = before.length > 0 ? (from - Math.max(...before)) / 1000 : undefined;
    return { ...d.body, at, afterRepair: relative(d), ...(stood === undefined ? {} : { stood }) };
  });
  const comeback = comebackSince(told, drives, { soak, coldStartCode: codes.some((c) => codeText(c)?.coldStarts) });
  return comeback ? { comeback } : {};
}

/** When the engine is known to have run: drives, and checks that it runs in. */
const engineRuns = (lines: readonly Line[]): { readonly id: string; readonly to: number }[] => [
  ...linesOf(lines, "drive").map((d) => ({ id: d.id, to: spanOf(d.at).to })),
  ...linesOf(lines, "check")
    .filter((c) => CHECKS[c.body.check].engine !== "standing")
    .map((c) => ({ id: c.id, to: spanOf(c.at).to })),
];

/** The plan for the car's own monitor, and what it said last. */
function monitorOf(
  lines: readonly Line[],
  context: CheckContext | undefined,
  relative: (line: Line) => AfterRepair,
  now: number,
  cleared: boolean,
): Pick<JobState, "readiness" | "monitor"> {
  const monitor = linesOf(lines, "monitor").findLast((m) => isOfVapour(m.body));
  const parked = linesOf(lines, "readiness").at(-1);
  return {
    ...(parked && context && relative(parked) !== "before"
      ? { readiness: planReadiness(parked.body, context, { cleared }, now) }
      : {}),
    ...(monitor
      ? {
          monitor: {
            ...monitor.body,
            result: monitorResult(monitor.body),
            at: spanStart(monitor.at),
            afterRepair: relative(monitor),
          },
        }
      : {}),
  };
}

const isTime = (iso: unknown) => typeof iso === "string" && Number.isFinite(Date.parse(iso));
/** Entries whose times were looked at already: an entry does not change. */
const known = new WeakSet<JournalEntry>();
function isTimed(entry: JournalEntry): boolean {
  if (known.has(entry)) return true;
  const { at } = entry;
  const timed = typeof at === "string" ? isTime(at) : at !== null && typeof at === "object" && isTime(at.from) && isTime(at.to);
  if (timed) known.add(entry);
  return timed;
}

/** Time of an entry: what an old door let in with no time that can be read happened when it was recorded. */
const timed = (entry: JournalEntry): JournalEntry =>
  isTimed(entry) ? entry : { ...entry, at: isTime(entry.recordedAt) ? entry.recordedAt : new Date(0).toISOString() };

/** How far what stands is proved: a temporary repair, an unproved cause and what was left are never "fully proved". */
function standingOf(
  { repairs, setAside, codes }: Pick<JobState, "repairs" | "setAside" | "codes">,
  confounded: readonly string[],
): JobState["standing"] {
  if (repairs.some((r) => !r.undone && r.body.permanence === "temporary")) return "temporary";
  if (setAside.length > 0 || codes.some((c) => c.asideReason)) return "something-left";
  return confounded.length > 0 ? "cause-unproved" : "proved";
}

/** The leaks that codes name by their own criteria: of every reading that stands, but for what was set aside. */
function criteriaOf(lines: readonly Line[]): { readonly code: string; readonly size: Quantity }[] {
  const aside = new Set(linesOf(lines, "set-aside").map((l) => l.body.id));
  return linesOf(lines, "codes")
    .flatMap((l) => l.body.codes)
    .flatMap((c) => (c.criteria?.leak && !c.asideReason && !aside.has(c.code) ? [{ code: c.code, size: c.criteria.leak }] : []));
}

/** The vehicle as it was described when a line was written, for a shop as it is now. */
function vehicleThen(
  lines: readonly Line[],
  shop: Shop,
  practice: string | undefined,
  required: RequiredSize | undefined,
): (line: Line) => CheckContext | undefined {
  const described = linesOf(lines, "vehicle")
    .flatMap((l) => [
      ...(l.former as VehicleRecord[]).map((body, k) => ({ seq: l.formerSeqs[k] as number, body })),
      { seq: l.newest.seq, body: l.body },
    ])
    .toSorted((a, b) => a.seq - b.seq)
    .map((v) => ({ seq: v.seq, context: contextOf(v.body, shop, practice, required) }));
  return (line) => described.findLast((v) => v.seq <= line.seq)?.context;
}

const spanEnd = (at: At) => (typeof at === "string" ? at : at.to);
const spanStart = (at: At) => (typeof at === "string" ? at : at.from);

/** After the last work only when it began after that had ended and its device had seen it. */
function relativeTo(line: Line, work: Line | undefined): AfterRepair {
  if (!work) return "no-repair";
  if (isAfter(line, work)) return "after";
  return seemsAfter(line, work) ? "unknown" : "before";
}

/** Name of a command that stood when a check began and is no part of it; undefined when none did. */
function commandInTheWay(
  check: LineOf<"check">,
  commands: readonly LineOf<"displaced">[],
  restored: ReadonlyMap<string, number>,
): string | undefined {
  if (commands.length === 0) return undefined;
  const began = spanOf(check.at).from;
  const own = setupOf(check.body);
  return commands.find((c) => {
    const stands = spanOf(c.at).from <= began && (restored.get(c.id) ?? Number.POSITIVE_INFINITY) > began;
    return stands && !(c.body.joint && own.has(c.body.joint));
  })?.body.what;
}

/** A machine's proof serves the runs of one working session, this long either way, ms. */
export const SESSION = 10 * 3600_000;

/** Why the proof that a record points to is not one for it; undefined when it is. */
function provedElsewhere({ at, body }: LineOf<"check">): string | undefined {
  const provedAt = CHECKS[body.check].machineProof?.(body.record)?.takenAt;
  if (provedAt === undefined || Math.abs(Date.parse(provedAt) - spanOf(at).from) <= SESSION) return undefined;
  return "its machine was proved in another session: prove it again and repeat the run";
}

/** Verdict that the runs of one kind since the last repair say together, where they are of different sections. */
function sectionsOf(checks: readonly CheckState[], { layout }: CheckContext): JobState["sections"] {
  const since = checks.some((c) => c.afterRepair === "after") ? checks.filter((c) => c.afterRepair === "after") : checks;
  for (const kind of CHECK_IDS) {
    const runs = since.filter((c) => c.check === kind);
    const read = runs.length < 2 ? undefined : CHECKS[kind].together?.(runs, layout);
    if (read) return read;
  }
  return undefined;
}

/** Hash of everything a verdict rests on, journalled with what was shown. */
export function inputsHash({ check, record }: Bodies["check"], context: CheckContext): string {
  return contentHash([
    { check, record },
    context.vehicle,
    context.limits,
    context.house,
    ...(context.practice ? ["practice"] : []),
  ]);
}
