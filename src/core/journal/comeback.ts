import { type Comeback, coldStarts, comesBackAfter, comesBackAtRandom } from "../maths/comeback";
import { formatNumber, type Quantity, toSi } from "../units";
import type { Bodies } from "./entries";
import type { AfterRepair, ComebackState } from "./state";

/** How a fault that is not always there comes back. */
export const COMEBACK_KINDS = { random: "Now and then, at any time", "sets-in": "Sets in after so far, then stays" } as const;
export type ComebackKind = keyof typeof COMEBACK_KINDS;

/** Enough or not yet, and why; never "repaired with probability". */
export interface JudgedComeback extends Comeback {
  /** What counts so far, in what `needed` is in */
  readonly counted: number;
  readonly reasons: readonly string[];
}

/** What a fault did before it was repaired, and what was driven since, in one unit of distance. */
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
      ...(judged.enough ? [] : [`not yet: ${judged.needed - counted} more, under what it set in under`]),
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
type Driven = Pick<Bodies["drive"], "distance" | "cameBackAfter"> & { readonly afterRepair: AfterRepair };

const kilometres = (q: Quantity) => toSi(q) / 1000;

/** How a fault that is not always there stands since the last repair: what was told and driven before against what was since. */
export function comebackSince(
  { kind, after }: NonNullable<Bodies["story"]["comeback"]>,
  drives: readonly Driven[],
): ComebackState {
  const before = drives.filter((d) => d.afterRepair === "before");
  const since = drives.filter((d) => d.afterRepair === "after");
  const stretches = (list: readonly Driven[]) =>
    list.flatMap((d) => (d.distance && !d.cameBackAfter ? [kilometres(d.distance)] : []));
  const sum = (list: readonly number[]) => list.reduce((total, x) => total + x, 0);
  const recorded = [...after, ...before.flatMap((d) => d.cameBackAfter ?? [])].map(kilometres);
  const clean = stretches(since);
  const judged =
    kind === "random"
      ? judgeComeback({ kind, recorded, unfinished: sum(stretches(before)), clean: sum(clean) }, "km")
      : judgeComeback({ kind, recorded, clean }, "km");
  return { ...judged, kind, again: since.some((d) => d.cameBackAfter !== undefined) };
}
