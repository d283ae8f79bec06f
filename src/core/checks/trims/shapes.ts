import { holeArea, holeDiameter, massFlux, SHARP_EDGED } from "../../gas/orifice";
import { logTail } from "../../maths/normal-tail";
import { type BankPoint, type Cluster, clustered, type OperatingPoint } from "./cluster";

export const SHAPE_IDS = [
  "none",
  "constant",
  "fades-with-flow",
  "grows-with-flow",
  "rich-under-boost",
  "rich-fades-with-flow",
  "rich-grows-with-flow",
] as const;
export type ShapeId = (typeof SHAPE_IDS)[number];

export interface SurveyConditions {
  /** Pa absolute */
  readonly ambient: number;
  /** K */
  readonly intakeTemperature: number;
  readonly induction: "natural" | "turbo";
}

export interface ShapeFit {
  readonly id: ShapeId;
  /** Posterior probability, all shapes adding up to 1 */
  readonly odds: number;
  /** Posterior mean of the fuelling error b, fraction */
  readonly error: number;
  /** Equivalent sharp-edged hole with its 95 % interval, m; for the shapes that carry a hole */
  readonly hole?: { readonly diameter: number; readonly low: number; readonly high: number };
  /** Expected total trim (fraction) at each drawn point, from the posterior mean. */
  readonly curve: readonly number[];
}

/** Prior probability of each shape before any reading: leaks and healthy engines are what arrives most. */
const SHAPE_PRIOR: Record<ShapeId, number> = {
  none: 0.24,
  constant: 0.19,
  "fades-with-flow": 0.26,
  "grows-with-flow": 0.13,
  "rich-under-boost": 0.13,
  "rich-fades-with-flow": 0.03,
  "rich-grows-with-flow": 0.02,
};

/** sd of the fuelling error of a healthy engine and its meter's gain together, fraction */
const NUISANCE_SD = 0.022;
/** sd of a meter's error for each e-fold of flow, fraction: its curve */
const METER_CURVE = 0.012;
/** Relative sd of the air meter */
const METER_SD = 0.02;
/** sd of an idle charge pipe's gauge pressure, Pa */
const CHARGE_NUISANCE = 60;
/** Scatter of a steady point's trim incl. model error, fraction, with prior weight */
const NOISE = [
  [0.009, 0.2],
  [0.013, 0.3],
  [0.018, 0.25],
  [0.025, 0.17],
  [0.034, 0.08],
] as const;

/** Of that what the model itself gets wrong, the same for all points of one flow, fraction */
const MODEL_SD = 0.008;

const spaced = (low: number, high: number, count: number) =>
  Array.from({ length: count }, (_, i) => low + ((high - low) * i) / (count - 1));
const logSpaced = (low: number, high: number, count: number) => spaced(Math.log(low), Math.log(high), count).map(Math.exp);

/** One hypothesis on the grid: the strength of a shape, its prior weight and what it predicts above 1 + b. */
interface Hypothesis {
  readonly weight: number;
  readonly errorPrior: keyof typeof GRIDS;
  /** Predicted trim beyond b, fraction: of each measured point, then of each drawn one */
  readonly shift: readonly number[];
  /** sd of that prediction at each point, fraction; absent where it is certain */
  readonly spread?: readonly number[];
  readonly area?: number;
}

const normalised = (grid: { b: number; weight: number }[]) => {
  const total = grid.reduce((sum, g) => sum + g.weight, 0);
  const errors = grid.map((g) => g.b);
  return {
    grid: grid.map((g) => ({ b: g.b, logWeight: Math.log(g.weight / total) })),
    lowest: Math.min(...errors),
    highest: Math.max(...errors),
  };
};
const NUISANCE_GRID = normalised(
  spaced(-3.2 * NUISANCE_SD, 3.2 * NUISANCE_SD, 17).map((b) => ({ b, weight: Math.exp(-0.5 * (b / NUISANCE_SD) ** 2) })),
);
/** Mostly 5 to 30 %; beyond that rarer and without an upper end: a wrong meter can be wrong by any share. */
const LARGE_ERROR = 0.12;
const faultGrid = (within: number, beyond: number) => [
  ...spaced(0.05, 0.3, within).flatMap((b) => [
    { b, weight: 1 / within },
    { b: -b, weight: 1 / within },
  ]),
  ...spaced(0.31, 1.2, 3 * beyond).map((b) => ({ b, weight: (LARGE_ERROR * 0.89) / 0.25 / (3 * beyond) })),
  ...spaced(0.31, 0.6, beyond).map((b) => ({ b: -b, weight: (LARGE_ERROR * 0.29) / 0.25 / beyond })),
];
const FAULT_GRID = normalised(faultGrid(51, 30));

/**
 * Which shape the total trims of one bank have against airflow, with odds, error and hole.
 *
 * In closed loop y = 1 + trim = (1 + b)·(1 + q/m): linear in b and C = (1 + b)·CdA through ψ/m, where ψ is the orifice
 * flux of the place (`massFlux`), m the indicated flow. Each shape's marginal likelihood is integrated on a grid over b,
 * its own strength and the noise, under physical priors; log-likelihoods are summed with log-sum-exp, so that hundreds of
 * points work; saturated points count as censored (Tobin 1958).
 * Holes are log-uniform in diameter (0.6–9 mm manifold, 1.5–14 mm charge side).
 * Valid for closed-loop points of a petrol engine with an air meter. At least one point.
 * @param drawn operating points at which the expected trim is wanted as a curve.
 */
export function fitShapes(
  points: readonly BankPoint[],
  conditions: SurveyConditions,
  drawn: readonly OperatingPoint[] = points,
): ShapeFit[] {
  const turbo = conditions.induction === "turbo";
  // Under boost a meter that over-reads and a hole on the charge side look alike: one shape, with both as members.
  const left = turbo ? "rich-grows-with-flow" : "rich-under-boost";
  const ids = SHAPE_IDS.filter((id) => id !== left);
  const top = Math.max(...points.map((p) => p.flow));
  const thin = clustered(points);
  const fits = ids.map((id) => ({ id, ...integrate(thin, hypothesesOf(id, [...thin, ...drawn], top, conditions)) }));
  const total = logSumExp(fits.map((fit) => Math.log(SHAPE_PRIOR[fit.id]) + fit.logEvidence));
  const all = fits.map((fit): ShapeFit => {
    const hole = fit.id === "fades-with-flow" || fit.id === "rich-under-boost" ? fit.hole : undefined;
    return {
      id: fit.id,
      odds: Number.isFinite(total) ? Math.exp(Math.log(SHAPE_PRIOR[fit.id]) + fit.logEvidence - total) : SHAPE_PRIOR[fit.id],
      error: fit.error,
      curve: fit.curve,
      ...(hole ? { hole } : {}),
    };
  });
  all.push({ id: left, odds: 0, error: 0, curve: drawn.map(() => 0) });
  return all.sort((a, b) => b.odds - a.odds);
}

/** Share of leaks seen by both banks that lie before the banks part; own judgement. */
const SHARED_PRIOR = 0.75;

/** One hole before the banks part, against one hole a bank. */
export interface SharedHole {
  /** Probability that banks which both fade have one hole in common */
  readonly odds: number;
  readonly hole: { readonly diameter: number; readonly low: number; readonly high: number };
}

/**
 * Fits two banks with one hole between them: the same CdA, its flow shared by the banks (q per bank = q/banks), each bank
 * with its own fuelling error. Against it stands one hole a bank. Same grids, priors and noise as `fitShapes`.
 * @param banks points of each bank, of one survey. @returns undefined with fewer than two banks.
 */
export function fitShared(banks: readonly (readonly BankPoint[])[], conditions: SurveyConditions): SharedHole | undefined {
  if (banks.length < 2) return undefined;
  const each = banks.map((points) => {
    const thin = clustered(points);
    const own = hypothesesOf("fades-with-flow", thin, Math.max(...points.map((p) => p.flow)), conditions);
    // One meter for both: its curve is the same for each, and integrated over together.
    return { own, logs: CURVES.map(([z]) => likelihoods(readAtCurve(thin, z), own).map((l) => l.log)) };
  });
  // A hole of area A seen by both gives each bank A/banks: the same grid, its diameter √banks as large.
  const grid = each[0]?.own ?? [];
  const at = (c: number, i: number) => each.reduce((sum, e) => sum + (e.logs[c]?.[i] as number), 0);
  const together = grid.map((h, i) => Math.log(h.weight) + logSumExp(CURVES.map(([, weight], c) => Math.log(weight) + at(c, i))));
  const apart = logSumExp(
    CURVES.map(([, weight], c) =>
      each.reduce(
        (sum, e) => sum + logSumExp(e.own.map((h, i) => Math.log(h.weight) + (e.logs[c]?.[i] as number))),
        Math.log(weight),
      ),
    ),
  );
  const whole = logSumExp(together);
  const shared = Math.log(SHARED_PRIOR) + whole;
  const separate = Math.log(1 - SHARED_PRIOR) + apart;
  const hole =
    sharedHole(banks, conditions) ??
    holeOf(
      grid,
      together.map((t) => Math.exp(t - whole)),
      1,
    );
  const wider = Math.sqrt(banks.length);
  return {
    odds: Math.exp(shared - logSumExp([shared, separate])),
    hole: { diameter: hole.diameter * wider, low: hole.low * wider, high: hole.high * wider },
  };
}

/**
 * The hole of banks that breathe through one: what the meter and the model get wrong at a point is wrong for all of them, so two
 * banks say no more than their mean. @returns undefined where they were not read at the same points.
 */
function sharedHole([first = [], ...others]: readonly (readonly BankPoint[])[], conditions: SurveyConditions) {
  const same = others.every((bank) => bank.length === first.length && bank.every((p, i) => p.flow === first[i]?.flow));
  if (!same) return undefined;
  const mean = first.map((p, i): BankPoint => {
    const all = [p, ...others.map((bank) => bank[i] as BankPoint)];
    return {
      ...p,
      trim: all.reduce((sum, x) => sum + x.trim, 0) / all.length,
      saturated: all.find((x) => x.saturated !== 0)?.saturated ?? 0,
    };
  });
  return fitShapes(mean, conditions).find((fit) => fit.id === "fades-with-flow")?.hole;
}

/** The meter's curve in sd, with the weight of each (Gauss–Hermite in five points). */
const CURVES = [
  [-2.857, 0.01126],
  [-1.3556, 0.22208],
  [0, 0.53333],
  [1.3556, 0.22208],
  [2.857, 0.01126],
] as const;

/** ψ from ambient into the manifold, kg/(s·m²); negative under boost. */
export const manifoldFlux = (point: Pick<BankPoint, "map">, conditions: SurveyConditions) =>
  massFlux(conditions.ambient, point.map, conditions.intakeTemperature);

/** Every strength of a shape, predicted at `points`; `top` is the highest measured flow, kg/s. */
function hypothesesOf(id: ShapeId, points: readonly OperatingPoint[], top: number, conditions: SurveyConditions): Hypothesis[] {
  const zero = points.map(() => 0);
  switch (id) {
    case "none":
      return [{ weight: 1, errorPrior: "nuisance", shift: zero }];
    case "constant":
      return [{ weight: 1, errorPrior: "fault", shift: zero }];
    case "fades-with-flow": {
      const share = points.map((p) => manifoldFlux(p, conditions) / p.flow);
      return logSpaced(0.6e-3, 9e-3, 90).map((d) => {
        const area = SHARP_EDGED * holeArea(d);
        const shift = share.map((s) => area * s);
        return { weight: 1 / 90, errorPrior: "either", shift, spread: shift.map((s) => METER_SD * Math.abs(s)), area };
      });
    }
    case "grows-with-flow":
    case "rich-grows-with-flow":
      return GROWTHS.flatMap((growth) => {
        const full = points.map((p) => (id === "grows-with-flow" ? 1 : -1) * growth(p.flow / top));
        return spaced(0.05, 0.45, 17).map((strength) => ({
          weight: 1 / (17 * GROWTHS.length),
          errorPrior: "nuisance" as const,
          shift: full.map((f) => strength * f),
        }));
      });
    case "rich-fades-with-flow": {
      // Fuel that comes in at a fixed rate is a share that falls as the engine breathes more.
      const least = Math.min(...points.map((p) => p.flow));
      return spaced(0.05, 0.6, 45).map((strength) => ({
        weight: 1 / 45,
        errorPrior: "nuisance" as const,
        shift: points.map((p) => (-strength * least) / p.flow),
      }));
    }
    case "rich-under-boost": {
      const { ambient, intakeTemperature } = conditions;
      const nuisance = massFlux(ambient + CHARGE_NUISANCE, ambient, intakeTemperature);
      const shares = points.map((p) => {
        // Without a charge sensor the manifold tells it as soon as the throttle is open into boost.
        const charge = p.charge ?? p.map;
        const boosted = charge > ambient + 2000;
        const share = boosted ? massFlux(ambient, charge, intakeTemperature) / p.flow : 0;
        return { share, spread: boosted ? METER_SD * Math.abs(share) : nuisance / p.flow };
      });
      return logSpaced(1.5e-3, 14e-3, 60).map((d) => {
        const area = SHARP_EDGED * holeArea(d);
        const [shift, spread] = [shares.map((s) => area * s.share), shares.map((s) => area * s.spread)];
        return { weight: 1 / 60, errorPrior: "nuisance", shift, spread, area };
      });
    }
  }
}

/** How a supply limit or a fading meter can grow over the flow range u = m/m_max: 0 when idle, 1 at the top. */
const GROWTHS: readonly ((u: number) => number)[] = [
  (u) => u,
  (u) => u ** 2,
  (u) => u ** 3,
  (u) => Math.max(0, u - 0.2) / 0.8,
  (u) => Math.max(0, u - 0.4) / 0.6,
  (u) => Math.max(0, u - 0.6) / 0.4,
];

/** A hole keeps no fuelling error away: so often one that has a hole has such a fault beside it. */
const BESIDE = 0.3;
const GRIDS = {
  nuisance: NUISANCE_GRID,
  fault: FAULT_GRID,
  either: normalised([
    ...NUISANCE_GRID.grid.map(({ b, logWeight }) => ({ b, weight: (1 - BESIDE) * Math.exp(logWeight) })),
    // As fine as readings tell beside a hole, and no finer: every hole is tried with each of them.
    ...normalised(faultGrid(14, 4)).grid.map(({ b, logWeight }) => ({ b, weight: BESIDE * Math.exp(logWeight) })),
  ]),
} as const;

interface Integral {
  readonly logEvidence: number;
  readonly error: number;
  readonly curve: number[];
  readonly hole?: { diameter: number; low: number; high: number };
}

function logSumExp(logs: ArrayLike<number>): number {
  let top = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < logs.length; i++) top = Math.max(top, logs[i] as number);
  if (!Number.isFinite(top)) return top;
  let sum = 0;
  for (let i = 0; i < logs.length; i++) sum += Math.exp((logs[i] as number) - top);
  return top + Math.log(sum);
}

/** Points with what every hypothesis needs of them. */
interface Read {
  readonly points: readonly Cluster[];
  /** What the meter's curve does to each of them, for one sd of it: fraction of 1 + trim; nothing where it is taken as known */
  readonly bends: readonly number[];
  /** Of each noise: the log of its prior weight, and the variance of each point under it, fraction², with its log */
  readonly noises: readonly {
    readonly logWeight: number;
    readonly variances: readonly number[];
    readonly logs: readonly number[];
  }[];
}

/** Logs of the flows about their middle, times one sd of the meter's curve. */
function bendsOf(points: readonly Cluster[]): number[] {
  const middle = points.reduce((sum, p) => sum + Math.log(p.flow), 0) / points.length;
  return points.map((p) => METER_CURVE * (Math.log(p.flow) - middle));
}

/** Reading noise averages out among the points of a flow; what the model and the meter get wrong does not. */
const readUnder = (points: readonly Cluster[], bends: readonly number[] = bendsOf(points)): Read => ({
  points,
  bends,
  noises: NOISE.map(([noise, weight]) => {
    const variances = points.map(
      (p) => (noise ** 2 - MODEL_SD ** 2 + p.scatter ** 2) / (p.saturated === 0 ? p.count : 1) + MODEL_SD ** 2,
    );
    return { logWeight: Math.log(weight), variances, logs: variances.map(Math.log) };
  }),
});

/** The same with the meter's curve known: so many of its sd. */
function readAtCurve(points: readonly Cluster[], z: number): Read {
  const bends = bendsOf(points);
  const straight = points.map((p, i) =>
    p.saturated === 0 ? { ...p, trim: (1 + p.trim) / (1 + z * (bends[i] as number)) - 1 } : p,
  );
  return readUnder(
    straight,
    points.map(() => 0),
  );
}

/** Cut-off: what lies so far below the best is nothing beside it: e⁻⁵⁰. */
const NOTHING = 50;

/** A point at a stop under one hypothesis and noise. */
interface Stopped {
  readonly p: Cluster;
  readonly shift: number;
  readonly sd: number;
}

/** log P(the truth lies at the stop or beyond), for a fuelling error b. */
const logBeyond = ({ p, shift, sd }: Stopped, b: number) =>
  p.count * logTail(((p.trim - ((1 + b) * (1 + shift) - 1)) / sd) * p.saturated);

/**
 * log p(points | hypothesis), fuelling error and noise integrated out, with the mean error.
 * @param best the likeliest so far: what cannot come near it is not summed.
 */
function logLikelihood({ points, noises, bends }: Read, hypothesis: Hypothesis, best: number): { log: number; error: number } {
  const { spread } = hypothesis;
  const { grid, lowest, highest } = GRIDS[hypothesis.errorPrior];
  const logs = new Float64Array(grid.length * noises.length).fill(Number.NEGATIVE_INFINITY);
  let top = Number.NEGATIVE_INFINITY;
  for (const [n, { logWeight, variances, logs: logVariances }] of noises.entries()) {
    // Σz² is a square in b: z = (y − s − b·(1 + s))/σ for a shift s. Only what stands at a stop is summed at every b.
    let [base, square, cross, bend] = [0, 0, 0, 0];
    // The meter's curve is common to all: a Gaussian unknown that is integrated out at once (Sherman & Morrison 1950).
    let [curved, curvedOff, curvedSlope] = [0, 0, 0];
    // What stands at a stop only takes away, and least of all where the fuelling error lies furthest its way.
    let most = 0;
    const stopped: Stopped[] = [];
    for (let i = 0; i < points.length; i++) {
      const p = points[i] as Cluster;
      const shift = hypothesis.shift[i] as number;
      const variance = spread ? (variances[i] as number) + (spread[i] as number) ** 2 : (variances[i] as number);
      if (p.saturated !== 0) {
        base -= p.count * LOG_CENSORED_WIDTH;
        const at = { p, shift, sd: Math.sqrt(variance) };
        const [near, far] = p.saturated > 0 ? [highest, lowest] : [lowest, highest];
        most += logBeyond(at, near);
        if (logBeyond(at, far) !== 0) stopped.push(at);
        continue;
      }
      const off = p.trim - shift;
      const slope = 1 + shift;
      base -= 0.5 * (spread ? Math.log(variance) : (logVariances[i] as number));
      square += (off * off) / variance;
      cross += (off * slope) / variance;
      bend += (slope * slope) / variance;
      const reach = (bends[i] as number) * slope;
      curved += (reach * reach) / variance;
      curvedOff += (reach * off) / variance;
      curvedSlope += (reach * slope) / variance;
    }
    const taken = 1 / (1 + curved);
    base -= 0.5 * Math.log1p(curved);
    square -= taken * curvedOff * curvedOff;
    cross -= taken * curvedOff * curvedSlope;
    bend -= taken * curvedSlope * curvedSlope;
    // No fuelling error fits better than the one in which the square is least.
    if (base + most - 0.5 * (square - (bend > 0 ? (cross * cross) / bend : 0)) < best - NOTHING) continue;
    for (const [g, { b, logWeight: gridWeight }] of grid.entries()) {
      let log = logWeight + gridWeight + base - 0.5 * (square - 2 * b * cross + b * b * bend);
      const least = Math.max(best, top) - NOTHING;
      if (log + most < least) continue;
      for (let i = 0; i < stopped.length && log >= least; i++) log += logBeyond(stopped[i] as Stopped, b);
      logs[n * grid.length + g] = log;
      top = Math.max(top, log);
    }
  }
  if (!Number.isFinite(top)) return { log: top, error: 0 };
  let sum = 0;
  let errors = 0;
  for (let i = 0; i < logs.length; i++) {
    const weight = Math.exp((logs[i] as number) - top);
    sum += weight;
    errors += weight * (grid[i % grid.length] as (typeof grid)[number]).b;
  }
  return { log: top + Math.log(sum), error: errors / sum };
}

/** The likelihood of each hypothesis. */
function likelihoods(read: Read, hypotheses: readonly Hypothesis[]) {
  let best = Number.NEGATIVE_INFINITY;
  return hypotheses.map((hypothesis) => {
    const one = logLikelihood(read, hypothesis, best);
    best = Math.max(best, one.log);
    return one;
  });
}

/** A hypothesis of less weight moves no curve by anything that could be seen. */
const UNSEEN = 1e-9;

/** Sums likelihood × prior over hypotheses, fuelling error and noise. */
function integrate(points: readonly Cluster[], hypotheses: readonly Hypothesis[]): Integral {
  const read = readUnder(points);
  const each = likelihoods(read, hypotheses);
  const logs = each.map((e, i) => e.log + Math.log((hypotheses[i] as Hypothesis).weight));
  const logEvidence = logSumExp(logs);
  const weights = logs.map((l) => (Number.isFinite(logEvidence) ? Math.exp(l - logEvidence) : 1 / logs.length));
  const drawn = (hypotheses[0]?.shift.length ?? 0) - points.length;
  const curve = new Array<number>(drawn).fill(0);
  for (const [k, { shift }] of hypotheses.entries()) {
    const weight = weights[k] as number;
    if (weight < UNSEEN) continue;
    const richer = 1 + (each[k] as { error: number }).error;
    for (let i = 0; i < drawn; i++)
      curve[i] = (curve[i] as number) + weight * (richer * (1 + (shift[points.length + i] as number)) - 1);
  }
  const hole = hypotheses[0]?.area === undefined ? undefined : holeOf(hypotheses, weights, 1);
  return {
    logEvidence,
    error: each.reduce((sum, e, i) => sum + (weights[i] as number) * e.error, 0),
    curve,
    ...(hole ? { hole } : {}),
  };
}

/** A censored point is a probability, the others are densities: per this width (fraction) they compare. */
const LOG_CENSORED_WIDTH = Math.log(0.05);

function holeOf(hypotheses: readonly Hypothesis[], weights: readonly number[], total: number) {
  const diameters = hypotheses.map((h) => holeDiameter((h.area as number) / SHARP_EDGED));
  const quantile = (share: number) => {
    let sum = 0;
    for (let i = 0; i < weights.length; i++) {
      const next = sum + (weights[i] as number) / total;
      if (next >= share) {
        const inside = (share - sum) / (next - sum);
        const here = diameters[i] as number;
        const step = Math.sqrt((diameters[1] as number) / (diameters[0] as number));
        return here * step ** (2 * inside - 1);
      }
      sum = next;
    }
    return diameters.at(-1) as number;
  };
  return { diameter: quantile(0.5), low: quantile(0.025), high: quantile(0.975) };
}
