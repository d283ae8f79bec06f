import { hasTrait, stateAt } from "../../practice/car";
import { type Bay, gaugeIn, shown } from "../../practice/readers/bay";
import { ambientOf, IDLE, rpmOf, WIDE } from "../../practice/readers/running";
import type { VacuumReading } from "./fields";

export const simulate = (bay: Bay): VacuumReading => {
  const { car, noise } = bay;
  const idle = stateAt(car, IDLE);
  const worn = hasTrait(car, "engine-mechanical");
  return {
    vacuum: shown(car.ambient - idle.map + noise.normal(800), "inHg", 0.1, "vacuum"),
    rpm: rpmOf(bay, idle),
    needle: worn && worn.size > 0.4 ? "regular-flick" : hasTrait(car, "idle-control") ? "drifting" : "steady",
    // The pedal is snapped without load: a turbocharger makes no boost in it.
    snap:
      stateAt(car, { road: { rpm: WIDE, map: 0.97 * car.ambient } }).front > 1.35 * car.ambient
        ? "slow-return"
        : "drops-and-overshoots",
    portSound: true,
    warm: true,
    instrument: gaugeIn("inHg", 0.1),
    ambient: ambientOf(bay),
  };
};
