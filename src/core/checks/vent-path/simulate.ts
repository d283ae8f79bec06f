import { holeArea, SHARP_EDGED } from "../../gas/orifice";
import { hasTrait } from "../../practice/car";
import { VENT } from "../../practice/monitors";
import { type Bay, shown } from "../../practice/readers/bay";
import { VENT_PARTS, type VentPart } from ".";
import type { VentPathRecord } from "./fields";

/** Blown through, from outside in, by a steady flow. */
const BLOWN = 1.7e-4;

export const simulate = (bay: Bay): VentPathRecord => {
  const { car, noise } = bay;
  const blocked = (part: VentPart) =>
    car.faults.some((f) => f.cause.trait === "vent-blocked" && (f.cause.joint === part || f.cause.device === part));
  return {
    nozzle: hasTrait(car, "vent-blocked") ? "clicks-off" : "fills",
    parts: VENT_PARTS.filter((part) => car.context.layout.joints.some((j) => j.id === part)).map((part) => {
      const opening = blocked(part) ? 2.5e-3 : VENT + noise.normal(3e-4);
      const back = 0.5 * 1.2 * (BLOWN / (SHARP_EDGED * holeArea(opening))) ** 2;
      return { part, flow: { value: 10, unit: "L/min" }, back: shown(back, "inH2O", 0.01, "gauge") };
    }),
    ambient: shown(car.ambient, "hPa", 1, "absolute"),
    temperature: shown(car.temperature, "°C", 1),
  };
};
