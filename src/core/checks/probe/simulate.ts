import { holeOf, stateAt } from "../../practice/car";
import { type Bay, chosen, faultsThere, percent, type Setup, showsTo } from "../../practice/readers/bay";
import { IDLE, trimOf } from "../../practice/readers/running";
import { spotsOf } from "./candidates";
import type { ProbeRecord } from "./fields";

/** Gas that is drawn in burns for a share of its own flow. */
const ENRICHES = 55;

export const simulate = (bay: Bay, setup: Setup): ProbeRecord => {
  const { car, noise } = bay;
  const spots = chosen<readonly string[]>(setup, "spots", spotsOf(car.context.layout));
  const agent = chosen(setup, "agent", "gas");
  const idle = stateAt(car, IDLE);
  const sucked = (joint: string) => {
    const fault = faultsThere(bay, joint)[0];
    const hole = fault && holeOf(fault, car.context.vehicle);
    if (!hole || !showsTo(car, fault, "probe")) return 0;
    const leak = idle.air - idle.meter;
    return Math.min(12, ENRICHES * Math.max(0, leak / Math.max(1e-6, idle.air))) * (agent === "gas" ? 1 : 0.5);
  };
  const speed = 740;
  return {
    agent,
    source: { kind: "typed" },
    closedLoop: true,
    taps: spots.map((joint) => {
      const before = trimOf(idle) + noise.normal(0.8);
      const reacts = sucked(joint);
      return {
        joint,
        typed: {
          trimBefore: percent(before),
          trimAfter: percent(before - reacts + noise.normal(0.6)),
          rpmBefore: Math.round(speed + noise.normal(5)),
          rpmAfter: Math.round(speed + reacts * 4 + noise.normal(6)),
        },
      };
    }),
  };
};
