import { holeOf } from "../../practice/car";
import { type Bay, faultsThere, gaugeIn, leftIn, percent } from "../../practice/readers/bay";
import { fromSi } from "../../units";
import type { CapRecord } from "./fields";

/** Gas space of a cap on its tester, m³. */
const TESTER = 1e-3;

export const simulate = (bay: Bay): CapRecord => {
  const { car } = bay;
  const leak = faultsThere(bay, "filler-cap", "vapour-leak")[0];
  const left = leak ? leftIn(car, TESTER, holeOf(leak, car.context.vehicle), 7500, 10) : 7480;
  return {
    part: "fitted",
    start: 30,
    end: percent(Math.max(0, fromSi(left, "inH2O").value), 0.1),
    seconds: 10,
    unit: "inH2O",
    testerProved: true,
    seal: leak && leak.size > 0.6 ? "cracked" : "whole",
    instrument: gaugeIn("inH2O", 0.1),
  };
};
