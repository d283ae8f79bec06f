import { stateAt } from "../../practice/car";
import type { Driving } from "../../practice/engine-truth";
import { type Bay, gaugeIn, shown } from "../../practice/readers/bay";
import { held, IDLE } from "../../practice/readers/running";
import type { BackPressure } from "./fields";

export const simulate = (bay: Bay): BackPressure => {
  const { car, noise } = bay;
  const at = (driving: Driving, more = 1) =>
    shown(Math.max(0, (stateAt(car, driving).front - car.ambient) * more + noise.normal(150)), "kPa", 0.1, "gauge");
  return {
    idle: at(IDLE),
    raised: at(held(2500)),
    snap: at({ road: { rpm: 2500, map: 0.7 * car.ambient } }),
    warm: true,
    instrument: gaugeIn("kPa", 0.2),
  };
};
