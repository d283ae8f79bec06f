import { cholesky, dot, normalBelow, whiten } from "../maths/gaussian";
import { formatNumber } from "../units";
import { engineAirflow } from "./engine-airflow";
import { STANDING_NAMES, type StandingFault, type StandingSensor, standingFault } from "./key-on";
import { holeDiameter, massFlux, SHARP_EDGED } from "./orifice";

/** One steady moment of a log, pressures absolute, Pa; temperature K; flow kg/s. */
export interface BoostPoint {
  /** 1/min; 0 with the engine standing and the key on */
  readonly rpm: number;
  /** In the manifold */
  readonly map?: number;
  /** Before the throttle, where it has a sensor of its own */
  readonly charge?: number;
  /** Pressure the ECU asks for */
  readonly asked?: number;
  readonly maf?: number;
  readonly chargeTemperature: number;
  /** Of the turbocharger's vanes or gate, 0…1 */
  readonly actuator?: { readonly command: number; readonly position: number };
  /** With the engine standing, where fitted: the ECU's own ambient sensor, exhaust pressure, and the filter's difference, Pa */
  readonly barometer?: number;
  readonly exhaust?: number;
  readonly filter?: number;
}

export interface BoostLog {
  /** Pa absolute */
  readonly ambient: number;
  readonly fuel: "petrol" | "diesel";
  /** m³ */
  readonly displacement: number;
  readonly egr: "shut" | "open" | "unknown";
  readonly points: readonly BoostPoint[];
}

export const BOOST_SHAPES = [
  "sound",
  "leak-after-meter",
  "restricted-or-lazy",
  "over-boost",
  "sensor-offset",
  "exhaust-restricted",
] as const;
export type BoostShapeId = (typeof BOOST_SHAPES)[number];

export interface BoostShape {
  readonly id: BoostShapeId;
  readonly odds: number;
  /** Everything that shows like this */
  readonly members: readonly string[];
}

/** A hole with its 95 % interval, m, as a sharp-edged one. */
export interface BoostHole {
  readonly diameter: number;
  readonly low: number;
  readonly high: number;
  /** Smallest hole that this log could have shown */
  readonly smallestVisible: number;
}

export interface JudgedBoost {
  /** Best first */
  readonly shapes: readonly BoostShape[];
  /** Breathing on manifold density off boost, with its 95 % interval; null where it cannot be learnt */
  readonly efficiency: { readonly value: number; readonly low: number; readonly high: number } | null;
  /** Null where no leak is named, or none can be sized */
  readonly hole: BoostHole | null;
  /** Smallest hole that this log could have shown, m; null where none can be told */
  readonly smallestVisible: number | null;
  /** Sensors that do not agree with the engine standing; null where all do, or none was read so */
  readonly standing: StandingFault | null;
  readonly reasons: readonly string[];
}

/** Breathing off boost: prior mean and sd, and how residual gas takes from it: 1/(γ(r − 1)), r the compression (Taylor 1985). */
const ENGINES = {
  petrol: { breathing: 0.85, sd: 0.08, residual: 0.079, residualSd: 0.016 },
  diesel: { breathing: 0.88, sd: 0.06, residual: 0.047, residualSd: 0.012 },
} as const;
/** Breathing varies smoothly with speed: sd, and the speed over which it does, 1/min. */
const SPEED_SD = 0.04;
const SPEED_SCALE = 1500;
/** Exhaust over manifold pressure under boost is not known: mean and sd of the log, and of a point beside it. */
const RATIO = { mean: 1.2, sd: 0.12, each: 0.04 } as const;
/** Exhaust over ambient where no boost is made. */
const BACK = { mean: 1.04, sd: 0.03 } as const;
/** Readings: meter and model, shares; manifold pressure, Pa; temperature, K: of each point, and of the log together. */
const NOISE = { meter: 0.006, model: 0.004, map: 500, temperature: 1.5 } as const;

/** Off boost up to this share of ambient, and what is learnt well from this share on. */
const OFF_BOOST = 1.06;
/** Charge pressure within so much of ambient is ambient, Pa. */
const AMBIENT_WITHIN = 3e3;
/** Under boost from this share of ambient on. */
const BOOST = 1.15;
/** Points that breathing is learnt from, and that a leak is read from. */
const LEAST_OFF = 3;
const LEAST_UNDER = 3;
/** A sum of squared, whitened residuals so many sd above its mean is no chance. */
const MISFIT = 6;
/** The largest loss that is thought of, share of the flow at the point of most boost. */
const MOST_LOST = 0.2;
/** How strongly a restricted exhaust may take from breathing under boost, share. */
const MOST_HELD_BACK = 0.3;
/** Boost that is missing matters from here on: Pa, and share of what is asked over ambient. */
const SHORT = { pressure: 15e3, share: 0.1 } as const;
/** An actuator that stays so far behind its command does not follow it, share of its travel. */
const LAGS = 0.1;

const PRIORS: Readonly<Record<BoostShapeId, number>> = {
  sound: 0.5,
  "leak-after-meter": 0.11,
  "restricted-or-lazy": 0.15,
  "over-boost": 0.06,
  "sensor-offset": 0.04,
  "exhaust-restricted": 0.05,
};

/** How likely delivered boost falls short, holds or goes over under each shape; own estimates. */
const DELIVERED: Readonly<Record<BoostShapeId, Readonly<Record<"short" | "held" | "over", number>>>> = {
  sound: { short: 0.015, held: 0.97, over: 0.015 },
  "leak-after-meter": { short: 0.6, held: 0.38, over: 0.02 },
  "restricted-or-lazy": { short: 0.95, held: 0.04, over: 0.01 },
  "over-boost": { short: 0.03, held: 0.07, over: 0.9 },
  "sensor-offset": { short: 0.3, held: 0.4, over: 0.3 },
  "exhaust-restricted": { short: 0.6, held: 0.38, over: 0.02 },
};

const MEMBERS: Readonly<Record<BoostShapeId, readonly string[]>> = {
  sound: [],
  "leak-after-meter": [
    "charge pipes and their joints",
    "charge-air cooler",
    "manifold under boost",
    "bypass valve to the outside",
  ],
  "restricted-or-lazy": [
    "air filter or duct before the compressor",
    "vanes or wastegate that do not close",
    "their vacuum, solenoid or line",
    "worn compressor or turbine",
  ],
  "over-boost": ["vanes or wastegate that do not open", "their pipe off or split", "boost sensor that reads low"],
  "sensor-offset": ["boost or manifold sensor", "ambient sensor"],
  "exhaust-restricted": ["particulate filter", "catalyst", "silencer or crushed pipe"],
};

/**
 * Estimate from a log of the charge side. ṁ_meter = η·ρ(MAP, T_charge)·V_d·n/120 + C_d·A·ψ(charge → ambient): η is learnt off boost,
 * varies smoothly with speed (a Gaussian process) and falls with exhaust over manifold pressure, which is not known under boost
 * and is carried as such; linear in all of these, so the marginal likelihood of each shape has a closed form.
 * @returns shapes by their odds, with what each is made of; a size only where a leak is named. Throws RangeError for a log that is none.
 */
export function judgeBoost(log: BoostLog): JudgedBoost {
  const running = log.points.filter((p) => p.rpm > 0);
  if (running.some((p) => p.map === undefined && p.charge === undefined))
    throw new RangeError("A point without manifold and charge pressure says nothing: log one of them");
  if (log.points.length === 0) throw new RangeError("Give at least one point");
  const mixed = running.find((p) => p.asked !== undefined && p.asked < 0.6 * log.ambient && delivered(p) > 0.95 * log.ambient);
  if (mixed)
    throw new RangeError(
      "The requested boost lies far below ambient while ambient or more is delivered: it looks like gauge pressure beside absolute. Add the ambient pressure to it, or log both alike",
    );
  const standing = standingOf(log);
  // What the exhaust's sensors show takes nothing from boost and breathing.
  const off = standing?.sensors.some((id) => id !== "exhaust" && id !== "filter") ? standing : undefined;
  const boost = deliveredOf(running, log.ambient);
  const breathing: Learnt = off ? { why: "the sensors come first" } : breathingOf(log, running);
  const odds = weigh(boost?.says, breathing, off, standing);
  const lagging = running.filter((p) => p.actuator && p.actuator.command - p.actuator.position > LAGS);
  const logged = running.some((p) => p.actuator);
  const membersOf = (id: BoostShapeId): readonly string[] => {
    if (id === "sensor-offset" && standing) return standing.sensors.map((sensor: StandingSensor) => STANDING_NAMES[sensor]);
    if (id !== "restricted-or-lazy" || !logged) return MEMBERS[id];
    return lagging.length > 0
      ? MEMBERS[id].filter((m) => /close|vacuum/.test(m))
      : MEMBERS[id].filter((m) => !/close|vacuum/.test(m));
  };
  const shapes = BOOST_SHAPES.map((id) => ({ id, odds: odds[id], members: membersOf(id) })).toSorted((a, b) => b.odds - a.odds);
  const named = shapes[0]?.id === "leak-after-meter" && "area" in breathing;
  const hole = named ? holeOf(breathing) : null;
  const reasons = [
    ...(standing ? [standing.why] : []),
    ...(off ? ["nothing else it says of boost counts until that is corrected"] : []),
    ...(boost ? [boost.why] : ["requested boost was not logged: whether boost falls short is open"]),
    ...("area" in breathing ? breathingSays(breathing, hole) : off ? [] : [breathing.why]),
    ...(logged
      ? [
          lagging.length > 0
            ? "the actuator stays behind its command: it does not close"
            : "the actuator follows its command: what is short is not its doing",
        ]
      : shapes[0]?.id === "restricted-or-lazy"
        ? [
            "without the actuator's command and position a restriction and a lazy actuator look alike: log both, or pump it by hand",
          ]
        : []),
  ];
  return {
    shapes,
    efficiency: "area" in breathing ? breathing.efficiency : null,
    hole,
    smallestVisible: "area" in breathing ? visibleOf(breathing) : null,
    standing: standing ?? null,
    reasons,
  };
}

/** Every point has one of them: it was looked at before. */
const delivered = ({ charge, map }: BoostPoint) => (charge ?? map) as number;

/** Sensors against each other with the engine standing; undefined where none was read so, or all agree. */
function standingOf({ ambient, points }: BoostLog): StandingFault | undefined {
  for (const { rpm, map, charge, barometer, exhaust, filter } of points) {
    if (rpm > 0) continue;
    const read = { map, charge, ambient: barometer, exhaust, filter };
    const known = Object.fromEntries(Object.entries(read).filter(([, value]) => value !== undefined));
    const fault = standingFault({ outside: ambient, ...known });
    if (fault) return fault;
  }
  return undefined;
}

/**
 * How far delivered boost may lie from what is asked before it matters: 15 kPa, or a tenth of the gauge boost asked for; shop practice.
 * @param asked, ambient Pa absolute. @returns Pa.
 */
export const boostThatMatters = (asked: number, ambient: number): number =>
  Math.max(SHORT.pressure, SHORT.share * (asked - ambient));

/** Boost asked for against delivered; undefined where nothing was asked or logged. */
function deliveredOf(
  points: readonly BoostPoint[],
  ambient: number,
): { readonly says: "short" | "held" | "over"; readonly why: string } | undefined {
  const asked = points.flatMap((p) => (p.asked !== undefined && p.asked > 1.1 * ambient ? [{ ...p, asked: p.asked }] : []));
  if (asked.length === 0) return undefined;
  const missing = asked.map((p) => ({
    by: p.asked - delivered(p),
    rpm: p.rpm,
    much: boostThatMatters(p.asked, ambient),
    asked: p.asked,
  }));
  const short = missing.filter((m) => m.by > m.much);
  const over = missing.filter((m) => -m.by > m.much);
  const many = (list: readonly unknown[]) => list.length >= 2 && list.length >= asked.length / 3;
  const worst = (list: typeof missing) => list.toSorted((a, b) => Math.abs(b.by) - Math.abs(a.by))[0] as (typeof missing)[number];
  if (many(short)) {
    const w = worst(short);
    return {
      says: "short",
      why: `boost falls short by up to ${formatNumber(w.by / 100, 0)} mbar at ${formatNumber(w.rpm, 0)} rpm, ${formatNumber((w.asked - ambient) / 1e5, 2)} bar gauge asked; ${formatNumber(w.much / 100, 0)} mbar matters`,
    };
  }
  if (many(over)) {
    const w = worst(over);
    return {
      says: "over",
      why: `boost goes over the requested value by up to ${formatNumber(-w.by / 100, 0)} mbar at ${formatNumber(w.rpm, 0)} rpm: where it always does, look whether the two columns are swapped`,
    };
  }
  return { says: "held", why: "actual boost holds the requested value" };
}

/** Flow by the air meter beside the engine's breathing: linear in the leak's effective area. */
interface Breathing {
  /** Effective area C_d·A that fits best, and its sd, m² */
  readonly area: number;
  readonly sd: number;
  /** Area that would lose all there is at the point of most boost, by its share: m² for a share of 1 */
  readonly whole: number;
  readonly efficiency: NonNullable<JudgedBoost["efficiency"]>;
  /** Breathing lost under boost that fits best, share, and its sd: a leak has the other sign */
  readonly heldBack: { readonly share: number; readonly sd: number };
}

type Learnt = Breathing | { readonly why: string };

function breathingOf({ ambient, fuel, displacement, egr }: BoostLog, running: readonly BoostPoint[]): Learnt {
  if (egr !== "shut")
    return {
      why: `EGR was open${egr === "open" ? " while it was logged" : ", or nobody knows"}: what the MAF does not see then is no leak. Log it with EGR commanded shut, or test the charge side with air`,
    };
  if (!running.some((p) => p.maf !== undefined))
    return { why: "no MAF was logged: the hole cannot be told from airflow. Test the charge side with air or smoke" };
  const metered = running.flatMap((p) => (p.maf === undefined || p.map === undefined ? [] : [{ ...p, maf: p.maf, map: p.map }]));
  if (metered.length === 0)
    return { why: "manifold pressure was not logged beside the MAF: what the engine breathes is not known. Log both" };
  const off = metered.filter((p) => p.map <= OFF_BOOST * ambient);
  const under = metered.filter((p) => p.map >= BOOST * ambient);
  if (off.length < LEAST_OFF)
    return {
      why: `${off.length} ${off.length === 1 ? "point" : "points"} steady points off boost are needed to learn its volumetric efficiency: ${LEAST_OFF} or more at near ambient pressure over the same speeds. Log a slow run without boost too`,
    };
  if (under.length < LEAST_UNDER)
    return { why: `${under.length} points under boost: a leak shows there only. Log a pull in a high gear` };
  const engine = ENGINES[fuel];
  const swept = (p: (typeof metered)[number]) =>
    engineAirflow({ displacement, rpm: p.rpm, efficiency: 1, pressure: p.map, temperature: p.chargeTemperature });
  const y = metered.map((p) => p.maf / swept(p));
  // Near ambient nobody knows the charge pipe's pressure to the Pascals that a leak's flow hangs on there: it counts as none.
  const leak = metered.map((p) =>
    delivered(p) - ambient > AMBIENT_WITHIN ? massFlux(delivered(p), ambient, p.chargeTemperature) / swept(p) : 0,
  );
  // Exhaust over manifold pressure less one: its mean, and how it hangs on what is not known of the log.
  const isUnder = metered.map((p) => p.map > OFF_BOOST * ambient);
  const ratio = metered.map((p, i) => (isUnder[i] ? RATIO.mean : (BACK.mean * ambient) / p.map) - 1);
  const loads = metered.map((p, i) => (isUnder[i] ? 1 : (BACK.sd / RATIO.sd) * (ambient / p.map)));
  const mean = engine.breathing;
  const lost = ratio.map((r) => mean * engine.residual * r);
  const r = y.map((value, i) => value - mean + (lost[i] as number));
  const n = metered.length;
  const covariance = Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (_, j) => {
      const [a, b] = [metered[i] as (typeof metered)[number], metered[j] as (typeof metered)[number]];
      const speed = SPEED_SD ** 2 * Math.exp(-0.5 * ((a.rpm - b.rpm) / SPEED_SCALE) ** 2);
      const residual = mean ** 2 * engine.residualSd ** 2 * (ratio[i] as number) * (ratio[j] as number);
      const alike = isUnder[i] === isUnder[j];
      const turbine = alike ? (mean * engine.residual * RATIO.sd) ** 2 * (loads[i] as number) * (loads[j] as number) : 0;
      const together =
        mean ** 2 *
        ((NOISE.map ** 2 / a.map / b.map) * 0.5 + (NOISE.temperature ** 2 / a.chargeTemperature / b.chargeTemperature) * 0.5);
      const own =
        i === j
          ? mean ** 2 *
            (NOISE.meter ** 2 +
              NOISE.model ** 2 +
              (NOISE.map / a.map) ** 2 +
              (NOISE.temperature / a.chargeTemperature) ** 2 +
              (isUnder[i] ? (engine.residual * RATIO.each) ** 2 : 0))
          : 0;
      return engine.sd ** 2 + speed + residual + turbine + together + own;
    }),
  );
  const factor = cholesky(covariance);
  const [wr, wx] = [whiten(factor, r), whiten(factor, leak)];
  const area = dot(wx, wr) / dot(wx, wx);
  // The other way round: breathing that is held back under boost by a blocked exhaust grows with the flow.
  const most = Math.max(...metered.map((p) => p.maf));
  const held = metered.map((p, i) => (isUnder[i] ? -mean * (p.maf / most) : 0));
  const wh = whiten(factor, held);
  // What fits no engine, with a hole or a blocked exhaust, is mixed, mistyped or of several cars: no verdict rests on it.
  const misfit = dot(wr, wr) - Math.max(area ** 2 * dot(wx, wx), dot(wh, wr) ** 2 / dot(wh, wh));
  if (misfit > n + MISFIT * Math.sqrt(2 * n))
    return {
      why: "these points do not fit one engine, whatever leaks: look for a unit that was mixed, a wrong displacement, or a meter that jumps",
    };
  const top = metered.reduce((best, p) => (delivered(p) > delivered(best) ? p : best));
  // Breathing at the middle of the speeds off boost, a leak of any size left open.
  const rpm = off.map((p) => p.rpm).toSorted((a, b) => a - b)[Math.floor(off.length / 2)] as number;
  const at = metered.map((p) => engine.sd ** 2 + SPEED_SD ** 2 * Math.exp(-0.5 * ((p.rpm - rpm) / SPEED_SCALE) ** 2));
  const wa = whiten(factor, at);
  const slope = dot(wa, wx);
  const value = mean + dot(wa, wr) - slope * area;
  const sd = Math.sqrt(Math.max(0, engine.sd ** 2 + SPEED_SD ** 2 - dot(wa, wa) + slope ** 2 / dot(wx, wx)));
  return {
    area,
    sd: 1 / Math.sqrt(dot(wx, wx)),
    whole: top.maf / massFlux(delivered(top), ambient, top.chargeTemperature),
    efficiency: { value, low: value - 1.96 * sd, high: value + 1.96 * sd },
    heldBack: { share: dot(wh, wr) / dot(wh, wh), sd: 1 / Math.sqrt(dot(wh, wh)) },
  };
}

/**
 * Log of the marginal likelihood of a quantity that is uniform from 0 to `most`, over the one of nothing, both from a Gaussian
 * reading of it: log ∫ exp((a·v − a²/2)/s²) da/most, by the midpoint rule on logs.
 */
function overNothing(value: number, sd: number, most: number): number {
  const steps = 400;
  const terms = Array.from({ length: steps }, (_, i) => {
    const a = (most * (i + 0.5)) / steps;
    return (a * value - a ** 2 / 2) / sd ** 2;
  });
  const top = Math.max(...terms);
  return top + Math.log(terms.reduce((sum, t) => sum + Math.exp(t - top), 0) / steps);
}

function weigh(
  says: "short" | "held" | "over" | undefined,
  learnt: Learnt,
  off: StandingFault | undefined,
  standing: StandingFault | undefined,
) {
  const read = "area" in learnt ? learnt : undefined;
  const byMeter: Readonly<Record<BoostShapeId, number>> = {
    sound: 0,
    "restricted-or-lazy": 0,
    "over-boost": 0,
    "sensor-offset": 0,
    "leak-after-meter": read ? overNothing(read.area, read.sd, MOST_LOST * read.whole) : 0,
    "exhaust-restricted": read ? overNothing(read.heldBack.share, read.heldBack.sd, MOST_HELD_BACK) : 0,
  };
  const weights = BOOST_SHAPES.map((id) => {
    // A sensor that is off is seen with the engine standing: then nothing is sound, and by one that boost is read with nothing shows.
    const seen = off ? (id === "sensor-offset" ? 1 : 1e-4) : 1;
    const as = standing && !off ? (id === "sound" ? "none" : id === "sensor-offset" ? "sound" : id) : id;
    if (as === "none") return [id, Number.NEGATIVE_INFINITY] as const;
    return [id, Math.log(PRIORS[as] * (says ? DELIVERED[as][says] : 1) * seen) + byMeter[id]] as const;
  });
  const top = Math.max(...weights.map(([, w]) => w));
  const total = weights.reduce((sum, [, w]) => sum + Math.exp(w - top), 0);
  return Object.fromEntries(weights.map(([id, w]) => [id, Math.exp(w - top) / total])) as Record<BoostShapeId, number>;
}

/** Least z that names a leak by the meter alone: what a log with this sd could have shown. */
const VISIBLE = 2.4;

/** Smallest hole, m, that a log with this sd could have shown. */
const visibleOf = ({ sd }: Pick<Breathing, "sd">) => holeDiameter((VISIBLE * sd) / SHARP_EDGED);

/** The hole of a leak that is there: its area is not negative, and no more than is thought of. */
function holeOf({ area, sd, whole }: Breathing): BoostHole {
  const most = MOST_LOST * 1.5 * whole;
  const [below, above] = [normalBelow(-area / sd), normalBelow((most - area) / sd)];
  const quantile = (q: number) => area + sd * normalQuantile(below + q * (above - below));
  const of = (a: number) => holeDiameter(Math.max(0, a) / SHARP_EDGED);
  return {
    diameter: of(quantile(0.5)),
    low: of(quantile(0.025)),
    high: of(quantile(0.975)),
    smallestVisible: visibleOf({ sd }),
  };
}

/** Inverse of the standard normal distribution function by bisection, |z| < 9. */
function normalQuantile(p: number): number {
  let [low, high] = [-9, 9];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (normalBelow(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

function breathingSays({ area, sd, whole, efficiency }: Breathing, hole: BoostHole | null): string[] {
  const share = (a: number) => `${formatNumber(100 * (a / whole), 1)} %`;
  const mm = (d: number) => `${formatNumber(1000 * d, 1)} mm`;
  return [
    hole
      ? `under boost the meter sees ${share(Math.max(0, area))} more than the engine breathes: a hole of ${mm(hole.diameter)}, between ${mm(hole.low)} and ${mm(hole.high)} (95 %), as a sharp-edged one`
      : `meter and breathing agree under boost within ${share(VISIBLE * sd)}`,
    `the smallest hole that this log could have shown is ${mm(visibleOf({ sd }))}`,
    `VE off boost ${formatNumber(100 * efficiency.value, 0)} % on manifold density`,
  ];
}
