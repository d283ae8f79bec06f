import { isKnown } from "../../vehicle";
import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { refusing, unless } from "../unfit";

export const unfit = unless(
  (v) => v.induction === "turbo" || !isKnown(v, "induction"),
  "This engine has no compressor: use the fuel-trim survey and the airflow check.",
);

/** A log that says something: key on, a slow run off boost, and steady pulls. */
export function planBoost(context: CheckContext): Plan {
  return {
    steps: [
      {
        text: "Log speed, MAF, manifold and charge pressure, requested boost, charge air temperature; actuator command and position, EGR and road speed where the tool has them.",
      },
      { text: "Begin with the key on and the engine standing, ten seconds: every pressure sensor shows the air outside." },
      { text: "EGR commanded shut, or its duty cycle logged: recirculated gas is no leak." },
      {
        text: "Off boost over the same speeds first: gentle, near ambient manifold pressure. The engine's volumetric efficiency is learnt there.",
        caution: "running-engine",
      },
      { text: "Then pulls in a high gear from 1500 rpm up, on a road that allows them, with a second person at the tool." },
      { text: "Where it comes late: drive on until limp mode sets in, the log running; note hiss and distance." },
    ],
    displaces: [],
    cautions: ["running-engine"],
    clocks: [],
    ...refusing(unfit, context),
  };
}
