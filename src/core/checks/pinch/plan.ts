import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { jointName } from "../verdict";

/** Shut a branch off and watch the reading: both the hose side and the port side. */
export function planPinch(
  context: CheckContext,
  aim: { readonly joint?: string | undefined; readonly how: "pinch" | "cap" },
): Plan {
  const name = aim.joint ? jointName(context.layout, aim.joint) : "the branch";
  const capped = aim.how === "cap";
  return {
    steps: [
      { text: "Read first, with everything as it is: that is the before.", caution: "running-engine" },
      {
        text: capped
          ? `Take ${name} off and cap the port; then cap the hose side too. Prove the cap on a port known to hold.`
          : `Pinch ${name} with smooth clamps close to the manifold. Prove the clamp: two of them change nothing more.`,
      },
      { text: "Wait until the reading settles (trims: half a minute), write it down, release, and see it come back." },
    ],
    displaces: aim.joint ? [{ joint: aim.joint, what: `${capped ? "cap" : "clamp"} on ${name}` }] : [],
    cautions: ["running-engine", "hot-exhaust"],
    clocks: [],
  };
}
