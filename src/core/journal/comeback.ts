import { type Comeback, coldStarts, comesBackAfter, comesBackAtRandom } from "../maths/comeback";
import { formatNumber, type Quantity, toSi } from "../units";
import type { Bodies, ComebackKind } from "./entries";
import type { AfterRepair } from "./proof/order";

/** Unit that is counted of each without the fault. */
export const COMEBACK_COUNTS: Readonly<Record<ComebackKind, string>> = {
  random: "km",
  "sets-in": "runs past its longest onset",
  "cold-starts": "cold starts",
};

/** Enough or not yet, and why; never "repaired with probability". */
export interface JudgedComeback extends Comeback {
  /** Count so far, in what `needed` is in */
  readonly counted: number;
  readonly reasons: readonly string[];
}

/** How a fault that is not always there stands since the last repair. */
export interface ComebackState extends JudgedComeback {
  readonly kind: ComebackKind;
  /** It came back on a drive since */
  readonly again: boolean;
  /** All that was told and driven, the oldest first: to be drawn */
  readonly runs: readonly RecordedRun[];
  /** Longest onset, km: a run counts that goes past it */
  readonly past?: number;
}

/** One run or start, as it bears on a fault that comes and goes. */
export interface RecordedRun {
  /** km without it, or until it came; a cold start has none */
  readonly distance?: number;
  /** ISO time; left out for what the story told */
  readonly at?: string;
  readonly when: "before" | "since";
  readonly says: "came" | "clean" | "nothing";
}

/** Record of a fault before it was repaired, and what was driven since, in one unit of distance. */
export type ComebackHistory =
  | { readonly kind: "random"; readonly recorded: readonly number[]; readonly unfinished?: number; readonly clean: number }
  | {
      readonly kind: "sets-in";
      readonly recorded: readonly number[];
      readonly clean: readonly number[];
      /** How sure, 0.5 to 0.999; 0.95 where nothing is said */
      readonly confidence?: number;
    };

const shown = (x: number) => formatNumber(x, x < 10 ? 1 : 0);
const percent = (chance: number) => `${formatNumber(100 * chance, chance < 0.1 ? 1 : 0)} %`;
const left = ({ chanceIfNotFixed }: Comeback) =>
  `if nothing were repaired, so much without it would happen in ${percent(chanceIfNotFixed)} of cases`;

/**
 * Whether a fault that comes and goes stayed away long enough to say that it is gone: `comesBackAtRandom` counts all that was
 * driven, `comesBackAfter` only unbroken runs past the longest onset. Throws RangeError as they do.
 * @param unit how the distances are said, as "km"; left out where nobody gave one.
 */
export function judgeComeback(history: ComebackHistory, unit = ""): JudgedComeback {
  const of = (x: number) => `${shown(x)}${unit && ` ${unit}`}`;
  if (history.kind === "random") {
    const judged = comesBackAtRandom(history);
    const n = history.recorded.length;
    return {
      ...judged,
      counted: history.clean,
      reasons: [
        left(judged),
        judged.enough
          ? `${of(history.clean)} without it, ${of(judged.needed)} asked for`
          : `not yet: ${of(Math.max(0, judged.needed - history.clean))} more without it`,
        ...(n === 1 && !judged.enough
          ? ["one interval is little to count on: hand over conditionally and agree a day to call, rather than drive all that"]
          : []),
      ],
    };
  }
  const { counted, past, ...judged } = comesBackAfter(
    history,
    history.confidence === undefined ? undefined : 1 - history.confidence,
  );
  const short = history.clean.length - counted;
  return {
    ...judged,
    counted,
    reasons: [
      left(judged),
      `a run counts that goes past ${of(past)} without a break: ${counted} of ${judged.needed} so far`,
      ...(short > 0 ? [`${short} stopped before that and ${short === 1 ? "says" : "say"} nothing: they do not add up`] : []),
      ...(judged.enough ? [] : [`not yet: ${judged.needed - counted} more under the same conditions`]),
    ],
  };
}

/** The same for a fault of cold starts. Throws RangeError as `coldStarts` does. */
export function judgeColdStarts(seen: Parameters<typeof coldStarts>[0], clean: number): JudgedComeback {
  const judged = coldStarts(seen, clean);
  return {
    ...judged,
    counted: clean,
    reasons: [
      left(judged),
      judged.enough
        ? `${clean} clean cold starts, ${judged.needed} asked for`
        : `not yet: ${judged.needed - clean} more cold starts on which its monitor ran, pending codes read after each`,
      "a warm restart is no cold start",
    ],
  };
}

/** A drive, and whether it surely came before or after the last repair. */
type Driven = Pick<Bodies["drive"], "distance" | "cameBackAfter" | "coldStart" | "start" | "pending" | "load"> & {
  readonly afterRepair: AfterRepair;
  readonly at: string;
  /** s from when the engine was last known to run; undefined where nobody wrote that down */
  readonly stood?: number;
};

const kilometres = (q: Quantity) => toSi(q) / 1000;

/** Demands of a road, the least first. */
const LOADS: readonly NonNullable<Bodies["drive"]["load"]>[] = ["town", "steady", "hills"];

/** An engine that starts warmer than the air by more than this has not cooled down, K. */
const COLD_WITHIN = 10;

/** Why a start is no cold start that counts; undefined where it is one. */
function notCold({ coldStart, start, stood, pending }: Driven, soak: number): string | undefined {
  if (!coldStart) return "not started from cold";
  if (start && toSi(start.coolant) - toSi(start.air) > COLD_WITHIN) return "a warm engine: a warm restart is no cold start";
  if (stood !== undefined && stood < soak)
    return `stood for ${shown(stood / 3600)} h only, ${shown(soak / 3600)} h are asked for`;
  if (pending === undefined) return "pending codes not read after it";
  return undefined;
}

/** A fault of cold starts since the last repair: what counts are starts from cold, long stood, read afterwards. */
function coldStartsSince(
  seen: { readonly came: number; readonly of: number },
  drives: readonly Driven[],
  soak: number,
): ComebackState {
  const before = drives.filter((d) => d.afterRepair === "before" && notCold(d, soak) === undefined);
  const since = drives.filter((d) => d.afterRepair === "after");
  const counted = since.filter((d) => notCold(d, soak) === undefined);
  const came = seen.came + before.filter((d) => d.pending === "came").length;
  const of = seen.of + before.length;
  const again = since.some((d) => d.pending === "came" || d.cameBackAfter !== undefined);
  const judged = judgeColdStarts({ came, of }, counted.filter((d) => d.pending === "none").length);
  const runs = [...before, ...since].map(
    (d): RecordedRun => ({
      at: d.at,
      when: d.afterRepair === "after" ? "since" : "before",
      // Back is back, on whatever start.
      says: d.pending === "came" || d.cameBackAfter ? "came" : notCold(d, soak) === undefined ? "clean" : "nothing",
    }),
  );
  const not = [...new Set(since.flatMap((d) => (d.coldStart ? (notCold(d, soak) ?? []) : [])))];
  return {
    ...judged,
    reasons: [...judged.reasons, ...not.map((why) => `one did not count: ${why}`)],
    kind: "cold-starts",
    again,
    runs,
  };
}

/** Requirement of a fault of cold starts where nobody told how often it came: as if it came on the only one seen. */
const EVERY_START = { came: 1, of: 1 } as const;

/**
 * How a fault that is not always there stands since the last repair: what was told and driven before against what was since.
 * @param soak s that the engine must have stood before a cold start.
 */
export function comebackSince(
  told: Bodies["story"]["comeback"],
  drives: readonly Driven[],
  { soak, coldStartCode }: { readonly soak: number; readonly coldStartCode: boolean },
): ComebackState | undefined {
  if (coldStartCode || told?.kind === "cold-starts") {
    const { came, of } = told ?? {};
    return coldStartsSince(came !== undefined && of !== undefined ? { came, of } : EVERY_START, drives, soak);
  }
  if (!told) return undefined;
  const { kind, after = [] } = told;
  const before = drives.filter((d) => d.afterRepair === "before");
  const since = drives.filter((d) => d.afterRepair === "after");
  const stretches = (list: readonly Driven[]) =>
    list.flatMap((d) => (d.distance && !d.cameBackAfter ? [kilometres(d.distance)] : []));
  const sum = (list: readonly number[]) => list.reduce((total, x) => total + x, 0);
  const recorded = [...after, ...before.flatMap((d) => d.cameBackAfter ?? [])].map(kilometres);
  if (kind === "random") {
    const clean = sum(stretches(since));
    const judged = judgeComeback({ kind, recorded, unfinished: sum(stretches(before)), clean }, "km");
    return {
      ...judged,
      kind,
      again: since.some((d) => d.cameBackAfter !== undefined),
      runs: runsOf(after, before, since, () => true),
    };
  }
  // What set it in under load is not answered by a stroll.
  const under = Math.min(...before.flatMap((d) => (d.cameBackAfter && d.load ? LOADS.indexOf(d.load) : [])));
  const asked = (d: Driven) => !Number.isFinite(under) || under === 0 || (d.load !== undefined && LOADS.indexOf(d.load) >= under);
  const easy = stretches(since.filter((d) => !asked(d))).length;
  const judged = judgeComeback({ kind: "sets-in", recorded, clean: stretches(since.filter(asked)) }, "km");
  const eased = easy > 0 ? [`${easy} under less load than it set in under: ${easy === 1 ? "it says" : "they say"} nothing`] : [];
  const past = Math.max(...recorded);
  return {
    ...judged,
    reasons: [...judged.reasons, ...eased],
    kind,
    again: since.some((d) => d.cameBackAfter !== undefined),
    past,
    runs: runsOf(after, before, since, (d, km) => d.afterRepair === "after" && asked(d) && km > past),
  };
}

/** Told history, then the drives before and since; a run without it says something where `counts` has it so. */
function runsOf(
  told: readonly Quantity[],
  before: readonly Driven[],
  since: readonly Driven[],
  counts: (drive: Driven, km: number) => boolean,
): RecordedRun[] {
  const driven = (d: Driven): RecordedRun[] => {
    const when = d.afterRepair === "after" ? "since" : "before";
    if (d.cameBackAfter) return [{ at: d.at, when, says: "came", distance: kilometres(d.cameBackAfter) }];
    if (!d.distance) return [];
    const km = kilometres(d.distance);
    return [{ at: d.at, when, says: counts(d, km) ? "clean" : "nothing", distance: km }];
  };
  return [
    ...told.map((q): RecordedRun => ({ when: "before", says: "came", distance: kilometres(q) })),
    ...before.flatMap(driven),
    ...since.flatMap(driven),
  ];
}
