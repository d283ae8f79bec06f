import { R_AIR } from "../../gas/air";
import { holeDiameter, SHARP_EDGED } from "../../gas/orifice";
import type { Limits } from "../../shop/limits";
import { toSi } from "../../units";
import type { VehicleFacts } from "../../vehicle";
import { type BankPoint, clustered, type OperatingPoint } from "./cluster";
import type { TrimPoint, TrimSurvey } from "./fields";
import type { Seen } from "./rows";
import {
  fitShapes,
  fitShared,
  manifoldFlux,
  type ShapeFit,
  type ShapeId,
  type SharedHole,
  type SurveyConditions,
} from "./shapes";

/** Below this an equivalent hole is not claimed, m. */
const SMALLEST_HOLE = 1e-3;
/** Odds at which a shape is named rather than hinted at. */
export const NAMED = 0.8;
/** The usual end of an ECU's correction, percent, where nobody asked and none was found: a trim here says "at least". */
const USUAL_STOP = 24.5;
/** Where ECUs stop correcting, percent, and how near it a tool shows it. */
const STOPS = [16, 20, 25, 30, 35] as const;
const NEAR_STOP = 0.8;
/** How near the stop a reading still stands at it, percent: tools round. */
const AT_STOP = 0.6;
/** Short- and long-term trim that pull against each other by this much: it is being learnt anew, percent. */
const RELEARNING = 4;
/** The same of a total between these, as a fraction: a long-term trim on its way back, and no small fault. */
const PULLS = 2;
const ON_ITS_WAY = [0.05, 0.1] as const;

export interface BankReading {
  readonly shapes: readonly { readonly id: ShapeId; readonly odds: number; readonly members: readonly string[] }[];
  readonly fits: readonly ShapeFit[];
  /** Fuelling error b of the best shape, fraction */
  readonly error: number;
  readonly hole: { readonly diameter: number; readonly low: number; readonly high: number } | null;
  readonly observation: Seen;
  /** Points used: indicated flow of this bank (kg/s) and total trim (fraction) */
  readonly points: readonly BankPoint[];
  /** Operating points between them at which the fits' curves are given, for drawing */
  readonly drawn: readonly OperatingPoint[];
  /** Total trim at the lowest flow, fraction */
  readonly idleTrim: number;
}

/** Every place or part that gives a shape; a steady survey cannot tell them apart. */
function membersOf(shape: ShapeId, vehicle: Pick<VehicleFacts, "induction">, oneBankOnly: boolean): string[] {
  switch (shape) {
    case "none":
      return ["nothing that shows in trims"];
    case "constant":
      // What both banks have in common cannot make one of them wrong.
      return oneBankOnly
        ? ["injectors of this bank", "its oxygen sensor", "exhaust air before its sensor"]
        : ["MAF", "fuel pressure", "injectors", "metered duct"];
    case "fades-with-flow":
      return [
        vehicle.induction === "turbo" ? "manifold (may reverse under boost)" : "manifold",
        "vacuum branch",
        "crankcase",
        "purge valve",
        "exhaust air before the sensor",
      ];
    case "grows-with-flow":
      return ["fuel supply limit", "fuel filter or pump", "MAF losing range"];
    case "rich-under-boost":
      return ["charge side: compressor to throttle", "MAF over-reading at high flow"];
    case "rich-fades-with-flow":
      return ["vapour through a leaking purge valve", "fuel through a pressure regulator", "dripping injector"];
    case "rich-grows-with-flow":
      return ["MAF over-reading at high flow", "fuel pressure rising with demand"];
  }
}

/** Total trim (fraction) by the house method; trims in percent. */
export const totalTrim = (short: number, long: number, method: "product" | "sum") =>
  method === "product" ? (1 + short / 100) * (1 + long / 100) - 1 : (short + long) / 100;

/** Where the ECU stops correcting, upwards and downwards, percent. */
export interface Stops {
  readonly up: number;
  readonly down: number;
}

/**
 * The stops of a survey: as asked; else an extreme that comes back exactly at several points, where ECUs stop; else the usual. Each side
 * by itself. Both banks alike at one point are one error that both share, and no stop.
 */
export function stopsOf({ stop, points }: Pick<TrimSurvey, "stop" | "points">): Stops {
  if (stop !== undefined) return { up: stop - AT_STOP, down: -stop + AT_STOP };
  const repeated = (sign: 1 | -1): number => {
    const extremes = points.map(({ banks }) =>
      Math.max(
        ...banks.flatMap(({ short, long, total }) => [short, long, total].flatMap((v) => (v === undefined ? [] : [sign * v]))),
      ),
    );
    const extreme = Math.max(...extremes);
    const often = extremes.filter((e) => e === extreme).length;
    const usual = STOPS.some((stop) => Math.abs(extreme - stop) <= NEAR_STOP);
    return usual && often >= (points.length > 8 ? 3 : 2) ? Math.min(extreme, USUAL_STOP) : USUAL_STOP;
  };
  return { up: repeated(1), down: -repeated(-1) };
}

/** A point's total trim of one bank, on which side it stands at a stop, and what makes it unfit to decide. */
export interface TrimReading {
  /** Fraction; undefined where the long-term trim is missing */
  readonly total: number | undefined;
  readonly saturated: -1 | 0 | 1;
  readonly relearning: boolean;
}

export function readTrim(point: TrimPoint, bank: number, method: "product" | "sum", stops: Stops): TrimReading {
  const { short, long, total } = point.banks[bank] as TrimPoint["banks"][number];
  const at = (v: number | undefined) => (v === undefined ? 0 : v >= stops.up ? 1 : v <= stops.down ? -1 : 0);
  // A total that only the tool added up may hide a part at its stop: beyond that stop it says "at least".
  if (total !== undefined) return { total: total / 100, saturated: at(total), relearning: false };
  const saturated = at(short) || at(long);
  const sum = long === undefined || short === undefined ? undefined : totalTrim(short, long, method);
  const least = sum !== undefined && Math.abs(sum) > ON_ITS_WAY[0] && Math.abs(sum) <= ON_ITS_WAY[1] ? PULLS : RELEARNING;
  return {
    total: sum,
    saturated,
    relearning:
      short !== undefined && long !== undefined && Math.abs(short) > least && Math.abs(long) > RELEARNING && short * long < 0,
  };
}

/** Airflow of a warm idle, kg/s per m³ of displacement, and the manifold pressure that goes with it, Pa. */
const IDLE_AIR = 1.1;
const IDLE_MAP = 35e3;

/** Conditions of a survey in SI. */
export const conditionsOf = (
  survey: Pick<TrimSurvey, "ambient" | "intakeTemperature">,
  vehicle: Pick<VehicleFacts, "induction">,
): SurveyConditions => ({
  ambient: toSi(survey.ambient),
  intakeTemperature: toSi(survey.intakeTemperature),
  induction: vehicle.induction,
});

/**
 * The smallest manifold hole that these points would have shown, m: the one that lifts some point beyond the good band
 * (y = CdA·ψ/m). Infinite without points below ambient pressure.
 */
export function smallestVisible(points: readonly OperatingPoint[], conditions: SurveyConditions, good: number): number {
  const best = Math.max(0, ...points.map((p) => manifoldFlux(p, conditions) / p.flow));
  return best > 0 ? holeDiameter(good / best / SHARP_EDGED) : Number.POSITIVE_INFINITY;
}

/** The hole that must show in a survey of this engine, m: one that takes a warm idle to the act band, at least 1 mm. */
export function mustShow(
  vehicle: Pick<VehicleFacts, "displacement">,
  conditions: SurveyConditions,
  limits: Pick<Limits, "trimAct" | "caughtManifold">,
): number {
  const idle = { flow: IDLE_AIR * toSi(vehicle.displacement), map: IDLE_MAP };
  return Math.max(limits.caughtManifold.value, smallestVisible([idle], conditions, limits.trimAct.value));
}

export interface SurveyReading {
  readonly banks: readonly BankReading[];
  /** One hole before the banks part; null where not both banks fade, or where one hole a bank is likelier */
  readonly shared: SharedHole | null;
}

/**
 * Reads a survey per bank: shapes with odds and members, fuelling error, hole; and whether two banks share one hole.
 * @param survey record as taken; @param vehicle displacement, induction; @param method house method for total trim.
 * Points whose long-term trim is missing are left out. @returns one reading per bank, in the order of the record's banks.
 */
export function readSurvey(
  survey: Pick<TrimSurvey, "ambient" | "intakeTemperature" | "points" | "stop">,
  vehicle: Pick<VehicleFacts, "induction" | "displacement">,
  method: "product" | "sum",
  limits: { good: number; act: number },
): SurveyReading {
  const conditions = conditionsOf(survey, vehicle);
  const stops = stopsOf(survey);
  const bankCount = survey.points[0]?.banks.length ?? 0;
  const points = Array.from({ length: bankCount }, (_, bank) =>
    survey.points
      .flatMap((point) => bankPoint(point, bank, bankCount, conditions, toSi(vehicle.displacement), method, stops))
      .sort((a, b) => a.flow - b.flow),
  );
  if (points.some((p) => p.length === 0)) return { banks: [], shared: null };
  const drawn = points.map((own) => between(clustered(own)));
  const fitted = points.map((own, i) => fitShapes(own, conditions, drawn[i]));
  const banks = points.map((own, i): BankReading => {
    const fits = fitted[i] as ShapeFit[];
    const best = fits[0] as ShapeFit;
    const oneBankOnly = bankCount === 2 && fitted.some((other, k) => k !== i && other[0]?.id === "none");
    const named = best.id === "fades-with-flow" && best.odds >= NAMED;
    const hole = named && best.hole && best.hole.diameter >= SMALLEST_HOLE ? best.hole : null;
    return {
      shapes: fits.map((fit) => ({ id: fit.id, odds: fit.odds, members: membersOf(fit.id, vehicle, oneBankOnly) })),
      fits,
      error: best.error,
      hole,
      observation: observationOf(best, own, limits),
      points: own,
      drawn: drawn[i] as OperatingPoint[],
      idleTrim: own[0]?.trim ?? 0,
    };
  });
  const fade = banks.length === 2 && banks.every(({ fits: [best] }) => best?.id === "fades-with-flow" && best.odds >= NAMED);
  const shared = fade ? fitShared(points, conditions) : undefined;
  return { banks, shared: shared && shared.odds >= 0.5 ? shared : null };
}

/** Operating points from the lowest to the highest flow, straight between neighbours: enough for a smooth curve. */
function between(points: readonly OperatingPoint[]): OperatingPoint[] {
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
  stops: Stops,
): BankPoint[] {
  const { total, saturated } = readTrim(point, bank, method, stops);
  if (total === undefined) return [];
  const { scatter } = point.banks[bank] as TrimPoint["banks"][number];
  const maf = toSi(point.maf);
  // η = 0.85 on manifold density; at idle the hole is choked, so the exact pressure hardly matters.
  const reckoned = (maf * R_AIR * conditions.intakeTemperature * 120) / (0.85 * displacement * point.rpm);
  const map = point.map ? toSi(point.map) : Math.min(reckoned, conditions.ambient);
  return [
    {
      flow: Math.max(maf, 1e-5) / bankCount,
      map,
      ...(point.chargePressure ? { charge: toSi(point.chargePressure) } : {}),
      trim: total,
      scatter: (scatter ?? 0) / 100,
      saturated,
    },
  ];
}

function observationOf(best: ShapeFit, points: readonly BankPoint[], limits: { good: number; act: number }): Seen {
  const worst = Math.max(...points.map((p) => Math.abs(p.trim)));
  if (best.odds < NAMED) return worst <= limits.good ? "trims-normal" : "trims-unclear";
  switch (best.id) {
    case "none":
      return worst <= limits.act ? "trims-normal" : "trims-unclear";
    case "constant":
      return best.error > 0 ? "lean-constant" : "rich-constant";
    case "fades-with-flow":
      return "lean-fades-with-flow";
    case "grows-with-flow":
      return "lean-grows-with-flow";
    default:
      return best.id;
  }
}
