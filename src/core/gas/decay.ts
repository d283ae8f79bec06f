import { type Block, covarianceAt, leastSquares } from "../maths/least-squares";
import { R_AIR } from "./air";
import { holeArea, holeDiameter, SHARP_EDGED } from "./orifice";
import { fillHeating, pressureDecay } from "./vessel";

/** Shorter holds leave fill heating in the gas that reads like a leak. s */
const SHORTEST_HOLD = 60;

export interface DecayRun {
  /** s since shut-off, rising */
  readonly times: readonly number[];
  /** Pa gauge */
  readonly pressures: readonly number[];
}

/** Specific gas constants of what is pressed in, J/(kg·K): universal over molar mass. */
const GAS_CONSTANTS = { air: R_AIR, nitrogen: 296.8, "carbon-dioxide": 188.92 } as const;
export type PressedIn = keyof typeof GAS_CONSTANTS;

/**
 * How many times as large a hole's area is as one that air would be lost through as fast: a denser gas is slower, by the root of its
 * gas constant. The system was full of air and only some of it was pressed in, so that what leaks lies between the two. A
 * reference hole passes the same gas. @returns area as a share of that by air: least, middle and most.
 */
export function areaByGas({ gas = "air", reference }: Pick<DecayTest, "gas" | "reference">) {
  const pure = reference ? 1 : Math.sqrt(R_AIR / GAS_CONSTANTS[gas]);
  return { least: Math.min(1, pure), middle: (1 + pure) / 2, most: Math.max(1, pure) };
}

export interface DecayTest extends DecayRun {
  /** What was pressed in; air where it is not said */
  readonly gas?: PressedIn;
  /** Stated volume, m³ */
  readonly volume: number;
  /** Its standard deviation as a share; 5 % when absent */
  readonly volumeSd?: number;
  /** Its walls yield to pressure, as a plastic tank's do, which adds to the volume and goes on for minutes */
  readonly yields?: boolean;
  /** Pa absolute */
  readonly ambient: number;
  /** K */
  readonly temperature: number;
  /** s at pressure before shut-off; unknown when absent */
  readonly held?: number;
  /** One division of the gauge, Pa; taken from the readings when absent */
  readonly division?: number;
  /** Smallest hole that must be caught, m; unknown when absent */
  readonly required?: number;
  /** Same vessel, decay with a known hole (m, Cd 0.61) opened. */
  readonly reference?: DecayRun & { readonly diameter: number };
}

export interface DecayResult {
  readonly outcome: "pass" | "fail" | "unsure" | "void";
  /** Equivalent sharp-edged hole with its 95 % interval, m */
  readonly diameter: number;
  readonly low: number;
  readonly high: number;
  /** Smallest hole this test could have told from none, 95 % on both sides, m */
  readonly smallestVisible: number;
  /** Fitted drift over the run, K; what the temperature did to the pressure. */
  readonly driftKelvin: number;
  readonly reasons: string[];
  /** The fitted decay at the sample times that were used, Pa gauge, for drawing. */
  readonly fitted: DecayRun;
}

/** Relative sd of a volume that was looked up or estimated; a reference hole frees the fit from it. */
const VOLUME_SD = 0.05;
const VOLUME_SD_WITH_REFERENCE = 0.45;
/** Yielding walls add to the volume and never take: mean and sd of their share, between nothing and 30 %. */
const WALLS = { mean: 0.15, sd: 0.11 } as const;
/** Walls creep after filling: share of the pressure that they take in the end, mean and sd, and their time constant, s. */
const CREEP = { mean: 0.015, sd: 0.025, time: 100 } as const;
/** sd of a bend of the wall's temperature, K/s²: a tenth of a kelvin off a straight line over two and a half minutes. */
const BEND_SD = 8e-6;
/** Wall time constant of tanks and ducts, s: median, log sd and the slowest met. */
const WALL_TIME = { median: 25, logSd: 0.4, slow: 40 };
/** How well the gas temperature at shut-off is known after a hold, K: a tighter prior bends small holes in large tanks. */
const EXCESS_SD = 0.3;
/** sd of the wall's linear temperature drift in a closed bay, K/s (0.15 K per minute). */
const DRIFT_SD = 0.15 / 60;
/** Beyond this drift over a run no claim about a small hole is possible, K. */
const DRIFT_LIMIT = 0.7;
const T_95 = 1.96;
/** A pass is that many times as sure of its upper end: one in a thousand, and no dearer where it could have seen what it must. */
const PASS_WIDER = 1.6;
/** Parameters that all runs share. */
const SHARED = 4;

/**
 * Sizes the leak of a shut vessel from its pressure decay, with or without a reference hole.
 *
 * Fits the ideal-gas vessel of `pressureDecay` with effective area, start pressure, gas excess temperature, linear
 * drift with its bend, wall time constant, volume and creep of the walls as unknowns under priors; the interval is the Laplace interval on the area,
 * widened for correlated residuals. With a reference run both decays share area, volume and wall time, which cancels
 * volume and compliance: d = d_ref·√(k₁/(k₂ − k₁)) is its isothermal limit.
 * Valid for start pressures of 100 Pa to 20 kPa gauge, at least 4 samples over 10 s or more.
 * Throws RangeError for samples that do not rise in time, too few of them, or no pressure at the start.
 */
export function fitDecay(test: DecayTest): DecayResult {
  const runs = [
    { ...usable(test), extraArea: 0 },
    ...(test.reference ? [{ ...usable(test.reference), extraArea: SHARP_EDGED * holeArea(test.reference.diameter) }] : []),
  ];
  const first = runs[0] as (typeof runs)[number];
  const areaScale = SHARP_EDGED * holeArea(1e-4);

  // Parameters: area, ln volume ratio, ln wall time ratio, creep, then per run: start offset, gas excess, drift, bend.
  const heating = fillHeating(test.temperature, first.pressures[0] as number, test.ambient);
  const left = Math.exp(-(test.held ?? 0) / WALL_TIME.slow);
  const walls = test.yields ? WALLS : { mean: 0, sd: 0 };
  const volumePrior = test.reference
    ? { mean: 0, sd: VOLUME_SD_WITH_REFERENCE }
    : { mean: Math.log1p(walls.mean), sd: Math.hypot(test.volumeSd ?? VOLUME_SD, walls.sd) };
  const stillCreeps = test.yields ? Math.exp(-(test.held ?? 0) / CREEP.time) : 0;
  const prior = [
    { mean: 0, sd: Infinity },
    volumePrior,
    { mean: 0, sd: WALL_TIME.logSd },
    { mean: CREEP.mean * stillCreeps, sd: CREEP.sd * stillCreeps + 1e-4 },
    ...runs.flatMap(() => [
      { mean: 0, sd: Infinity },
      { mean: 0.4 * heating * left, sd: 0.4 * heating * left + EXCESS_SD },
      { mean: 0, sd: DRIFT_SD },
      { mean: 0, sd: BEND_SD },
    ]),
  ];
  /** Places of a run's own parameters. */
  const own = (i: number) => [SHARED, SHARED + 1, SHARED + 2, SHARED + 3].map((k) => k + 4 * i);
  const curve = (run: (typeof runs)[number], i: number, parameters: readonly number[]) => {
    const [offset, excess, drift, bend] = own(i).map((k) => parameters[k] as number) as [number, number, number, number];
    const creep = (parameters[3] as number) * (run.pressures[0] as number);
    const gas = pressureDecay(
      {
        volume: test.volume * Math.exp(clamp(parameters[1] as number, 2)),
        effectiveArea: (parameters[0] as number) * areaScale + run.extraArea,
        ambient: test.ambient,
        wallTemperature: test.temperature,
        gasExcess: excess,
        drift,
        wallTime: WALL_TIME.median * Math.exp(clamp(parameters[2] as number, 2.5)),
      },
      (run.pressures[0] as number) + offset,
      run.times,
    );
    // Both are so small that they only add to what the gas does by itself.
    return gas.map((p, k) => {
      const t = run.times[k] as number;
      return p - creep * (1 - Math.exp(-t / CREEP.time)) + (test.ambient / test.temperature) * 0.5 * bend * t ** 2;
    });
  };
  // Area, volume and wall time are shared; the rest is each run's own.
  const against = (targets: readonly (readonly number[])[], sigma: number) =>
    runs.map((run, i) => ({
      residuals: (p: readonly number[]) => curve(run, i, p).map((v, k) => (v - (targets[i]?.[k] as number)) / sigma),
      parameters: [0, 1, 2, 3, ...own(i)],
    }));
  const steps = [0.02, 0.01, 0.02, 1e-3, ...runs.flatMap(() => [0.5, 0.01, 1e-4, 1e-6])];
  const start = [startArea(first, test) / areaScale, ...prior.slice(1).map((p) => p.mean)];

  const resolution = test.division ?? Math.max(...runs.map((run) => gaugeResolution(run.pressures)));
  const floor = Math.max(resolution / Math.sqrt(12), 2e-5 * (first.pressures[0] as number));
  const read = runs.map((run) => run.pressures);
  const fitAt = (sigma: number, from: readonly number[], near: boolean) =>
    leastSquares({ blocks: against(read, sigma), start: from, steps, prior, near });
  // Noise is taken from the fit's own scatter. Start fine: from a coarse guess the priors would lead the fit into a
  // misfit that confirms the guess.
  let sigma = floor;
  let fit = fitAt(sigma, start, false);
  const samples = runs.reduce((n, run) => n + run.times.length, 0);
  for (let pass = 0; pass < 4; pass++) {
    const freedom = Math.max(1, samples - 3 - runs.length);
    const next = Math.max(floor, sigma * Math.sqrt(fit.cost / freedom));
    const settled = Math.abs(next / sigma - 1) < 0.02;
    sigma = next;
    fit = fitAt(sigma, fit.parameters, true);
    // What finds no bottom twice has none: it is said to be unsettled.
    if (settled || (pass > 0 && !fit.settled)) break;
  }

  const inflate = sigma > 2 * floor ? correlationInflation(fit.residuals, first.times.length) : 1;
  const quantile = T_95 * studentFactor(samples - 3 - runs.length);
  const area = fit.parameters[0] as number;
  const areaSd = (blocks: readonly Block[], at: readonly number[]) =>
    Math.sqrt(Math.max(0, covarianceAt({ blocks, steps, prior }, at)[0]?.[0] ?? 0)) * inflate;
  const sd = areaSd(against(read, sigma), fit.parameters);
  const asDiameter = (a: number) => holeDiameter((Math.max(0, a) * areaScale) / SHARP_EDGED);
  const byGas = areaByGas(test);
  const low = asDiameter(byGas.least * (area - quantile * sd));
  const high = asDiameter(byGas.most * (area + quantile * sd));
  const diameter = asDiameter(byGas.middle * area);
  // Nobody looks again at what passed: that rests on more than the interval does.
  const certain = asDiameter(byGas.most * (area + PASS_WIDER * quantile * sd));

  // What this test could have seen: the same unknowns and noise on a vessel that does not leak.
  const tightStart = fit.parameters.map((value, i) => (i === 0 ? 0 : value));
  const tightCurves = runs.map((run, i) => curve(run, i, tightStart));
  const smallestVisible = asDiameter(byGas.most * 2 * quantile * areaSd(against(tightCurves, sigma), tightStart));

  const driftKelvin = (fit.parameters[own(0)[2] as number] as number) * (first.times.at(-1) as number);
  const verdict = judgeDecay({
    test,
    run: first,
    area,
    sd,
    low,
    certain,
    smallestVisible,
    driftKelvin,
    sigma,
    settled: fit.settled,
  });
  return {
    ...verdict,
    diameter,
    low,
    high,
    smallestVisible,
    driftKelvin,
    fitted: { times: first.times, pressures: curve(first, 0, fit.parameters) },
  };
}

const clamp = (x: number, bound: number) => Math.min(Math.max(x, -bound), bound);

/** Checks a run and leaves out its tail below 3 % of the start, where the gauge shows only its own error. */
function usable(run: DecayRun): DecayRun {
  const { times, pressures } = run;
  if (times.length !== pressures.length) throw new RangeError("Every decay sample needs a time and a pressure");
  if (times.length < 4) throw new RangeError("A decay needs at least 4 samples; note the pressure every few seconds");
  if (times.some((t, i) => i > 0 && t <= (times[i - 1] as number))) {
    throw new RangeError("Decay samples must rise in time: check for a time typed twice or out of order");
  }
  const start = pressures[0] as number;
  if (!(start > 0)) throw new RangeError("The decay must start above ambient: the first gauge pressure is not positive");
  const origin = times[0] as number;
  const end = pressures.findIndex((p, i) => i >= 4 && p < 0.03 * start);
  const count = end < 0 ? times.length : end;
  return { times: times.slice(0, count).map((t) => t - origin), pressures: pressures.slice(0, count) };
}

/** Smallest step between distinct readings: what the gauge resolves. */
function gaugeResolution(pressures: readonly number[]): number {
  const sorted = [...new Set(pressures)].sort((a, b) => a - b);
  let step = Infinity;
  for (let i = 1; i < sorted.length; i++) step = Math.min(step, (sorted[i] as number) - (sorted[i - 1] as number));
  // Floating readings have no visible step; then the scatter of the fit speaks alone.
  return Number.isFinite(step) && step > 1e-4 * (sorted.at(-1) as number) ? step : 0;
}

/** First guess from the isothermal law: √p falls linearly, slope → CdA/V. */
function startArea(run: DecayRun, test: DecayTest): number {
  const last = run.times.length - 1;
  const fall = Math.sqrt(run.pressures[0] as number) - Math.sqrt(Math.max(0, run.pressures[last] as number));
  const slope = fall / (run.times[last] as number);
  const rt = R_AIR * test.temperature;
  return Math.max(0, (2 * slope * test.volume) / (rt * Math.sqrt((2 * test.ambient) / rt)));
}

/** Widening for residuals that wander instead of scattering: √((1+ρ)/(1−ρ)) of a first-order process. */
function correlationInflation(residuals: readonly number[], firstRun: number): number {
  let sum = 0;
  let square = 0;
  for (let i = 1; i < residuals.length; i++) {
    if (i !== firstRun) sum += (residuals[i] as number) * (residuals[i - 1] as number);
    square += (residuals[i] as number) ** 2;
  }
  const rho = Math.min(0.9, Math.max(0, square > 0 ? sum / square : 0));
  const significant = rho > 1.6 / Math.sqrt(residuals.length);
  return significant ? Math.sqrt((1 + rho) / (1 - rho)) : 1;
}

/** Student's 97.5 % quantile over the normal one, Cornish–Fisher (Abramowitz & Stegun 26.7.5). */
function studentFactor(freedom: number): number {
  const v = Math.max(1, freedom);
  const z = T_95;
  return 1 + (z ** 2 + 1) / (4 * v) + (5 * z ** 4 + 16 * z ** 2 + 3) / (96 * v ** 2);
}

function judgeDecay(seen: {
  test: DecayTest;
  run: DecayRun;
  area: number;
  sd: number;
  low: number;
  /** The hole is certainly no larger */
  certain: number;
  smallestVisible: number;
  driftKelvin: number;
  sigma: number;
  settled: boolean;
}): Pick<DecayResult, "outcome" | "reasons"> {
  const { test, run, area, sd, low, certain, smallestVisible, driftKelvin, sigma, settled } = seen;
  const rise = (run.pressures.at(-1) as number) - (run.pressures[0] as number);
  if (rise > Math.max(3 * sigma, 0.002 * (run.pressures[0] as number)) || area + 3 * sd < 0) {
    return { outcome: "void", reasons: ["the pressure rose after shut-off: fuel vapour or warming, not tightness"] };
  }
  if (!settled) {
    return { outcome: "unsure", reasons: ["the readings follow no one decay, so their size is not to be trusted: run it again"] };
  }
  const reasons: string[] = [];
  const required = test.required;
  if (required === undefined) reasons.push("no size to be caught was given: this is a size only");
  if (test.held === undefined) reasons.push("the hold before shut-off is not known: fill heating may read as a leak");
  else if (test.held < SHORTEST_HOLD) {
    reasons.push(`held only ${Math.round(test.held)} s before shut-off: hold at least ${SHORTEST_HOLD} s, better 120 s`);
  }
  if (Math.abs(driftKelvin) > DRIFT_LIMIT) {
    reasons.push(`the temperature drifted about ${Math.abs(driftKelvin).toFixed(1)} °C: no claim about a small hole is possible`);
  }
  if (reasons.length > 0 || required === undefined) return { outcome: "unsure", reasons };
  if (low >= required) return { outcome: "fail", reasons: ["the whole interval is above the size to be caught"] };
  if (certain < required && smallestVisible <= required) {
    return { outcome: "pass", reasons: ["the whole interval is below the size to be caught"] };
  }
  return {
    outcome: "unsure",
    reasons: [
      smallestVisible > required
        ? "this test could not have seen the size to be caught: test longer, steadier, or with a reference hole"
        : "the interval straddles the size to be caught: repeat with a reference hole or a longer run",
    ],
  };
}
