import { cholesky, dot, whiten } from "../maths/gaussian";
import { R_AIR } from "./air";
import { type BoostLog, type BoostPoint, delivered } from "./boost-log";
import { engineAirflow } from "./engine-airflow";
import { massFlux } from "./orifice";

/** Flow by the air meter beside the engine's breathing: linear in the leak's effective area. */
export interface Breathing {
  /** Effective area C_d·A that fits best, and its sd, m² */
  readonly area: number;
  readonly sd: number;
  /** Area that would lose all there is at the point of most boost, by its share: m² for a share of 1 */
  readonly whole: number;
  /** Breathing on manifold density off boost, with its 95 % interval */
  readonly efficiency: { readonly value: number; readonly low: number; readonly high: number };
  /** Breathing of an engine of its kind, and the sd of that between engines */
  readonly usual: { readonly value: number; readonly sd: number };
  /** What meter, model and leak make of every metered point, kg/s, in the order of their time */
  readonly fit: readonly FittedFlow[];
  /** Breathing lost under boost that fits best, share, and its sd: a leak has the other sign */
  readonly heldBack: { readonly share: number; readonly sd: number };
}

/** Flow at a point: as it was metered, as the engine breathes, and what the leak that fits best takes; kg/s. */
export interface FittedFlow {
  readonly time?: number;
  readonly metered: number;
  readonly breathed: number;
  readonly lost: number;
}

export type Learnt = Breathing | { readonly why: string };

/** Breathing off boost: prior mean and sd, and how residual gas takes from it: 1/(γ(r − 1)), r the compression (Taylor 1985). */
const ENGINES = {
  petrol: { breathing: 0.85, sd: 0.08, residual: 0.079, residualSd: 0.016 },
  diesel: { breathing: 0.88, sd: 0.06, residual: 0.047, residualSd: 0.012 },
} as const;
/** Breathing varies smoothly with speed: sd, and the speed over which it does, 1/min; slow waves and short ones. */
const WAVES = [
  { sd: 0.04, over: 1500 },
  { sd: 0.012, over: 600 },
] as const;
/** Exhaust over manifold pressure under boost is not known: mean and sd, and of a point beside it. */
const RATIO = { mean: 1.17, sd: 0.13, each: 0.03 } as const;
/** Exhaust over ambient where no boost is made, and how its residual gas departs from the straight line, share of it. */
const BACK = { mean: 1.04, sd: 0.03, bent: 0.12 } as const;
/** Boost over ambient, Pa, from which the turbine's back pressure is there in full. */
const FULL_BACK = 15e3;
/** Breathing rises with charge temperature, ∝ T^n: n and its sd; from 300 K. */
const WARMTH = { power: 0.22, sd: 0.09, from: 300 } as const;
/** A meter's curve: sd of its error for each e-fold of flow. */
const METER_CURVE = 0.01;
/** Readings: meter and model, shares; manifold pressure, Pa; temperature, K: of each point, and of the log together. */
const NOISE = { meter: 0.006, model: 0.004, map: 500, temperature: 1.5 } as const;
/** A manifold sensor's offset over the log, Pa. */
const MAP_OFFSET = 500;
/** A charge sensor's offset, Pa: as it is, and once it was read against the air outside with the engine standing. */
const CHARGE_OFFSET = { unread: 800, read: 350 } as const;
/** A charge pipe without boost: gauge pressure and its sd, Pa, and how far a sensor may show it, Pa. */
const IDLE_PIPE = 400;
const NEAR = 4e3;
/** Lag of a charge temperature sensor, s. */
const LAG = { mean: 1.6, sd: 0.9 } as const;
/** Gas space between meter and valves, in displacements. */
const STORES = { mean: 6, sd: 3 } as const;
/** A meter comes after the pressures by so long, s, over the log; and of each row, since a tool asks for one channel after the other. */
const METER_LAG = { mean: 0.08, sd: 0.06, each: 0.05 } as const;

const STILL = { pressure: 0, temperature: 0, flow: 0 } as const;

/** Off boost up to this share of ambient, and under boost from this one on. */
const OFF_BOOST = 1.06;
const BOOST = 1.15;
/** Below this share of ambient the engine is dragged along: its residual gas goes by no straight line. */
const LEAST_MAP = 0.28;
/** Points that breathing is learnt from, and that a leak is read from. */
const LEAST_OFF = 3;
const LEAST_UNDER = 3;
/** Degrees of freedom of what single points are off by: heavier tails than the normal law's. */
const TAILS = 4;
/** A point so many of its sd off is none of this engine; where more than a share of them is, the log is of none. */
const STRAY = 4;
const MOST_STRAY = 0.15;
const PASSES = 4;

/** A hole's flow through a second in which boost comes up by so much, Pa, is off by this share. */
const BENDS = 0.4;
const MOVES = 30e3;
/** Moments of a point's second, s from its middle. */
const WITHIN: readonly number[] = [-0.4, -0.2, 0, 0.2, 0.4];
/** Nodes and weights of a normal law in three points (Gauss–Hermite). */
const NODES = [
  [-Math.sqrt(3), 1 / 6],
  [0, 2 / 3],
  [Math.sqrt(3), 1 / 6],
] as const;

type Metered = BoostPoint & { readonly maf: number; readonly map: number };

const few = (count: number) => (count === 0 ? "no points" : count === 1 ? "only 1 point" : `only ${count} points`);

/** Why a log tells nothing of breathing; undefined where it does. */
function unlearnt({ egr, ambient }: BoostLog, running: readonly BoostPoint[], metered: readonly Metered[]): string | undefined {
  if (egr !== "shut")
    return `EGR was open${egr === "open" ? " while it was logged" : ", or nobody knows"}: what the MAF does not see then is no leak. Log it with EGR commanded shut, or test the charge side with air`;
  if (!running.some((p) => p.maf !== undefined))
    return "no MAF was logged: the hole cannot be told from airflow. Test the charge side with air or smoke";
  if (metered.length === 0)
    return "manifold pressure was not logged beside the MAF: what the engine breathes is not known. Log both";
  const off = metered.filter((p) => p.map <= OFF_BOOST * ambient).length;
  if (off < LEAST_OFF)
    return `${few(off)} off boost: ${LEAST_OFF} or more at near ambient pressure, over the same speeds, tell its volumetric efficiency. Log a slow run without boost too`;
  const under = metered.filter((p) => p.map >= BOOST * ambient).length;
  if (under < LEAST_UNDER) return `${few(under)} under boost: a leak shows there only. Log a pull in a high gear`;
  return undefined;
}

/** A hole's flow for each m² of it at a point over what the engine sweeps, and how far it may be off by the sensor's offset. */
function leakAt(p: Metered, swept: number, ambient: number, { offset, sd }: { offset: number; sd: number }) {
  // A flow through a hole bends with its pressure: of what moves the mean is taken over its second.
  const rate = p.moving?.pressure ?? 0;
  const flux = (pressure: number) =>
    WITHIN.reduce((sum, t) => sum + massFlux(pressure + t * rate, ambient, p.chargeTemperature), 0) / WITHIN.length;
  const over = delivered(p) - offset - ambient;
  // Where no boost is made the pipe stands near the air outside, whatever a sensor says of it.
  const idle = p.map <= OFF_BOOST * ambient && over < NEAR;
  const trust = idle ? 1 / (1 + (sd / IDLE_PIPE) ** 2) : 1;
  const [read, unsure] = [ambient + trust * over, Math.sqrt(trust) * sd];
  let [mean, square] = [0, 0];
  for (const [z, weight] of NODES) {
    const value = flux(read + z * unsure) / swept;
    mean += weight * value;
    square += weight * value ** 2;
  }
  return { value: mean, sd: Math.sqrt(Math.max(0, square - mean ** 2)) };
}

/** What is known of every point, and how it hangs on what nobody knows of the log; breathing on manifold density. */
interface Model {
  readonly metered: readonly Metered[];
  /** What the engine would pass if it breathed all there is, kg/s */
  readonly swept: readonly number[];
  /** Breathing that was read less what is expected of it */
  readonly r: readonly number[];
  /** What a hole of 1 m² adds to it: its mean, its sd by the charge sensor's offset, and by how boost bends within a second */
  readonly leak: readonly number[];
  readonly offset: readonly number[];
  readonly bends: readonly number[];
  /** What an exhaust that holds back all there is takes from it under boost */
  readonly held: readonly number[];
  /** Covariance by what is common to the log, its lower triangle, and each point's own variance */
  readonly shared: readonly (readonly number[])[];
  readonly own: readonly number[];
}

const speedAt = (a: number, b: number) => WAVES.reduce((sum, w) => sum + w.sd ** 2 * Math.exp(-0.5 * ((a - b) / w.over) ** 2), 0);

function modelOf(log: BoostLog, metered: readonly Metered[]): Model {
  const { ambient, fuel, displacement } = log;
  const engine = ENGINES[fuel];
  const mean = engine.breathing;
  const standing = log.points.find((p) => p.rpm === 0 && p.charge !== undefined);
  const charge = standing
    ? { offset: (standing.charge as number) - (standing.barometer ?? ambient), sd: CHARGE_OFFSET.read }
    : { offset: 0, sd: CHARGE_OFFSET.unread };
  const middle = metered.reduce((sum, p) => sum + Math.log(p.maf), 0) / metered.length;
  const most = Math.max(...metered.map((p) => p.maf));
  const points = metered.map((p) => {
    const { map, maf, chargeTemperature: temperature, moving = STILL } = p;
    const swept = engineAirflow({ displacement, rpm: p.rpm, efficiency: 1, pressure: map, temperature });
    // Exhaust over manifold pressure less one: full back pressure under boost, silencers alone without.
    const full = Math.min(1, Math.max(0, (map - ambient) / FULL_BACK));
    const ratio = full * RATIO.mean + (1 - full) * ((BACK.mean * ambient) / map) - 1;
    const warm = mean * Math.log(temperature / WARMTH.from);
    // What moves: gas that is stored on its way, a thermometer and a meter that come after.
    const stored = (moving.pressure * displacement) / (R_AIR * temperature * swept);
    const lags = (mean * moving.temperature) / temperature;
    const meters = mean * moving.flow;
    const leak = leakAt(p, swept, ambient, charge);
    const read = maf / swept - STORES.mean * stored + LAG.mean * lags + METER_LAG.mean * meters;
    const moves = (Math.abs(moving.flow) + Math.abs(moving.pressure) / map) * METER_LAG.each;
    const own =
      NOISE.meter ** 2 +
      NOISE.model ** 2 +
      (NOISE.map / map) ** 2 +
      (NOISE.temperature / temperature) ** 2 +
      (engine.residual * RATIO.each * full) ** 2 +
      (BACK.bent * engine.residual * Math.max(0, ratio) * (1 - full)) ** 2 +
      moves ** 2;
    return {
      swept,
      r: read - mean + mean * engine.residual * ratio - WARMTH.power * warm,
      leak,
      bends: leak.value * BENDS * Math.min(1, Math.abs(moving.pressure) / MOVES),
      held: -mean * full * (maf / most),
      own: mean ** 2 * own,
      /** In sd of each thing that nobody knows of the log */
      common: [
        mean * engine.residualSd * ratio,
        mean * engine.residual * RATIO.sd * full,
        mean * engine.residual * BACK.sd * (1 - full) * (ambient / map),
        WARMTH.sd * warm,
        METER_CURVE * mean * (Math.log(maf) - middle),
        STORES.sd * stored,
        LAG.sd * lags,
        METER_LAG.sd * meters,
        (mean * MAP_OFFSET) / map,
        (mean * NOISE.temperature) / temperature / Math.SQRT2,
      ],
    };
  });
  return {
    metered,
    swept: points.map((p) => p.swept),
    r: points.map((p) => p.r),
    leak: points.map((p) => p.leak.value),
    offset: points.map((p) => p.leak.sd),
    bends: points.map((p) => p.bends),
    held: points.map((p) => p.held),
    own: points.map((p) => p.own),
    shared: points.map((a, i) =>
      points
        .slice(0, i + 1)
        .map(
          (b, j) => engine.sd ** 2 + speedAt((metered[i] as Metered).rpm, (metered[j] as Metered).rpm) + dot(a.common, b.common),
        ),
    ),
  };
}

/** A fit: Cholesky factor of the covariance, and what it makes of the readings, of a hole and of a blocked exhaust. */
interface Fit {
  readonly factor: number[][];
  readonly wr: number[];
  readonly wx: number[];
  readonly wh: number[];
  /** Points that belong to no such engine */
  readonly stray: number;
  /** What each point is off by beside all that is common to the log, share of what the engine would pass */
  readonly alone: readonly number[];
}

/** Fits by turns: what a hole's flow is uncertain by hangs on the hole, and what a point weighs on how far it is off. */
function fitOf({ r, leak, offset, bends, held, shared, own }: Model): Fit {
  const n = r.length;
  let [area, heavier]: [number, readonly number[]] = [0, own];
  let fit: Fit | undefined;
  for (let pass = 0; pass < PASSES; pass++) {
    const covariance = Array.from({ length: n }, (_, i) =>
      Array.from({ length: n }, (_, j) => {
        const [high, low] = i > j ? [i, j] : [j, i];
        const together = (shared[high]?.[low] as number) + area ** 2 * (offset[i] as number) * (offset[j] as number);
        return i === j ? together + (heavier[i] as number) + (area * (bends[i] as number)) ** 2 : together;
      }),
    );
    const factor = cholesky(covariance);
    const [wr, wx, wh] = [whiten(factor, r), whiten(factor, leak), whiten(factor, held)];
    // No hole blows inwards: what is negative here is breathing held back.
    area = Math.max(0, dot(wx, wr) / dot(wx, wx));
    const taken = area > 0 ? 0 : Math.max(0, dot(wh, wr) / dot(wh, wh));
    const left = r.map((v, i) => v - area * (leak[i] as number) - taken * (held[i] as number));
    // What single points are off by beside what the rest says of them, in their own sd.
    const without = leftOut(factor, left);
    const z = without.map(({ by, variance }, i) => {
      const alone = own[i] as number;
      return by / Math.sqrt(Math.max(variance - (heavier[i] as number) + alone, alone));
    });
    // Of what is left the point's own share: its variance over all of it, in the measure of the covariance's inverse.
    const alone = without.map(
      ({ by, variance }, i) => (((heavier[i] as number) + (area * (bends[i] as number)) ** 2) * by) / variance,
    );
    fit = { factor, wr, wx, wh, stray: z.filter((v) => Math.abs(v) > STRAY).length, alone };
    heavier = own.map((v, i) => (v * (TAILS + (z[i] as number) ** 2)) / (TAILS + 1));
  }
  return fit as Fit;
}

/**
 * Breathing of an engine and what its charge side loses, from the points of a log, moving ones included:
 *
 * ṁ_meter = η·ρ(MAP, T)·V_d·n/120 + C_d·A·ψ(charge → ambient) + (V/(R·T))·dp/dt
 *
 * η varies smoothly with speed (a Gaussian process), rises with charge temperature (∝ T^n) and falls with exhaust over manifold
 * pressure (Taylor 1985), which is not known under boost. The meter has a curve, the charge sensor an offset that counts where
 * charge pressure is near ambient, its thermometer a lag, the gas space a volume; all of them are carried as unknowns of the log,
 * linear about their means, so that the area has a closed form. Single points may be far off: Student's law by reweighting
 * (Lange, Little & Taylor 1989).
 * Valid for four-stroke engines with an air meter and EGR shut. SI, pressures absolute.
 */
export function breathingOf(log: BoostLog, running: readonly BoostPoint[]): Learnt {
  const { ambient, fuel } = log;
  const metered = running.flatMap((p): Metered[] =>
    p.maf === undefined || !(p.maf > 0) || p.map === undefined || p.map < LEAST_MAP * ambient
      ? []
      : [{ ...p, maf: p.maf, map: p.map }],
  );
  const why = unlearnt(log, running, metered);
  if (why) return { why };
  const model = modelOf(log, metered);
  const { factor, wr, wx, wh, stray, alone } = fitOf(model);
  if (stray > Math.max(2, MOST_STRAY * metered.length))
    return {
      why: "these points do not fit one engine, whatever leaks: look for a unit that was mixed, a wrong displacement, or a meter that jumps",
    };
  const area = dot(wx, wr) / dot(wx, wx);
  const top = metered.reduce((a, p) => (delivered(p) > delivered(a) ? p : a));
  // Breathing at the middle of the speeds off boost, a leak of any size left open.
  const engine = ENGINES[fuel];
  const offBoost = metered.filter((p) => p.map <= OFF_BOOST * ambient).map((p) => p.rpm);
  const rpm = offBoost.toSorted((a, b) => a - b)[Math.floor(offBoost.length / 2)] as number;
  const wa = whiten(
    factor,
    metered.map((p) => engine.sd ** 2 + speedAt(p.rpm, rpm)),
  );
  const slope = dot(wa, wx);
  const value = engine.breathing + dot(wa, wr) - slope * area;
  const sd = Math.sqrt(Math.max(0, engine.sd ** 2 + speedAt(rpm, rpm) - dot(wa, wa) + slope ** 2 / dot(wx, wx)));
  return {
    area,
    sd: 1 / Math.sqrt(dot(wx, wx)),
    whole: top.maf / massFlux(delivered(top), ambient, top.chargeTemperature),
    efficiency: { value, low: value - 1.96 * sd, high: value + 1.96 * sd },
    usual: { value: engine.breathing, sd: engine.sd },
    fit: metered
      .map((p, i): FittedFlow => {
        const lost = Math.max(0, area) * (model.leak[i] as number) * (model.swept[i] as number);
        return {
          ...(p.time === undefined ? {} : { time: p.time }),
          metered: p.maf,
          breathed: p.maf - (alone[i] as number) * (model.swept[i] as number) - lost,
          lost,
        };
      })
      .toSorted((a, b) => (a.time ?? 0) - (b.time ?? 0)),
    heldBack: { share: dot(wh, wr) / dot(wh, wh), sd: 1 / Math.sqrt(dot(wh, wh)) },
  };
}

/** Each residual less what the others predict of it, with its variance (leave-one-out, Rasmussen & Williams 2006, 5.12). */
function leftOut(factor: readonly (readonly number[])[], r: readonly number[]): { by: number; variance: number }[] {
  const n = r.length;
  // K⁻¹ = L⁻ᵀ·L⁻¹: its diagonal, and K⁻¹·r.
  const precision = new Float64Array(n);
  const solved = new Float64Array(n);
  const white = whiten(factor, r);
  for (let k = 0; k < n; k++) {
    const unit = new Array<number>(n).fill(0);
    unit[k] = 1;
    const column = whiten(factor, unit);
    precision[k] = dot(column, column);
    solved[k] = dot(column, white);
  }
  return r.map((_, i) => ({ by: (solved[i] as number) / (precision[i] as number), variance: 1 / (precision[i] as number) }));
}
