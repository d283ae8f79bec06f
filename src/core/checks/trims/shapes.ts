import { holeArea, holeDiameter, massFlux, SHARP_EDGED } from "../../gas/orifice";

export const SHAPE_IDS = ["none", "constant", "fades-with-flow", "grows-with-flow", "rich-under-boost"] as const;
export type ShapeId = (typeof SHAPE_IDS)[number];

/** Where the engine runs, as one bank sees it. SI. */
export interface OperatingPoint {
  /** Indicated metered flow of this bank, kg/s */
  readonly flow: number;
  /** Manifold pressure, Pa absolute */
  readonly map: number;
  /** Charge pipe pressure, Pa absolute; unknown when absent */
  readonly charge?: number;
}

/** One steady point as one bank sees it. SI. */
export interface BankPoint extends OperatingPoint {
  /** Total trim, fraction */
  readonly trim: number;
  /** sd of the window's own mean trim, fraction; 0 when not known */
  readonly scatter: number;
  /** +1 or −1 when the ECU stood at that end of its range: the truth lies at or beyond. */
  readonly saturated: -1 | 0 | 1;
}

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
  none: 0.25,
  constant: 0.2,
  "fades-with-flow": 0.27,
  "grows-with-flow": 0.14,
  "rich-under-boost": 0.14,
};

/** sd of the fuelling error of a healthy engine, fraction */
const NUISANCE_SD = 0.015;
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

const spaced = (low: number, high: number, count: number) =>
  Array.from({ length: count }, (_, i) => low + ((high - low) * i) / (count - 1));
const logSpaced = (low: number, high: number, count: number) => spaced(Math.log(low), Math.log(high), count).map(Math.exp);

/** One hypothesis on the grid: the strength of a shape, its prior weight and what it predicts above 1 + b. */
interface Hypothesis {
  readonly weight: number;
  readonly errorPrior: "nuisance" | "fault";
  /** Predicted trim beyond b, fraction: of each measured point, then of each drawn one */
  readonly shift: readonly number[];
  /** sd of that prediction at each point, fraction */
  readonly spread: readonly number[];
  readonly area?: number;
}

const NUISANCE_GRID = spaced(-3.2 * NUISANCE_SD, 3.2 * NUISANCE_SD, 23).map((b) => ({
  b,
  weight: Math.exp(-0.5 * (b / NUISANCE_SD) ** 2),
}));
const FAULT_GRID = spaced(0.05, 0.3, 51).flatMap((b) => [
  { b, weight: 1 },
  { b: -b, weight: 1 },
]);
for (const grid of [NUISANCE_GRID, FAULT_GRID]) {
  const total = grid.reduce((sum, g) => sum + g.weight, 0);
  for (const g of grid) g.weight /= total;
}

/**
 * Which shape the total trims of one bank have against airflow, with odds, error and hole.
 *
 * In closed loop y = 1 + trim = (1 + b)·(1 + q/m): linear in b and C = (1 + b)·CdA through ψ/m, where ψ is the orifice
 * flux of the place (`massFlux`), m the indicated flow. Each shape's marginal likelihood is integrated on a grid over b,
 * its own strength and the noise, under physical priors; saturated points count as censored (Tobin 1958).
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
  const ids = SHAPE_IDS.filter((id) => id !== "rich-under-boost" || turbo);
  const top = Math.max(...points.map((p) => p.flow));
  const fits = ids.map((id) => ({ id, ...integrate(points, hypothesesOf(id, [...points, ...drawn], top, conditions)) }));
  const total = fits.reduce((sum, fit) => sum + SHAPE_PRIOR[fit.id] * fit.evidence, 0);
  const all = fits.map((fit): ShapeFit => {
    const hole = fit.id === "fades-with-flow" || fit.id === "rich-under-boost" ? fit.hole : undefined;
    return {
      id: fit.id,
      odds: total > 0 ? (SHAPE_PRIOR[fit.id] * fit.evidence) / total : SHAPE_PRIOR[fit.id],
      error: fit.error,
      curve: fit.curve,
      ...(hole ? { hole } : {}),
    };
  });
  if (!turbo) all.push({ id: "rich-under-boost", odds: 0, error: 0, curve: drawn.map(() => 0) });
  return all.sort((a, b) => b.odds - a.odds);
}

/** ψ from ambient into the manifold, kg/(s·m²); negative under boost. */
export const manifoldFlux = (point: Pick<BankPoint, "map">, conditions: SurveyConditions) =>
  massFlux(conditions.ambient, point.map, conditions.intakeTemperature);

/** Every strength of a shape, predicted at `points`; `top` is the highest measured flow, kg/s. */
function hypothesesOf(id: ShapeId, points: readonly OperatingPoint[], top: number, conditions: SurveyConditions): Hypothesis[] {
  const zero = points.map(() => 0);
  switch (id) {
    case "none":
      return [{ weight: 1, errorPrior: "nuisance", shift: zero, spread: zero }];
    case "constant":
      return [{ weight: 1, errorPrior: "fault", shift: zero, spread: zero }];
    case "fades-with-flow":
      return logSpaced(0.6e-3, 9e-3, 90).map((d) => {
        const area = SHARP_EDGED * holeArea(d);
        const shift = points.map((p) => (area * manifoldFlux(p, conditions)) / p.flow);
        return { weight: 1 / 90, errorPrior: "nuisance", shift, spread: shift.map((s) => METER_SD * Math.abs(s)), area };
      });
    case "grows-with-flow":
      return spaced(0.05, 0.45, 33).flatMap((strength) =>
        GROWTHS.map((growth) => ({
          weight: 1 / (33 * GROWTHS.length),
          errorPrior: "nuisance" as const,
          shift: points.map((p) => strength * growth(p.flow / top)),
          spread: zero,
        })),
      );
    case "rich-under-boost":
      return logSpaced(1.5e-3, 14e-3, 60).map((d) => {
        const area = SHARP_EDGED * holeArea(d);
        const nuisance = area * massFlux(conditions.ambient + CHARGE_NUISANCE, conditions.ambient, conditions.intakeTemperature);
        const shift: number[] = [];
        const spread: number[] = [];
        for (const p of points) {
          // Without a charge sensor the manifold tells it as soon as the throttle is open into boost.
          const charge = p.charge ?? p.map;
          const boosted = charge > conditions.ambient + 2000;
          const flux = boosted ? massFlux(conditions.ambient, charge, conditions.intakeTemperature) : 0;
          shift.push((area * flux) / p.flow);
          spread.push(boosted ? METER_SD * Math.abs((area * flux) / p.flow) : nuisance / p.flow);
        }
        return { weight: 1 / 60, errorPrior: "nuisance", shift, spread, area };
      });
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

interface Integral {
  readonly evidence: number;
  readonly error: number;
  readonly curve: number[];
  readonly hole?: { diameter: number; low: number; high: number };
}

/** Sums likelihood × prior over hypotheses, fuelling error and noise. */
function integrate(points: readonly BankPoint[], hypotheses: readonly Hypothesis[]): Integral {
  let evidence = 0;
  let errorSum = 0;
  const curve = (hypotheses[0]?.shift ?? []).slice(points.length).map(() => 0);
  const byHypothesis = hypotheses.map((hypothesis) => {
    const grid = hypothesis.errorPrior === "nuisance" ? NUISANCE_GRID : FAULT_GRID;
    let own = 0;
    let ownError = 0;
    for (const [noise, noiseWeight] of NOISE) {
      const sds = points.map((p, i) => Math.hypot(noise, p.scatter, hypothesis.spread[i] as number));
      for (const { b, weight } of grid) {
        let logL = 0;
        for (let i = 0; i < points.length; i++) {
          const p = points[i] as BankPoint;
          const expected = (1 + b) * (1 + (hypothesis.shift[i] as number)) - 1;
          const z = (p.trim - expected) / (sds[i] as number);
          logL +=
            p.saturated === 0
              ? -0.5 * z * z - Math.log(sds[i] as number)
              : Math.log(Math.max(1e-12, normalTail(z * p.saturated))) - Math.log(CENSORED_WIDTH);
        }
        const w = noiseWeight * weight * Math.exp(logL);
        own += w;
        ownError += w * b;
      }
    }
    const weighted = own * hypothesis.weight;
    evidence += weighted;
    errorSum += ownError * hypothesis.weight;
    const meanError = own > 0 ? ownError / own : 0;
    for (let i = 0; i < curve.length; i++) {
      const shift = hypothesis.shift[points.length + i] as number;
      curve[i] = (curve[i] as number) + weighted * ((1 + meanError) * (1 + shift) - 1);
    }
    return weighted;
  });
  const hole = hypotheses[0]?.area === undefined ? undefined : holeOf(hypotheses, byHypothesis, evidence);
  return {
    evidence,
    error: evidence > 0 ? errorSum / evidence : 0,
    curve: curve.map((c) => (evidence > 0 ? c / evidence : 0)),
    ...(hole ? { hole } : {}),
  };
}

/** A censored point is a probability, the others are densities: per this width (fraction) they compare. */
const CENSORED_WIDTH = 0.05;

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

/** P(Z > z) of a standard normal: 1 − Φ(z), Abramowitz & Stegun 7.1.26, |error| < 1.5e−7. */
function normalTail(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const erfc =
    t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))) * Math.exp(-x * x);
  return z > 0 ? erfc / 2 : 1 - erfc / 2;
}
