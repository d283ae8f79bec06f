import { CHECKS, type CheckId } from "../checks";
import { BAY_INSTRUMENTS, type BayInstrument, INSTRUMENT_FAULTS } from "../devices/instrument-fault";
import type { Family } from "../faults";
import { type Bodies, foldJob, type JobState, type JournalEntry } from "../journal";
import { seededNoise } from "../maths/random";
import { inSentence } from "../sentence";
import type { Shop } from "../shop/settings";
import type { NextCheck, Suspect } from "../suspects";
import { fromSi, type Quantity } from "../units";
import { isOver } from "./bay-entries";
import { type Fault, holeOf } from "./car";
import type { PracticeCase } from "./case";
import { readCheck } from "./readers";
import { PRICES, stillThere, type World, worldOf } from "./world";

/** A check as it was done, beside the best that could have been done then. */
export interface PlayedCheck {
  readonly entry: string;
  readonly check: CheckId;
  readonly name: string;
  readonly headline: string;
  readonly outcome: string;
  readonly minutes: number;
  /** Information it gave on the suspects, bits; nothing where it was void */
  readonly bits: number;
  /** Expected information as it was begun, bits, where it was among what could be done */
  readonly couldTell?: number;
  /** What was best to do next as things stood then */
  readonly best?: { readonly check: CheckId; readonly name: string; readonly bits: number; readonly minutes: number };
  /** Information that each of the checks that were worth most then could have told, and would have told of this very car */
  readonly could: readonly CouldTell[];
}

/** A check that could have been done instead. */
export interface CouldTell {
  readonly name: string;
  readonly minutes: number;
  /** Its expected information, and how much likelier it would have made what is really wrong (below 0: less likely), bits */
  readonly expected: number;
  readonly inHindsight: number;
}

/** The fault, as it is told at the end. */
export interface Revealed {
  readonly name: string;
  readonly joint?: string;
  readonly hole?: Quantity;
  readonly cured: boolean;
}

export interface Debrief {
  readonly faults: readonly Revealed[];
  /** Every fault is cured, nothing was broken */
  readonly won: boolean;
  /** It was handed over or ended with something still in it: the ferry brings it back */
  readonly comeback: boolean;
  readonly minutes: number;
  readonly money: number;
  readonly hints: number;
  readonly voids: number;
  readonly mishaps: readonly string[];
  /** Everything about the case that leads away from its fault, in words */
  readonly misled: readonly string[];
  /** Checks that were recorded before one of their cautions was acknowledged */
  readonly cautionsSkipped: readonly string[];
  readonly path: readonly PlayedCheck[];
  /** One thing to do better next time */
  readonly better: string;
}

const entropy = (suspects: readonly Suspect[]): number =>
  suspects.reduce((sum, { odds }) => (odds > 0 ? sum - odds * Math.log2(odds) : sum), 0);

/** So many of the checks worth doing are looked at in hindsight. */
const LOOKED_AT = 5;

/** Likelihood that is given to what is really wrong, not counting on nothing. */
const oddsOf = (suspects: readonly Suspect[], faults: readonly Fault[]): number =>
  Math.max(1e-4, ...suspects.filter((s) => faults.some((f) => f.cause.id === s.cause.id)).map((s) => s.odds));

/** A check that was not done, read on the car as it stood, and what would have been known then. */
function inHindsight(
  next: NextCheck,
  before: readonly JournalEntry[],
  { car }: Pick<World, "car">,
  known: JobState,
  shop: Shop,
): CouldTell | undefined {
  const { check, place, name, minutes, bits } = next;
  const last = before.at(-1);
  const noise = seededNoise(car.seed + before.length);
  const record = last && readCheck(check, { car, noise }, { joint: place, entry: place });
  if (!record) return undefined;
  const entry = {
    ...last,
    id: `${last.id}:${check}:${place}`,
    seq: last.seq + 1,
    kind: "check" as const,
    body: { check, record },
  };
  const after = foldJob([...before, entry], shop, 0);
  const told = Math.log2(oddsOf(after.suspects, car.faults) / oddsOf(known.suspects, car.faults));
  return { name, minutes, expected: bits, inHindsight: told };
}

const perMinute = ({ bits, minutes }: { readonly bits: number; readonly minutes: number }) => bits / Math.max(1, minutes);

function pathOf(given: PracticeCase, world: World, entries: readonly JournalEntry[], shop: Shop): PlayedCheck[] {
  const minutes = new Map(world.steps.map((s) => [s.entry, s.minutes]));
  const until = (seq: number) => entries.filter((e) => e.seq <= seq);
  const stateAt = (seq: number): JobState => foldJob(until(seq), shop, 0);
  const roots = entries.filter((e) => e.kind === "check" && !e.corrects && minutes.has(e.id)).toSorted((a, b) => a.seq - b.seq);
  return roots.flatMap((entry): PlayedCheck[] => {
    const { check } = entry.body as Bodies["check"];
    const before = stateAt(entry.seq - 1);
    const after = stateAt(entry.seq);
    const done = after.checks.find((c) => c.entry === entry.id);
    // After a repair it proves; before it, it finds.
    if (!done || done.afterRepair === "after") return [];
    const own = before.next.find((n) => n.check === check && (n.place === undefined || n.place === done.place));
    const [best] = before.next;
    const then = until(entry.seq - 1).toSorted((a, b) => a.seq - b.seq);
    const bay = worldOf(given, then);
    const open = before.next.filter((n) => !n.notNow).slice(0, LOOKED_AT);
    return [
      {
        entry: entry.id,
        check,
        name: CHECKS[check].name,
        headline: done.verdict.headline,
        outcome: done.verdict.outcome,
        minutes: minutes.get(entry.id) ?? 0,
        bits: done.verdict.outcome === "void" ? 0 : Math.max(0, entropy(before.suspects) - entropy(after.suspects)),
        ...(own ? { couldTell: own.bits } : {}),
        ...(best ? { best: { check: best.check, name: best.name, bits: best.bits, minutes: best.minutes } } : {}),
        could: open.flatMap((n) => inHindsight(n, then, bay, before, shop) ?? []),
      },
    ];
  });
}

/** Everything that leads away from the fault: a second one, a code of other times, an earlier part, an instrument, the light, a check that was spoilt. */
function misledBy({ car, strays, story, instruments, light }: PracticeCase, path: readonly PlayedCheck[]): string[] {
  const [first, second] = car.faults;
  const spoilt = path.filter((c) => c.outcome === "void");
  return [
    ...(first && second
      ? [
          `a second fault beside the first: what ${inSentence(second.cause.name)} shows is not what ${inSentence(first.cause.name)} shows`,
        ]
      : []),
    ...strays.map((code) => `${code} was stored at other times and has nothing to do with it`),
    ...(story.replacedBefore ? [`somebody had worked on it before: ${inSentence(story.replacedBefore)}`] : []),
    ...Object.entries(instruments).map(
      ([which, fault]) => `${inSentence(BAY_INSTRUMENTS[which as BayInstrument])}: ${INSTRUMENT_FAULTS[fault]}`,
    ),
    ...(light.door === "open" ? ["the bay's door stood open and no lamp was lit: smoke is not seen there"] : []),
    ...spoilt.map((c) => `the ${inSentence(c.name)} was void: what it showed was worth nothing`),
  ];
}

/** Checks recorded before the cautions that stand before them were acknowledged. */
function skippedCautions(given: PracticeCase, entries: readonly JournalEntry[]): string[] {
  const taken = new Map(
    entries.flatMap((e) => (e.kind === "caution" ? [[(e.body as Bodies["caution"]).caution, e.seq] as const] : [])),
  );
  const skipped = entries.flatMap((e): string[] => {
    if (e.kind !== "check" || e.corrects) return [];
    const { check, record } = e.body as Bodies["check"];
    // A record says all that its plan was made for.
    const { cautions } = CHECKS[check].plan(given.car.context, record);
    return cautions.some((c) => (taken.get(c) ?? Number.POSITIVE_INFINITY) > e.seq) ? [CHECKS[check].name] : [];
  });
  return [...new Set(skipped)];
}

/** The one thing that would have helped most. */
function betterOf(debrief: Omit<Debrief, "better">, tightened: boolean): string {
  const [mishap] = debrief.mishaps;
  if (tightened && debrief.comeback)
    return "Leave caps and clamps as they are until a run has been read with them: tightened first, the leak was gone before anybody saw it.";
  if (mishap) return `Mind the step before: ${mishap}.`;
  if (debrief.voids > 0 && debrief.comeback) return "A void check proves nothing: do it again before you go on.";
  if (debrief.comeback)
    return "Prove the repair with the check that failed, whole and under the same conditions, before it leaves.";
  if (debrief.cautionsSkipped.length > 0)
    return `Read the cautions before the ${inSentence(debrief.cautionsSkipped[0] as string)}: they stand there because somebody was hurt.`;
  const lost = debrief.path
    .flatMap((p) =>
      p.best ? [{ p, loss: (perMinute(p.best) - perMinute({ bits: p.couldTell ?? 0, minutes: p.minutes })) * p.minutes }] : [],
    )
    .toSorted((a, b) => b.loss - a.loss)[0];
  if (lost?.p.best && lost.loss > 0.4)
    return `Instead of ${inSentence(lost.p.name)}, ${inSentence(lost.p.best.name)} would have told more for its minutes.`;
  if (debrief.voids > 0) return "A void check costs its minutes twice: look over its setup before you read.";
  if (debrief.hints > 0)
    return "You took hints: the suspects' own reasons are the codes and symptoms you had already. Weigh them first.";
  return "Nothing to mend: found, cured and proved the short way.";
}

/** How a case was played, against the truth. Pure. */
export function debriefOf(given: PracticeCase, entries: readonly JournalEntry[], shop: Shop): Debrief {
  const world = worldOf(given, entries);
  const left = stillThere(world);
  const path = pathOf(given, world, entries, shop);
  const over = isOver(entries);
  const reveal = (fault: Fault): Revealed => {
    const hole = holeOf(fault, given.car.context.vehicle);
    return {
      name: fault.cause.name,
      ...(fault.cause.joint ? { joint: fault.cause.joint } : {}),
      ...(hole > 0 ? { hole: fromSi(hole, "mm") } : {}),
      cured: !left.some((f) => f.cause.id === fault.cause.id),
    };
  };
  const comeback = over && left.length > 0;
  const facts = {
    faults: [...given.car.faults, ...world.broken].map(reveal),
    won: left.length === 0,
    comeback,
    minutes: world.minutes,
    money: world.money + (comeback ? PRICES.comeback + PRICES.crossing : 0),
    hints: world.hints,
    voids: path.filter((p) => p.outcome === "void").length,
    mishaps: world.steps.flatMap((s) => s.mishap ?? []),
    misled: misledBy(given, path),
    cautionsSkipped: skippedCautions(given, entries),
    path,
  };
  return { ...facts, better: betterOf(facts, world.asleep.length > 0) };
}

/** A case as it was played by somebody, in a line of their record. */
export interface PlayedCase {
  readonly jobId: string;
  readonly number: number;
  readonly code: string;
  readonly family: Family;
  readonly vehicle: string;
  readonly by: string;
  readonly at: string;
  readonly over: boolean;
  readonly won: boolean;
  readonly comeback: boolean;
  readonly minutes: number;
  readonly money: number;
  readonly hints: number;
}
