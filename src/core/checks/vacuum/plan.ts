import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { notOnDiesel, refusing } from "../unfit";

export const unfit = notOnDiesel(
  "A diesel has no throttled manifold vacuum: hold-test the vacuum pump's lines and actuators instead.",
);

/** A gauge on a manifold port whose own hose is sound. */
export function planVacuum(context: CheckContext): Plan {
  return {
    steps: [
      { text: "Look at the port's own nipple and hose first: a leak there is what you would read.", caution: "running-engine" },
      { text: "Gauge at zero, then on the port; engine warm, idling, consumers off." },
      { text: "Read level and needle for half a minute; then snap the throttle and watch it come back." },
    ],
    displaces: [{ joint: "gauge-port", what: "cap off a manifold vacuum port" }],
    cautions: ["running-engine"],
    clocks: [],
    ...refusing(unfit, context),
  };
}
