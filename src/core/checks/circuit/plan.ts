import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { jointName } from "../verdict";
import { pinsOf, type Wiring } from "./pins";

/** Pin by pin from the battery to the load. */
export function planCircuit(
  context: CheckContext,
  aim: { readonly joint: string; readonly wiring: Wiring; readonly switched: "ground" | "feed"; readonly pierced: boolean },
): Plan {
  const name = jointName(context.layout, aim.joint);
  return {
    steps: [
      { text: "Meter across the battery terminals first: every reading is held against it." },
      ...pinsOf(aim.wiring, aim.switched).map((p) => ({ text: `${p.name}: ${p.how}.` })),
      { text: "Back-probe rather than pierce; stop at the first pin that is wrong." },
    ],
    displaces: [
      { joint: aim.joint, what: `${name} unplugged` },
      ...(aim.pierced ? [{ joint: aim.joint, what: `wire pierced at ${name}, not sealed` }] : []),
    ],
    cautions: aim.pierced ? ["running-engine", "wire-piercing"] : ["running-engine"],
    clocks: [],
  };
}
