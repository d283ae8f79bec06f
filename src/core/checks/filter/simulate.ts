import { R_AIR } from "../../gas/air";
import { hasTrait, stateAt } from "../../practice/car";
import type { Driving } from "../../practice/engine-truth";
import { type Bay, shown, showsTo } from "../../practice/readers/bay";
import { held, IDLE, meterOf, rpmOf } from "../../practice/readers/running";
import type { FilterRecord } from "./fields";

/** Sound filter's pressure difference at 3000 1/min without load, Pa, and what soot makes of it. */
const FILTER = 2800;

export const simulate = (bay: Bay): FilterRecord => {
  const { car, noise } = bay;
  const pipe = hasTrait(car, "filter-pipe");
  const loaded = hasTrait(car, "filter-loaded");
  const broken = hasTrait(car, "filter-broken");
  const lies = hasTrait(car, "filter-sensor");
  const factor = loaded ? 3.2 + 3 * loaded.size : 1;
  const offset = lies ? 500 + 900 * lies.size : 0;
  const flowAt = (driving: Driving, kelvin: number) => (stateAt(car, driving).meter * R_AIR * kelvin) / car.ambient;
  const most = flowAt(held(3000), 473);
  const at = (driving: Driving, kelvin: number) => {
    // Viscosity grows with temperature about as its 0.7th power.
    const share = (flowAt(driving, kelvin) / most) * (kelvin / 473) ** 0.7;
    const real = FILTER * factor * share * (0.85 + 0.15 * share);
    const reaches = broken || pipe ? 0.03 : 1;
    const state = stateAt(car, driving);
    return {
      rpm: rpmOf(bay, state),
      pressure: shown(Math.max(0, real * reaches) + offset + noise.normal(25), "hPa", 0.5, "gauge"),
      ...(car.context.vehicle.metering === "maf" ? { maf: meterOf(bay, state) } : {}),
      exhaustTemperature: shown(kelvin + noise.normal(4), "°C", 1),
    };
  };
  const seen =
    pipe && showsTo(car, pipe, "eye") ? (pipe.cause.joint === "filter-pipe-front" ? "front-bad" : "rear-bad") : "sound";
  return {
    keyOn: shown(offset + noise.normal(25), "hPa", 0.5, "gauge"),
    idle: at(IDLE, 395),
    held: at(held(3000), 473),
    division: { value: 0.5, unit: "hPa", kind: "gauge" },
    egr: "shut",
    pipes: seen,
    warm: true,
  };
};
