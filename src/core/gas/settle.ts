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

/**
 * Fits y = y∞ + a·e^(−t/τ), the isothermal approach of a filled circuit to its settled flow or pressure (`vessel.ts`).
 * @param times s, rising; @param values any unit; @param guess expected τ in s (`settleTimeConstant`);
 * @param resolution smallest difference the reader of the scale can tell, same unit as the values.
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
  const until = start + timeConstant * Math.log(Math.max(1, (Math.abs(rush) * (Math.E - 1)) / noise));
  return {
    value,
    low: value - 1.96 * sd,
    high: value + 1.96 * sd,
    timeConstant,
    settled,
    timeLeft: settled ? 0 : Math.max(1, Math.max(until, start + timeConstant) - end),
    at: (t) => at(fit.parameters, t),
  };
}
