import { R_AIR } from "../../gas/air";
import type { Limit } from "../../shop/limits";
import { formatNumber, fromSi, type Quantity, toSi } from "../../units";
import type { VehicleFacts } from "../../vehicle";
import type { CheckContext, Measure, Verdict } from "../check";
import type { TrimPoint, TrimSurvey } from "./record";
import { type BankPoint, fitShapes, type OperatingPoint, type ShapeFit, type ShapeId } from "./shapes";

/** Below this an equivalent hole is not claimed, m. */
const SMALLEST_HOLE = 1e-3;
/** Odds at which a shape is named rather than hinted at. */
const NAMED = 0.8;
/** The usual end of an ECU's correction, percent: a trim here says "at least". */
const TRIM_STOP = 24.5;

export interface BankReading {
  readonly shapes: readonly { readonly id: ShapeId; readonly odds: number; readonly members: readonly string[] }[];
  readonly fits: readonly ShapeFit[];
  /** Fuelling error b of the best shape, fraction */
  readonly error: number;
  readonly hole: { readonly diameter: number; readonly low: number; readonly high: number } | null;
  readonly observation: string;
  /** Points used: indicated flow of this bank (kg/s) and total trim (fraction) */
  readonly points: readonly BankPoint[];
  /** Operating points between them at which the fits' curves are given, for drawing */
  readonly drawn: readonly OperatingPoint[];
  /** Total trim at the lowest flow, fraction */
  readonly idleTrim: number;
}

/** Every place or part that gives a shape; a steady survey cannot tell them apart. */
function membersOf(shape: ShapeId, vehicle: Pick<VehicleFacts, "induction">): string[] {
  switch (shape) {
    case "none":
      return ["nothing that shows in trims"];
    case "constant":
      return ["air meter", "fuel pressure", "injectors", "metered duct"];
    case "fades-with-flow":
      return [
        vehicle.induction === "turbo" ? "manifold (may reverse under boost)" : "manifold",
        "vacuum branch",
        "crankcase",
        "purge valve",
        "exhaust air before the sensor",
      ];
    case "grows-with-flow":
      return ["fuel supply limit", "fuel filter or pump", "air meter losing range"];
    case "rich-under-boost":
      return ["charge side: compressor to throttle"];
  }
}

/** What would tell a shape's members apart. */
const SEPARATORS: Record<ShapeId, string> = {
  none: "Nothing to separate. If the complaint stays, it does not live in the mixture at these points.",
  constant: "Smoke or wiggle the metered duct, then fuel pressure and the air meter against what the engine breathes.",
  "fades-with-flow": "Smoke or enrichment at the joints; cap off each branch; smoke the exhaust before the sensor.",
  "grows-with-flow": "Fuel pressure under load, then the air meter against what the engine breathes.",
  "rich-under-boost": "Smoke the charge side; a point at 150 kPa absolute or more tells charge side from manifold.",
};

/** Total trim (fraction) by the house method; trims in percent. */
export const totalTrim = (short: number, long: number, method: "product" | "sum") =>
  method === "product" ? (1 + short / 100) * (1 + long / 100) - 1 : (short + long) / 100;

/** Why trims say nothing on this vehicle, and what does; undefined when they do. */
export function refusal(vehicle: Pick<VehicleFacts, "fuel" | "metering">): string | undefined {
  if (vehicle.fuel === "diesel") {
    return "A diesel has no fuel trims. What works here: smoke, the look by hand, boost asked against boost delivered.";
  }
  if (vehicle.metering === "map") {
    return "A speed-density engine meters a manifold leak, so it hardly shows in trims. What works here: idle speed, idle-air command and manifold pressure against healthy values, then smoke.";
  }
  return undefined;
}

/**
 * Reads a survey per bank: shapes with odds and members, fuelling error, hole.
 * @param survey record as taken; @param vehicle displacement, induction; @param method house method for total trim.
 * @returns one reading per bank, in the order of the record's banks.
 */
export function readSurvey(
  survey: Pick<TrimSurvey, "ambient" | "intakeTemperature" | "points">,
  vehicle: Pick<VehicleFacts, "induction" | "displacement">,
  method: "product" | "sum",
  limits: { good: number; act: number },
): BankReading[] {
  const conditions = {
    ambient: toSi(survey.ambient),
    intakeTemperature: toSi(survey.intakeTemperature),
    induction: vehicle.induction,
  };
  const bankCount = survey.points[0]?.banks.length ?? 0;
  return Array.from({ length: bankCount }, (_, bank) => {
    const points = survey.points
      .map((point) => bankPoint(point, bank, bankCount, conditions, toSi(vehicle.displacement), method))
      .sort((a, b) => a.flow - b.flow);
    const drawn = between(points);
    const fits = fitShapes(points, conditions, drawn);
    const best = fits[0] as ShapeFit;
    const hole = best.id === "fades-with-flow" && best.hole && best.hole.diameter >= SMALLEST_HOLE ? best.hole : null;
    const idleTrim = points[0]?.trim ?? 0;
    return {
      shapes: fits.map((fit) => ({ id: fit.id, odds: fit.odds, members: membersOf(fit.id, vehicle) })),
      fits,
      error: best.error,
      hole,
      observation: observationOf(best, points, limits),
      points,
      drawn,
      idleTrim,
    };
  });
}

/** Operating points from the lowest to the highest flow, straight between neighbours: enough for a smooth curve. */
function between(points: readonly BankPoint[]): OperatingPoint[] {
  const steps = Math.ceil(60 / points.length);
  return points.flatMap((a, i): OperatingPoint[] => {
    const b = points[i + 1];
    if (!b) return [a];
    return Array.from({ length: steps }, (_, k) => {
      const mix = (x: number, y: number) => x + ((y - x) * k) / steps;
      return {
        flow: mix(a.flow, b.flow),
        map: mix(a.map, b.map),
        ...(a.charge !== undefined && b.charge !== undefined ? { charge: mix(a.charge, b.charge) } : {}),
      };
    });
  });
}

function bankPoint(
  point: TrimPoint,
  bank: number,
  bankCount: number,
  conditions: { ambient: number; intakeTemperature: number },
  displacement: number,
  method: "product" | "sum",
): BankPoint {
  const { short, long, scatter } = point.banks[bank] as TrimPoint["banks"][number];
  const maf = toSi(point.maf);
  // η = 0.85 on manifold density; at idle the hole is choked, so the exact pressure hardly matters.
  const reckoned = (maf * R_AIR * conditions.intakeTemperature * 120) / (0.85 * displacement * point.rpm);
  const map = point.map ? toSi(point.map) : Math.min(reckoned, conditions.ambient);
  const saturated = short >= TRIM_STOP || long >= TRIM_STOP ? 1 : short <= -TRIM_STOP || long <= -TRIM_STOP ? -1 : 0;
  return {
    flow: Math.max(maf, 1e-5) / bankCount,
    map,
    ...(point.chargePressure ? { charge: toSi(point.chargePressure) } : {}),
    trim: totalTrim(short, long, method),
    scatter: (scatter ?? 0) / 100,
    saturated,
  };
}

function observationOf(best: ShapeFit, points: readonly BankPoint[], limits: { good: number; act: number }): string {
  const worst = Math.max(...points.map((p) => Math.abs(p.trim)));
  if (best.odds < NAMED) return worst <= limits.good ? "trims-normal" : "trims-unclear";
  switch (best.id) {
    case "none":
      return "trims-normal";
    case "constant":
      return best.error > 0 ? "lean-constant" : "rich-constant";
    case "fades-with-flow":
      return "lean-fades-with-flow";
    case "grows-with-flow":
      return "lean-grows-with-flow";
    case "rich-under-boost":
      return "rich-under-boost";
  }
}

const SHAPE_WORDS: Record<ShapeId, string> = {
  none: "trims sit near zero everywhere",
  constant: "the same error at every flow",
  "fades-with-flow": "lean at idle, fading as airflow rises: air is getting in at a fixed hole",
  "grows-with-flow": "lean that grows with airflow: fuel supply, or a meter that under-reads",
  "rich-under-boost": "quiet at idle, rich under boost: metered air is lost on the charge side",
};

/** What one bank shows, in words: "Bank 1: lean at idle …, hole about 2.0 mm (1.7 to 2.3)"; an only bank has no name. */
function describeBank(reading: BankReading, name: string): string {
  const best = reading.fits[0] as ShapeFit;
  const mm = (m: number) => formatNumber(m * 1000, 1);
  const hole = reading.hole
    ? `, a hole of about ${mm(reading.hole.diameter)} mm (${mm(reading.hole.low)} to ${mm(reading.hole.high)})`
    : "";
  const error = best.id === "constant" ? `: ${formatNumber(best.error * 100, 0)} %` : "";
  const words = `${SHAPE_WORDS[best.id]}${error}${hole}`;
  return name ? `${name}: ${words}` : `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
}

/** The trim beyond which something is wrong, by the shop's school: the strict one acts on all that is not good. */
export const trimAct = ({ limits, house }: Pick<CheckContext, "limits" | "house">): Limit =>
  house.trimLimit === "strict" ? { value: limits.trimGood.value, source: "house method: strict" } : limits.trimAct;

/** Judges a trim survey: see `readSurvey` for the numbers, the traps stand here. */
export function judgeTrims(survey: TrimSurvey, context: CheckContext): Verdict {
  const refused = refusal(context.vehicle);
  if (refused)
    return { outcome: "void", headline: "Trims say nothing on this engine", measures: [], reasons: [refused], zones: [] };
  const { limits } = context;
  const usable = survey.points.filter(
    (p) => p.closedLoop !== false && !(p.coolant && toSi(p.coolant) < limits.warmCoolant.value),
  );
  const dropped = survey.points.length - usable.length;
  if (usable.length === 0) {
    const reasons = survey.points.some((p) => p.closedLoop === false) ? ["every point was taken in open loop"] : [];
    if (survey.points.some((p) => p.coolant && toSi(p.coolant) < limits.warmCoolant.value)) {
      reasons.push(`the engine was below ${formatNumber(limits.warmCoolant.value - 273.15, 0)} °C coolant`);
    }
    return { outcome: "void", headline: "No point was taken warm and in closed loop", measures: [], reasons, zones: [] };
  }
  const act = trimAct(context);
  const bands = { good: limits.trimGood.value, act: act.value };
  const banks = readSurvey({ ...survey, points: usable }, context.vehicle, context.house.totalTrim, bands);
  const name = (i: number) => (banks.length === 1 ? "" : `Bank ${i + 1}`);
  const measures = banks.flatMap((bank, i) => measuresOf(bank, name(i), act));
  const worst = worstBank(banks);
  const reading = banks[worst] as BankReading;
  const best = reading.fits[0] as ShapeFit;
  const flows = usable.map((p) => toSi(p.maf));
  const spread = Math.max(...flows) / Math.min(...flows);
  const reasons = [
    ...(banks.length > 1 ? banks.map((bank, i) => describeBank(bank, name(i))) : []),
    ...(dropped > 0 ? [`${dropped} of ${survey.points.length} points left out: cold or open loop`] : []),
    SEPARATORS[best.id],
  ];
  const base = { measures, zones: [] };
  if (usable.length < 2 || spread < 1.6) {
    return {
      ...base,
      outcome: "unsure",
      headline: "One airflow only: the shape cannot be told",
      reasons: ["take at least idle and 2500 rpm, better a loaded point too", ...reasons],
    };
  }
  const oneSided = banks.length === 2 && isLeanFault(banks[0]) !== isLeanFault(banks[1]);
  const observation = oneSided && best.id === "fades-with-flow" ? `lean-fades-bank-${worst + 1}` : reading.observation;
  if (reading.observation === "trims-unclear") {
    return {
      ...base,
      outcome: "unsure",
      headline: `${describeBank(reading, name(worst))}, at odds of only ${formatNumber(best.odds * 100, 0)} %`,
      reasons: ["add points further apart in airflow, each held steady", ...reasons],
      observation,
    };
  }
  if (best.id === "none" || reading.observation === "trims-normal") {
    return { ...base, outcome: "pass", headline: "Trims near zero at every point", reasons, observation };
  }
  return { ...base, outcome: "fail", headline: describeBank(reading, name(worst)), reasons, observation };
}

const isLeanFault = (bank: BankReading | undefined) => bank?.observation.startsWith("lean") ?? false;

/** The bank that needs attention: named faults before unclear ones before good ones, then by idle trim. */
function worstBank(banks: readonly BankReading[]): number {
  const rank = (bank: BankReading) =>
    (bank.observation === "trims-normal" ? 0 : bank.observation === "trims-unclear" ? 1 : 2) +
    Math.min(0.9, Math.abs(bank.idleTrim));
  return banks.reduce((worst, bank, i) => (rank(bank) > rank(banks[worst] as BankReading) ? i : worst), 0);
}

function measuresOf(bank: BankReading, name: string, act: { value: number; source: string }): Measure[] {
  const percent = (fraction: number) => ({ value: fraction * 100, unit: "%" as const });
  const of = (what: string) => (name ? `${name}, ${what}` : `${what.charAt(0).toUpperCase()}${what.slice(1)}`);
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
  if (!bank.hole) return trims;
  const mm = (m: number): Quantity => fromSi(m, "mm");
  return [
    ...trims,
    {
      name: of("equivalent sharp-edged hole (Cd 0.61)"),
      value: mm(bank.hole.diameter),
      low: bank.hole.low * 1000,
      high: bank.hole.high * 1000,
    },
  ];
}
