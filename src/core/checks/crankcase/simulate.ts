import { hasTrait, stateAt } from "../../practice/car";
import { type Bay, gaugeIn, shown } from "../../practice/readers/bay";
import { IDLE, rpmOf } from "../../practice/readers/running";
import type { CrankcaseReading } from "./fields";

/** Crankcase pressure by what goes in past the rings and what draws it out, Pa gauge: the breather's suction, or too much of the manifold's. */
export const simulate = (bay: Bay): CrankcaseReading => {
  const { car, noise } = bay;
  const at = (raised: boolean) => {
    const passes = hasTrait(car, "pcv-passes");
    if (passes) return -(2600 + 2400 * passes.size) * (raised ? 0.8 : 1);
    const worn = hasTrait(car, "engine-mechanical");
    const blocked = hasTrait(car, "crankcase-blocked");
    const blowBy = worn ? 80 + 420 * worn.size : 0;
    const vented = hasTrait(car, "crankcase-leak") ? 0.35 : 1;
    return (blocked ? 300 + 500 * blocked.size : -330 * vented) + blowBy * (raised ? 1.8 : 1);
  };
  return {
    idle: shown(at(false) + noise.normal(40), "hPa", 0.1, "gauge"),
    raised: shown(at(true) + noise.normal(40), "hPa", 0.1, "gauge"),
    rpm: rpmOf(bay, stateAt(car, IDLE)),
    warm: true,
    sealed: true,
    instrument: gaugeIn("hPa", 0.1, "Manometer"),
  };
};
