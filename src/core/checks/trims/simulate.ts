import { stateAt } from "../../practice/car";
import type { Driving } from "../../practice/engine-truth";
import { type Bay, percent, shown } from "../../practice/readers/bay";
import { airOf, ambientOf, held, IDLE, mapOf, meterOf, rpmOf } from "../../practice/readers/running";
import type { TrimSurvey } from "./fields";

const TRIM = 0.9;

/** Trims at idle, held without load, cruising and at full pull. */
export const simulate = (bay: Bay): TrimSurvey => {
  const { car, noise } = bay;
  const points: Driving[] = [
    IDLE,
    held(1500),
    held(2500),
    { road: { rpm: 2200, map: 0.62 * car.ambient } },
    { road: { rpm: 3400 } },
  ];
  const turbo = car.context.vehicle.induction === "turbo";
  return {
    source: { kind: "typed" },
    ambient: ambientOf(bay),
    intakeTemperature: airOf(bay),
    points: points.map((driving) => {
      const state = stateAt(car, driving);
      return {
        rpm: rpmOf(bay, state),
        maf: meterOf(bay, state),
        map: mapOf(bay, state),
        ...(turbo ? { chargePressure: shown(state.charge + noise.normal(150), "kPa", 0.1, "absolute") } : {}),
        coolant: shown(363, "°C", 1),
        closedLoop: true,
        banks: state.trims.map((t) => ({ short: 0, long: percent(100 * t + noise.normal(TRIM)) })),
      };
    }),
  };
};
