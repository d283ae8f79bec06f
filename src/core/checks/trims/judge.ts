import { R_AIR } from "../../gas/air";
import type { Limit } from "../../shop/limits";
import { formatNumber, fromSi, type Quantity, toSi, ZERO_CELSIUS } from "../../units";
import { isKnown, type VehicleFacts } from "../../vehicle";
import { POINT_CLASSES, type Says } from "../claim";
import type { CheckContext } from "../context";
import { type Measure, type Verdict, voidVerdict } from "../verdict";
import type { TrimPoint, TrimSurvey } from "./fields";
import { classesOf } from "./points";
import {
  type BankReading,
  conditionsOf,
  mustShow,
  NAMED,
  readSurvey,
  readTrim,
  type Stops,
  type SurveyReading,
  smallestVisible,
  stopsOf,
} from "./read";
import type { Seen } from "./rows";
import type { ShapeFit, ShapeId } from "./shapes";

/** Checks that would tell a shape's members apart. */
const SEPARATORS: Record<ShapeId, string> = {
  none: "Trims are normal. If the complaint stays, its cause is not in the mixture at these points.",
  constant: "Smoke or wiggle the metered duct, then fuel pressure and the MAF against what the engine breathes.",
  "fades-with-flow": "Smoke or enrichment at the joints; cap off each branch; smoke the exhaust before the sensor.",
  "grows-with-flow": "Fuel pressure under load, then the MAF against what the engine breathes.",
  "rich-under-boost": "Smoke the charge side; a point at 150 kPa absolute or more tells charge side from manifold.",
  "rich-fades-with-flow": "Pinch the purge hose and watch idle; then the regulator's vacuum hose for fuel, then the injectors.",
  "rich-grows-with-flow": "The MAF against what the engine breathes, then fuel pressure under load.",
};

/** Why trims say nothing on this vehicle, and what does; undefined when they do. */
export function refusal(vehicle: Pick<VehicleFacts, "fuel" | "metering">): string | undefined {
  if (vehicle.fuel === "diesel") {
    return "A diesel has no fuel trims. What works here: smoke, the look by hand, requested against actual boost.";
  }
  if (vehicle.metering === "map") {
    return "A speed-density engine meters a manifold leak, so it hardly shows in trims. What works here: idle speed, idle-air command and manifold pressure against healthy values, then smoke.";
  }
  return undefined;
}

const SHAPE_WORDS: Record<ShapeId, string> = {
  none: "trims sit near zero everywhere",
  constant: "the same error at every flow",
  "fades-with-flow": "lean at idle, fading as airflow rises: air is getting in at a fixed hole",
  "grows-with-flow": "lean that grows with airflow: fuel supply, or a meter that under-reads",
  "rich-under-boost": "quiet at idle, rich under boost: metered air is lost on the charge side",
  "rich-fades-with-flow": "rich at idle, fading as airflow rises: fuel or vapour comes in beside the injectors' count",
  "rich-grows-with-flow": "rich that grows with airflow: the meter over-reads",
};

const mm = (m: number) => formatNumber(m * 1000, 1);
const capital = (words: string) => `${words.charAt(0).toUpperCase()}${words.slice(1)}`;

/** State of one bank, in words: "Bank 1: lean at idle …, hole about 2.0 mm (1.7 to 2.3)"; an only bank has no name. */
function describeBank(reading: BankReading, name: string): string {
  const best = reading.fits[0] as ShapeFit;
  const hole = reading.hole
    ? `, a hole of about ${mm(reading.hole.diameter)} mm (${mm(reading.hole.low)} to ${mm(reading.hole.high)})`
    : "";
  const error = best.id === "constant" ? `: ${formatNumber(best.error * 100, 0)} %` : "";
  const words = `${SHAPE_WORDS[best.id]}${error}${hole}`;
  return name ? `${name}: ${words}` : capital(words);
}

/** No engine that runs breathes less than this share of what it sweeps at ambient density. */
const LEAST_BREATHED = 0.05;
/** No engine breathes more than this share of what it sweeps at ambient density without boost. */
const MOST_BREATHED = 1.35;

/** Why a point cannot have been read on this engine; undefined when it can. */
function impossiblePoint(
  point: TrimPoint,
  survey: Pick<TrimSurvey, "ambient" | "intakeTemperature">,
  { vehicle }: Pick<CheckContext, "vehicle">,
): string | undefined {
  const ambient = toSi(survey.ambient);
  if (vehicle.induction === "natural" && isKnown(vehicle, "induction") && point.map && toSi(point.map) > 1.03 * ambient)
    return "a manifold pressure above ambient on an engine without a blower";
  const swept = ((ambient / (R_AIR * toSi(survey.intakeTemperature))) * toSi(vehicle.displacement) * point.rpm) / 120;
  if (toSi(point.maf) < LEAST_BREATHED * swept) return "less air than an engine draws through a shut throttle at that speed";
  const boost = vehicle.induction === "turbo" ? Math.max(2.5, point.map ? toSi(point.map) / ambient : 0) : 1;
  if (toSi(point.maf) > MOST_BREATHED * boost * swept) return "more air than this engine can sweep at that speed";
  return undefined;
}

/** Points that say something: possible, warm and in closed loop, as far as anybody said. */
export const countedPoints = (
  survey: Pick<TrimSurvey, "points" | "ambient" | "intakeTemperature">,
  context: Pick<CheckContext, "limits" | "vehicle">,
): TrimPoint[] =>
  survey.points.filter(
    (p) =>
      p.closedLoop !== false &&
      !(p.coolant && toSi(p.coolant) < context.limits.warmCoolant.value) &&
      impossiblePoint(p, survey, context) === undefined,
  );

/**
 * State of one bank at one point by the shop's bands alone. A correction at its stop says "at least"; one without its
 * long-term part, or with both parts pulling against each other, decides nothing.
 */
export function pointSays(point: TrimPoint, bank: number, stops: Stops, context: Pick<CheckContext, "limits" | "house">): Says {
  const { total, saturated, relearning } = readTrim(point, bank, context.house.totalTrim, stops);
  const act = trimAct(context).value;
  if (saturated !== 0) return "bad";
  // What swings so far has no steady value to hold against a band.
  if (swings(point, bank)) return "open";
  if (total === undefined) return Math.abs(point.banks[bank]?.short ?? 0) > 100 * act ? "bad" : "open";
  if (relearning) return "open";
  if (Math.abs(total) > act) return "bad";
  return Math.abs(total) <= context.limits.trimGood.value ? "good" : "open";
}

/** A correction that swings by more than this is no steady reading, percent, one standard deviation. */
const STEADY = 4;
const swings = (point: TrimPoint, bank: number): boolean => (point.banks[bank]?.scatter ?? 0) > STEADY;

/** The trim beyond which something is wrong, by the shop's school: the strict one acts on all that is not good. */
export const trimAct = ({ limits, house }: Pick<CheckContext, "limits" | "house">): Limit =>
  house.trimLimit === "strict" ? { value: limits.trimGood.value, source: "house method: strict" } : limits.trimAct;

/** Why no point counts at all. */
function nothingCounts(survey: TrimSurvey, context: CheckContext): Verdict<Seen> {
  const { points } = survey;
  const { limits } = context;
  const reasons = [
    ...new Set(points.flatMap((p) => impossiblePoint(p, survey, context) ?? [])),
    ...(points.some((p) => p.closedLoop === false) ? ["points in open loop"] : []),
    ...(points.some((p) => p.coolant && toSi(p.coolant) < limits.warmCoolant.value)
      ? [`the engine was below ${formatNumber(limits.warmCoolant.value - ZERO_CELSIUS, 0)} °C coolant`]
      : []),
  ];
  return { ...voidVerdict("No point was taken warm and in closed loop", reasons[0] ?? ""), reasons };
}

/** The smallest hole that the points would show, against what must be caught; nothing where none would show. */
const visibleMeasure = (visible: number, needed: number, { caughtManifold }: CheckContext["limits"]): Measure[] =>
  Number.isFinite(visible) && visible > 0
    ? [
        {
          name: "Smallest hole into the manifold that these points would show",
          value: fromSi(visible, "mm"),
          limit: `${mm(needed)} mm`,
          limitSource: caughtManifold.source,
        },
      ]
    : [];

/** All that a survey's counted points say, before a verdict is made of it. */
function factsOf(survey: TrimSurvey, usable: readonly TrimPoint[], context: CheckContext) {
  const { limits, vehicle, house } = context;
  const act = trimAct(context);
  const counted = { ...survey, points: usable };
  const stops = stopsOf(survey);
  const bankCount = usable[0]?.banks.length ?? 0;
  const all = usable.flatMap((point, index) =>
    Array.from({ length: bankCount }, (_, bank) => ({
      point,
      bank,
      index,
      says: pointSays(point, bank, stops, context),
      trim: readTrim(point, bank, house.totalTrim, stops),
    })),
  );
  const reading = readSurvey(counted, vehicle, house.totalTrim, { good: limits.trimGood.value, act: act.value });
  const { banks, shared } = reading;
  const name = (i: number) => (bankCount === 1 ? "" : `Bank ${i + 1}`);
  const worst = banks.length > 0 ? worstBank(banks) : 0;
  const best = banks[worst]?.fits[0];
  const flows = usable.map((p) => toSi(p.maf));
  const oneFlow = usable.length < 2 || Math.max(...flows) / Math.min(...flows) < 1.6;
  const conditions = conditionsOf(survey, vehicle);
  const visible = Math.max(...banks.map((b) => smallestVisible(b.points, conditions, limits.trimGood.value)), 0);
  const needed = mustShow(vehicle, conditions, limits);
  const dropped = survey.points.length - usable.length;
  const left = [
    ...(dropped > 0 ? [`${dropped} of ${survey.points.length} points left out: cold, open loop or not possible`] : []),
    ...new Set(survey.points.flatMap((p) => impossiblePoint(p, survey, context) ?? [])),
  ];
  const classes = classesOf(counted, context);
  const observation = observationFor(reading, worst, oneFlow);
  return {
    usable,
    all,
    act: act.value,
    good: limits.trimGood.value,
    bank: banks[worst],
    best,
    named: best !== undefined && best.odds >= NAMED && !oneFlow && best.id !== "none",
    called: shared ? "" : name(worst),
    own: name(worst),
    oneFlow,
    visible,
    needed,
    left,
    observed: observation ? { observation } : {},
    measures: [
      ...banks.flatMap((bank, i) => measuresOf(bank, name(i), act, shared !== null)),
      ...(shared ? [holeOf("equivalent sharp-edged hole shared by both banks (Cd 0.61)", shared.hole)] : []),
      ...visibleMeasure(visible, needed, limits),
    ] as Measure[],
    shapeReasons: [
      ...(shared
        ? [
            `both banks fade alike: one hole before they part, about ${mm(shared.hole.diameter)} mm (odds ${formatNumber(100 * shared.odds, 0)} %)`,
          ]
        : banks.length > 1
          ? banks.map((bank, i) => describeBank(bank, name(i)))
          : []),
      ...left,
      ...(best ? [SEPARATORS[best.id]] : []),
    ],
    /** The operating points of some of them, in the order of a survey, whatever order they were written down in */
    where: (list: typeof all): string => {
      const there = new Set(list.map((one) => classes[one.index]));
      return POINT_CLASSES.filter((c) => there.has(c))
        .map((c) => WHERE[c])
        .join(", ");
    },
  };
}
type SurveyFacts = ReturnType<typeof factsOf>;
type Said = Pick<Verdict<Seen>, "outcome" | "headline" | "reasons" | "observation">;

/** Beyond the shop's band somewhere: faulty, and what it looks like; undefined where no point is. */
function beyondAct(facts: SurveyFacts): Said | undefined {
  const { all, act, bank, named, called, observed, shapeReasons, where } = facts;
  const bad = all.filter((a) => a.says === "bad");
  const size = (a: (typeof bad)[number]) => a.trim.total ?? 0;
  const [most] = bad.toSorted((a, b) => Math.abs(size(b)) - Math.abs(size(a)) || size(b) - size(a));
  if (!most) return undefined;
  const saturated = bad.some((a) => a.trim.saturated !== 0);
  const plain = `${capital(where(bad))}: ${saturated ? "at its stop, " : ""}${signed(most.trim.total ?? Number.NaN)} total, beyond ±${formatNumber(100 * act, 0)} %`;
  return {
    outcome: "fail",
    headline: named && bank ? describeBank(bank, called) : plain,
    reasons: [
      ...(named ? [] : ["the shape cannot be told: add points further apart in airflow, each held steady"]),
      ...(saturated ? ["a correction at its stop says at least this much"] : []),
      ...shapeReasons,
    ],
    ...observed,
  };
}

/** Why a survey within the bands clears nothing yet; empty where it does. */
function doubtsOf({ all, usable, act, good, visible, needed, oneFlow, where }: SurveyFacts): string[] {
  const between = all.filter((a) => a.says === "open" && a.trim.total !== undefined && !a.trim.relearning);
  return [
    all.some((a) => a.trim.total === undefined)
      ? "long-term trim was not recorded at every point: short-term alone can look fine while the long-term holds the correction"
      : undefined,
    usable.some((p) => p.banks.some((_, bank) => swings(p, bank)))
      ? "the correction swings too far to be read: hold engine speed steady, and take that point again"
      : undefined,
    all.some((a) => a.trim.relearning)
      ? "short- and long-term pull against each other: it is being learnt anew. Look again after 15 min of driving"
      : undefined,
    between.length > 0
      ? `${where(between)}: between ±${formatNumber(100 * good, 0)} and ±${formatNumber(100 * act, 0)} %: watch it, warm and after 15 min of driving`
      : undefined,
    visible > needed
      ? `a hole below ${Number.isFinite(visible) ? `${mm(visible)} mm` : "any size"} would not have shown at these points, and ${mm(needed)} mm must: take the idle too`
      : undefined,
    oneFlow ? "take at least idle and 2500 rpm, better a loaded point too" : undefined,
  ].filter((d) => d !== undefined);
}

/** Shape that a survey that is not sure yet looks like so far. */
function looksLike({ all, bank, best, named, own, oneFlow }: SurveyFacts): string {
  const pulling = all.find((a) => a.trim.relearning);
  const { long = 0, short = 0 } = pulling?.point.banks[pulling.bank] ?? {};
  if (pulling)
    return `Relearning: long-term ${formatNumber(long, 1)} %, short-term pulls it back by ${formatNumber(Math.abs(short), 1)} %. Look again after 15 min of driving`;
  if (named && bank) return `${describeBank(bank, own)}: not sure yet`;
  if (oneFlow) return "One airflow only: the shape cannot be told";
  return bank && best && best.odds < NAMED && best.id !== "none"
    ? `${describeBank(bank, own)}, at odds of only ${formatNumber(best.odds * 100, 0)} %`
    : "Within limits, not yet settled";
}

/**
 * Judges a survey. The shop's bands decide: beyond act at any counted point is faulty, good everywhere is sound if the
 * survey could have shown what must be caught, in between is not sure yet. The shape only says what it looks like.
 */
export function judgeTrims(survey: TrimSurvey, context: CheckContext): Verdict<Seen> {
  const refused = refusal(context.vehicle);
  if (refused) return voidVerdict("Trims say nothing on this vehicle", refused);
  const usable = countedPoints(survey, context);
  if (usable.length === 0) return nothingCounts(survey, context);
  const facts = factsOf(survey, usable, context);
  const base = { measures: facts.measures, zones: [] };
  const faulty = beyondAct(facts);
  if (faulty) return { ...base, ...faulty };
  const doubts = doubtsOf(facts);
  if (doubts.length > 0)
    return {
      ...base,
      outcome: "unsure",
      headline: looksLike(facts),
      reasons: [...doubts, ...facts.shapeReasons],
      ...(facts.all.some((a) => a.trim.total === undefined) ? {} : facts.observed),
    };
  return {
    ...base,
    outcome: "pass",
    headline: "Trims near zero at every point",
    reasons: [`a hole of ${mm(facts.visible)} mm or more into the manifold would have shown`, ...facts.left, SEPARATORS.none],
    observation: "trims-normal",
  };
}

const WHERE = { idle: "at idle", "1500": "at 1500 rpm", "2500": "at 2500 rpm", load: "under load" } as const;
const signed = (fraction: number) => `${fraction > 0 ? "+" : ""}${formatNumber(100 * fraction, 0)} %`;

/** Observation that the suspects weigh: the worst bank's shape; lean on one of two banks is its own observation. */
function observationFor({ banks, shared }: SurveyReading, worst: number, oneFlow: boolean): Seen | undefined {
  const reading = banks[worst];
  if (!reading || oneFlow) return undefined;
  const oneSided = banks.length === 2 && !shared && isLeanFault(banks[0]) !== isLeanFault(banks[1]);
  return oneSided && reading.fits[0]?.id === "fades-with-flow"
    ? worst === 0
      ? "lean-fades-bank-1"
      : "lean-fades-bank-2"
    : reading.observation;
}

const isLeanFault = (bank: BankReading | undefined) => bank?.observation.startsWith("lean") ?? false;

/** The bank that needs attention: named faults before unclear ones before good ones, then by idle trim. */
function worstBank(banks: readonly BankReading[]): number {
  const rank = (bank: BankReading) =>
    (bank.observation === "trims-normal" ? 0 : bank.observation === "trims-unclear" ? 1 : 2) +
    Math.min(0.9, Math.abs(bank.idleTrim));
  return banks.reduce((worst, bank, i) => (rank(bank) > rank(banks[worst] as BankReading) ? i : worst), 0);
}

const holeOf = (name: string, hole: { diameter: number; low: number; high: number }): Measure => ({
  name: capital(name),
  value: fromSi(hole.diameter, "mm") as Quantity,
  low: hole.low * 1000,
  high: hole.high * 1000,
});

function measuresOf(bank: BankReading, name: string, act: { value: number; source: string }, shared: boolean): Measure[] {
  const percent = (fraction: number) => ({ value: fraction * 100, unit: "%" as const });
  const of = (what: string) => (name ? `${name}, ${what}` : capital(what));
  const limit = `beyond ±${formatNumber(act.value * 100, 0)} % act`;
  const first = bank.points[0];
  const last = bank.points.at(-1);
  const trims: Measure[] = first
    ? [{ name: of("total trim at lowest airflow"), value: percent(first.trim), signed: true, limit, limitSource: act.source }]
    : [];
  if (last && last !== first) {
    trims.push({
      name: of("total trim at highest airflow"),
      value: percent(last.trim),
      signed: true,
      limit,
      limitSource: act.source,
    });
  }
  // A hole given per bank for one that both share is too small by the root of the banks.
  return bank.hole && !shared ? [...trims, holeOf(of("equivalent sharp-edged hole (Cd 0.61)"), bank.hole)] : trims;
}
