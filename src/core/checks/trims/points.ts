import { R_AIR } from "../../gas/air";
import { toSi } from "../../units";
import type { PointClass } from "../claim";
import type { CheckContext } from "../context";
import type { TrimPoint, TrimSurvey } from "./fields";

/** An engine that breathes this share of what it sweeps at ambient density is loaded. */
const LOADED = 0.45;
/** At idle even a large leak fills it no further than this. */
const LOADED_AT_IDLE = 0.6;
/** Where a class of operating points ends, 1/min. A leak moves the idle: 1100 is still one. */
const IDLE_ENDS = 1150;
const LOW_ENDS = 2000;
const HIGH_ENDS = 3600;

/**
 * Which of the usual points of a survey this is. Filling η = ṁ/(ρ·V_d·n/120) on ambient density (four-stroke speed-density,
 * Heywood 1988, eq. 2.27) tells loaded from free; speed tells the rest. Own bounds.
 * @param engine displacement m³, ambient Pa absolute, temperature K.
 */
function pointClass(
  point: Pick<TrimPoint, "rpm" | "maf">,
  engine: { readonly displacement: number; readonly ambient: number; readonly temperature: number },
): PointClass {
  const swept = ((engine.ambient / (R_AIR * engine.temperature)) * engine.displacement * point.rpm) / 120;
  const filling = toSi(point.maf) / swept;
  if (point.rpm < IDLE_ENDS && filling < LOADED_AT_IDLE) return "idle";
  if (filling >= LOADED || point.rpm >= HIGH_ENDS) return "load";
  return point.rpm < LOW_ENDS ? "1500" : "2500";
}

/** An engine breathes no more than this share of what it sweeps at the density before it, wide open; own estimate. */
const WIDE_OPEN = 0.9;

/**
 * Calculated load, share of what the engine breathes wide open at that speed (SAE J1979, service 01, 04): its filling over `WIDE_OPEN`
 * of the density that its blower can make. Within ±0.1 of what an ECU shows.
 */
export function loadAt(
  point: Pick<TrimPoint, "rpm" | "maf">,
  { ambient, intakeTemperature }: Pick<TrimSurvey, "ambient" | "intakeTemperature">,
  { vehicle }: Pick<CheckContext, "vehicle">,
): number {
  const density = toSi(ambient) / (R_AIR * toSi(intakeTemperature));
  const filling = toSi(point.maf) / ((density * toSi(vehicle.displacement) * point.rpm) / 120);
  const blown = vehicle.induction === "turbo" ? 1 + (vehicle.maxBoost ? toSi(vehicle.maxBoost) : USUAL_BOOST) / toSi(ambient) : 1;
  return Math.min(1, filling / (WIDE_OPEN * blown));
}
/** Boost of a blower where nobody said, Pa gauge. */
const USUAL_BOOST = 80e3;

/** Class of each point of a survey, in its order. */
export const classesOf = (
  survey: Pick<TrimSurvey, "ambient" | "intakeTemperature" | "points">,
  { vehicle }: Pick<CheckContext, "vehicle">,
): PointClass[] => {
  const engine = {
    displacement: toSi(vehicle.displacement),
    ambient: toSi(survey.ambient),
    temperature: toSi(survey.intakeTemperature),
  };
  return survey.points.map((p) => pointClass(p, engine));
};
