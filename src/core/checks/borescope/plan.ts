import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { jointName } from "../verdict";
import { AIR_VALVES } from "./candidates";

/** Into one passage, straight and from the side. */
export function planBorescope(context: CheckContext, aim: { readonly joint: string }): Plan {
  const name = jointName(context.layout, aim.joint);
  return {
    steps: [
      { text: `Engine off and cool. Into ${name}: straight first, then the mirror or side tip past the first bend.` },
      { text: "Grade each port by the share that is open. A picture of each, before and after cleaning." },
      { text: "Write down how far the tool went in at each port: the next one need not be felt for." },
      ...(AIR_VALVES.includes(aim.joint)
        ? [
            {
              text: "Cleaning ports with water: drain the exhaust, count the liquid in and out, turn the engine by hand over two turns before the starter touches it, then change oil and filter.",
            },
          ]
        : []),
      { text: "Keep debris out of open ports; count what went in." },
    ],
    displaces: [{ joint: aim.joint, what: `opened for the borescope at ${name}` }],
    cautions: ["hot-exhaust"],
    clocks: [],
  };
}
