import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { fittedWith, refusing } from "../unfit";

export const unfit = fittedWith("runner-flaps", "No runner flaps are entered for this vehicle.");

/** Supply, solenoid, diaphragm, shaft: one link after the other. */
export function planChain(context: CheckContext): Plan {
  return {
    steps: [
      { text: "Engine idling: gauge at the solenoid's inlet first.", caution: "running-engine" },
      { text: "Command it: voltage across the solenoid, then vacuum at its outlet." },
      { text: "Engine off: hand pump on diaphragm with its pipe; hold 60 s." },
      { text: "Shaft by hand, then movement on command, then the plates by mirror or borescope." },
      { text: "Stop at the first link that is broken: mend it, then begin again at the top." },
    ],
    displaces: [{ joint: "flap-pipe", what: "vacuum pipe off at the actuator" }],
    cautions: ["running-engine"],
    clocks: [{ name: "Command times out", seconds: context.limits.outputTime.value }],
    ...refusing(unfit, context),
  };
}
