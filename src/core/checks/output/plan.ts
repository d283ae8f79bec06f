import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { jointName } from "../verdict";

/** One output commanded from the scan tool. */
export function planOutput(context: CheckContext, aim: { readonly joint: string; readonly limit: number }): Plan {
  const name = jointName(context.layout, aim.joint);
  return {
    steps: [
      { text: "Re-arm the tool: key cycle or engine start, as it asks." },
      { text: `Command ${name}. It goes on the list of what is off the car until it is released.` },
      { text: `Watch within ${aim.limit} s: after that most commands time out.` },
      { text: "Release it before anything else is judged." },
    ],
    displaces: [{ joint: aim.joint, what: `${name} commanded`, commanded: true }],
    cautions: ["running-engine"],
    clocks: [{ name: "Command times out", seconds: aim.limit }],
  };
}
