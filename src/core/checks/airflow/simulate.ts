import { stateAt } from "../../practice/car";
import type { Driving } from "../../practice/engine-truth";
import type { Bay } from "../../practice/readers/bay";
import { airOf, ambientOf, IDLE, mapOf, meterOf, rpmOf, WIDE } from "../../practice/readers/running";
import type { AirflowRecord } from "./fields";

export const simulate = (bay: Bay): AirflowRecord => {
  const { car } = bay;
  const metered = car.context.vehicle.metering === "maf";
  const point = (state: "idle" | "wide-open", driving: Driving) => {
    const at = stateAt(car, driving);
    return { state, rpm: rpmOf(bay, at), ...(metered ? { maf: meterOf(bay, at) } : {}), map: mapOf(bay, at) };
  };
  return {
    source: { kind: "typed" },
    points: [point("idle", IDLE), point("wide-open", { road: { rpm: WIDE } })],
    ambient: ambientOf(bay),
    intakeTemperature: airOf(bay),
    warm: true,
  };
};
