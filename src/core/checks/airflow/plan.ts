import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { notOnDiesel, refusing } from "../unfit";

export const unfit = notOnDiesel(
  "A diesel idles unthrottled: compare its MAF with the maker's figure at the same speed instead.",
);

/** Idle and one wide-open pull; disturbs nothing. */
export function planAirflow(context: CheckContext): Plan {
  const { vehicle } = context;
  return {
    steps: [
      { text: "Engine warm. Log RPM, MAF, manifold pressure and throttle.", caution: "running-engine" },
      { text: "Half a minute of idle." },
      {
        text: "On the road or the rollers: one pull in a middle gear, throttle wide open, from 2000 to 4500 rpm.",
      },
      ...(vehicle.metering === "map"
        ? [{ text: "No MAF here: manifold pressure at wide open throttle shows a restriction by itself." }]
        : []),
      { text: "Cheap things first: look at the filter before anything is measured twice." },
    ],
    displaces: [],
    cautions: ["running-engine"],
    clocks: [],
    ...refusing(unfit, context),
  };
}
