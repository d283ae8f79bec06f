import { covarianceAt, leastSquares } from "../maths/least-squares";

export interface Settling {
  /** Settled value with its 95 % interval, in the samples' unit */
  readonly value: number;
  readonly low: number;
  readonly high: number;
  /** Time constant of the approach, s */
  readonly timeConstant: number;
  /** False while the change over the last time constant exceeds the noise. */
  readonly settled: boolean;
  /** s until it will have settled; 0 when it has */
  readonly timeLeft: number;
  /** The fitted approach at a time, for drawing. */
  at(time: number): number;
}

/** A scale stands still where its last readings differ by no more than this share of what its reader can tell, for so long, s. */
const STILL = 0.4;
const STILL_FOR = 20;
const STILL_READINGS = 3;

/** The readings at the end between which a scale stood still; undefined where it did not. */
function stillTail(times: readonly number[], values: readonly number[], resolution: number): readonly number[] | undefined {
  let from = values.length;
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  while (from > 0) {
    const value = values[from - 1] as number;
    const [lower, higher] = [Math.min(low, value), Math.max(high, value)];
    if (higher - lower > STILL * resolution) break;
    [low, high] = [lower, higher];
    from--;
  }
  const tail = values.slice(from);
  const lasted = (times.at(-1) as number) - (times[from] ?? Number.POSITIVE_INFINITY);
  if (tail.length < STILL_READINGS || lasted < STILL_FOR) return undefined;
  // What goes on one way all along is no scale that stands still, however little it moves at once.
  const half = Math.floor(tail.length / 2);
  const mean = (list: readonly number[]) => list.reduce((sum, v) => sum + v, 0) / list.length;
  const drift = Math.abs(mean(tail.slice(half)) - mean(tail.slice(0, half)));
  return drift > (STILL / 4) * resolution ? undefined : tail;
}

/**
 * Fits y = y∞ + a·e^(−t/τ), the isothermal approach of a filled circuit to its settled flow or pressure (`vessel.ts`).
 * @param times s, rising; @param values any unit; @param guess expected τ in s (`settleTimeConstant`);
 * @param resolution smallest difference the reader of the scale can tell, same unit as the values.
 * Where the scale stood still at the end, it is read there; what has settled is never beyond what was read.
 * Throws RangeError for fewer than 3 samples. Valid once the fill is past its first rush.
 */
export function fitSettling(times: readonly number[], values: readonly number[], guess: number, resolution: number): Settling {
  if (times.length < 3 || times.length !== values.length) {
    throw new RangeError("Settling needs at least 3 samples: follow the ball for a few more seconds");
  }
  const start = times[0] as number;
  const end = times.at(-1) as number;
  const last = values.at(-1) as number;
  const floor = Math.max(resolution / Math.sqrt(12), 1e-9);
  const logGuess = Math.log(Math.max(guess, 0.5));
  const prior = [
    { mean: last, sd: Infinity },
    { mean: 0, sd: Infinity },
    { mean: logGuess, sd: 1 },
  ];
  const at = (p: readonly number[], t: number) =>
    (p[0] as number) + (p[1] as number) * Math.exp(-(t - start) / Math.exp(p[2] as number));
  const under = (sigma: number) => ({
    blocks: [{ residuals: (p: readonly number[]) => times.map((t, i) => (at(p, t) - (values[i] as number)) / sigma) }],
    steps: [floor, floor, 0.01],
    prior,
  });
  const fitWith = (sigma: number, from: readonly number[], near: boolean) => leastSquares({ ...under(sigma), start: from, near });
  let sigma = floor;
  let fit = fitWith(sigma, [last, (values[0] as number) - last, logGuess], false);
  for (let pass = 0; pass < 4; pass++) {
    sigma = Math.max(floor, sigma * Math.sqrt(fit.cost / Math.max(1, times.length - 3)));
    fit = fitWith(sigma, fit.parameters, true);
  }
  const [value, rush, logTau] = fit.parameters as [number, number, number];
  const timeConstant = Math.exp(logTau);
  const noise = Math.max(2 * sigma, resolution);
  const change = Math.abs(
    rush * (Math.exp(-(end - timeConstant - start) / timeConstant) - Math.exp(-(end - start) / timeConstant)),
  );
  const settled = end - start >= timeConstant && change <= noise;
  const sd = Math.sqrt(Math.max(0, covarianceAt(under(sigma), fit.parameters)[0]?.[0] ?? 0) + floor ** 2);
  const still = stillTail(times, values, resolution);
  if (still) {
    const mean = still.reduce((sum, v) => sum + v, 0) / still.length;
    const off = 1.96 * floor;
    return {
      value: mean,
      low: mean - off,
      high: mean + off,
      timeConstant,
      settled: true,
      timeLeft: 0,
      at: (t) => at(fit.parameters, t),
    };
  }
  // What has settled lies where it was read, and no further than the scale can tell beyond.
  const [least, most] = settled
    ? [Math.min(...values), Math.max(...values)]
    : [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
  const within = (y: number, margin = 0) => Math.min(most + margin, Math.max(least - margin, y));
  const until = start + timeConstant * Math.log(Math.max(1, (Math.abs(rush) * (Math.E - 1)) / noise));
  return {
    value: within(value),
    low: within(value - 1.96 * sd, resolution),
    high: within(value + 1.96 * sd, resolution),
    timeConstant,
    settled,
    timeLeft: settled ? 0 : Math.max(1, Math.max(until, start + timeConstant) - end),
    at: (t) => at(fit.parameters, t),
  };
}
