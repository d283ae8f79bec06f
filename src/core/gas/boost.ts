import { normalBelow } from "../maths/gaussian";
import { formatNumber } from "../units";
import { type BoostLog, type BoostPoint, delivered, standsStill } from "./boost-log";
import { type Breathing, breathingOf, type FittedFlow, type Learnt } from "./breathing";
import { STANDING_NAMES, type StandingFault, type StandingSensor, standingFault } from "./key-on";
import { GAIN, LEVEL_SHOWS, type Level, levelOf } from "./level";
import { holeDiameter, SHARP_EDGED } from "./orifice";

export const BOOST_SHAPES = [
  "sound",
  "leak-after-meter",
  "restricted-or-lazy",
  "over-boost",
  "sensor-offset",
  "exhaust-restricted",
  "meter-or-breathing",
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
  /** The hole that loses the share of the flow that a log must show, at the most boost of this log, m; null where none can be told */
  readonly mustShow: number | null;
  /** What every metered point is made of, in the order of time; null where breathing cannot be learnt */
  readonly fit: readonly FittedFlow[] | null;
  /** Sensors that do not agree with the engine standing; null where all do, or none was read so */
  readonly standing: StandingFault | null;
  readonly reasons: readonly string[];
}

/** From a log this share of the flow under boost must be caught; what loses less is owed to smoke or air. */
export const MUST_SHOW = 0.05;
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
  "meter-or-breathing": 0.06,
};

/** How likely delivered boost falls short, holds or goes over under each shape; own estimates. */
const DELIVERED: Readonly<Record<BoostShapeId, Readonly<Record<"short" | "held" | "over", number>>>> = {
  sound: { short: 0.015, held: 0.97, over: 0.015 },
  "leak-after-meter": { short: 0.6, held: 0.38, over: 0.02 },
  "restricted-or-lazy": { short: 0.95, held: 0.04, over: 0.01 },
  "over-boost": { short: 0.03, held: 0.07, over: 0.9 },
  "sensor-offset": { short: 0.3, held: 0.4, over: 0.3 },
  "exhaust-restricted": { short: 0.6, held: 0.38, over: 0.02 },
  "meter-or-breathing": { short: 0.1, held: 0.87, over: 0.03 },
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
  "meter-or-breathing": ["MAF", "valve timing, valves or rings"],
};
/** Of MAF and breathing one alone is named from this share of the odds on. */
const ONE_ALONE = 0.8;

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
  const level = "area" in breathing ? levelRead(log, running, breathing) : undefined;
  const odds = weigh(boost?.says, breathing, level, off, standing);
  const lagging = running.filter((p) => p.actuator && p.actuator.command - p.actuator.position > LAGS);
  const logged = running.some((p) => p.actuator);
  const membersOf = (id: BoostShapeId): readonly string[] => {
    if (id === "sensor-offset" && standing) return standing.sensors.map((sensor: StandingSensor) => STANDING_NAMES[sensor]);
    if (id === "meter-or-breathing" && level) {
      const [meter, ...engine] = MEMBERS[id];
      return level.meter >= ONE_ALONE ? [meter as string] : level.meter <= 1 - ONE_ALONE ? engine : MEMBERS[id];
    }
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
    ...(level ? [level.says] : []),
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
    mustShow: "area" in breathing ? holeDiameter((MUST_SHOW * breathing.whole) / SHARP_EDGED) : null,
    fit: "area" in breathing ? breathing.fit : null,
    standing: standing ?? null,
    reasons,
  };
}

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
  // While boost is on its way it is not yet what was asked.
  const asked = points.flatMap((p) =>
    p.asked !== undefined && p.asked > 1.1 * ambient && standsStill(p.moving?.pressure ?? 0) ? [{ ...p, asked: p.asked }] : [],
  );
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
  level: Level | undefined,
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
    "meter-or-breathing": level?.evidence ?? 0,
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

/** Breathing of an engine that was read off an earlier log is read the same today within this, share. */
const OWN = 0.02;
/** Closed-loop points that tell a trim. */
const LEAST_TRIMS = 3;

/** What the level of the metered flow says, with its sentence: beside this very engine's own breathing where that is known. */
function levelRead(
  { known, ambient }: BoostLog,
  running: readonly BoostPoint[],
  { efficiency, usual }: Breathing,
): Level & { readonly says: string } {
  const expected = known ?? usual.value;
  // What is uncertain of both readings of one engine is the same in both.
  const own = known !== undefined;
  const sd = own ? OWN : Math.hypot(usual.sd, (efficiency.high - efficiency.low) / 2 / 1.96) / expected;
  const trims = running
    .flatMap((p) => (p.trim === undefined || p.map === undefined || p.map > ambient ? [] : [p.trim]))
    .toSorted((a, b) => a - b);
  const trim = trims.length < LEAST_TRIMS ? undefined : (trims[trims.length >> 1] as number);
  const percent = (x: number) => `${formatNumber(100 * x, 0)} %`;
  const by = efficiency.value / expected - 1;
  return {
    ...levelOf({ by, sd, own, ...(trim === undefined ? {} : { trim }) }),
    says: [
      `VE off boost ${percent(efficiency.value)} on manifold density, ${own ? "this engine's own" : "usual"} ${percent(expected)}`,
      ...(trim === undefined ? [] : [`closed-loop trims ${formatNumber(100 * trim, 0)} %`]),
      `a MAF off by less than ${percent(LEVEL_SHOWS * Math.hypot(sd, own ? 0 : GAIN))} across the range would not show here${own ? "" : ": compare with this engine's own VE from an earlier log"}`,
    ].join("; "),
  };
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

function breathingSays({ area, sd, whole }: Breathing, hole: BoostHole | null): string[] {
  const share = (a: number) => `${formatNumber(100 * (a / whole), 1)} %`;
  const mm = (d: number) => `${formatNumber(1000 * d, 1)} mm`;
  return [
    hole
      ? `under boost the meter sees ${share(Math.max(0, area))} more than the engine breathes: a hole of ${mm(hole.diameter)}, between ${mm(hole.low)} and ${mm(hole.high)} (95 %), as a sharp-edged one`
      : `meter and breathing agree under boost within ${share(VISIBLE * sd)}`,
    `the smallest hole that this log could have shown is ${mm(visibleOf({ sd }))}`,
  ];
}
