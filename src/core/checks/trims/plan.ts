import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { refusal } from "./judge";

/** Steps of a fuel-trim survey; disturbs nothing. */
export function planTrims(context: CheckContext): Plan {
  const refused = refusal(context.vehicle);
  const load =
    context.vehicle.induction === "turbo" ? "a steady pull with boost at 150 kPa absolute or more" : "a steady pull under load";
  return {
    steps: [
      { text: "Warm the engine up to 75 °C coolant or more; closed loop; consumers off.", caution: "running-engine" },
      { text: "Log RPM, MAF, MAP, coolant, loop state and short- and long-term trim of each bank." },
      { text: "Hold each point steady for 5 s or longer: idle, 1500 rpm, 2500 rpm without load." },
      { text: `On the road or the rollers: a steady cruise, then ${load}.` },
    ],
    displaces: [],
    cautions: ["running-engine"],
    clocks: [],
    ...(refused ? { refused } : {}),
  };
}
