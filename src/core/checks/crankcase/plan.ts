import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { fittedWith, refusing } from "../unfit";

export const unfit = fittedWith("pcv", "No crankcase ventilation is entered for this vehicle.");

/** Manometer on the dipstick tube. */
export function planCrankcase(context: CheckContext): Plan {
  return {
    steps: [
      { text: "Engine warm and idling; oil cap on. Manometer at zero in free air.", caution: "running-engine" },
      { text: "Dipstick out, hose sealed round its tube. Read the sign first: suction is negative." },
      { text: "Raise to 2500 rpm and read again: blow-by grows, a blocked breather too." },
      {
        text: context.vehicle.crankcaseBand
          ? "Compare with the engine's own band."
          : "Enter the maker's band with the vehicle: without it only the sign can be judged.",
      },
    ],
    displaces: [{ joint: "dipstick", what: "dipstick out of its tube" }],
    cautions: ["running-engine"],
    clocks: [],
    ...refusing(unfit, context),
  };
}
