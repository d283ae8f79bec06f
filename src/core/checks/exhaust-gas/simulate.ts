import { hasTrait, stateAt } from "../../practice/car";
import type { Driving } from "../../practice/engine-truth";
import { type Bay, chosen, percent, type Setup } from "../../practice/readers/bay";
import { dryExhaust } from "../../practice/readers/gas";
import { held, IDLE } from "../../practice/readers/running";
import { burntFuel } from "../../vehicle";
import type { GasRecord } from "./fields";

export const simulate = (bay: Bay, setup: Setup): GasRecord => {
  const { car, noise } = bay;
  const unburnt = hasTrait(car, "engine-mechanical") ? 0.025 : 0;
  const lies = hasTrait(car, "sensor-bias");
  const point = (driving: Driving) => {
    const state = stateAt(car, driving);
    // Closed loop holds λ 1 where the sensor is: false air there is answered with fuel, and a sensor that reads lean likewise.
    const rich = lies ? 0.08 + 0.1 * lies.size : state.falseAir / (1 + state.falseAir);

    const burnt = dryExhaust(1 - rich, lies ? 0 : state.falseAir, unburnt);
    const show = (value: number, sd: number, division: number) => percent(Math.max(0, value + noise.normal(sd)), division);
    return {
      co: show(burnt.co + 0.08, 0.02, 0.01),
      co2: show(burnt.co2 - 0.3, 0.1, 0.1),
      o2: show(burnt.o2 + 0.12, 0.05, 0.01),
      hc: Math.round(Math.max(0, burnt.hc + 30 + noise.normal(6))),
      ecuLambda: percent(1 + noise.normal(0.004), 0.001),
    };
  };
  return {
    fuel: burntFuel(car.context.vehicle),
    idle: point(IDLE),
    raised: point(held(2500)),
    loop: "closed",
    probe: chosen(setup, "probe", "deep"),
    zeroed: true,
    warm: true,
  };
};
