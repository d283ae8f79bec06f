import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { jointName } from "../verdict";

/** Hand pump on one part. */
export function planHold(context: CheckContext, aim: { readonly joint: string }): Plan {
  const name = jointName(context.layout, aim.joint);
  const supply = context.layout.joints.filter((j) => j.from === "vacuum-supply");
  const shared = supply.some((j) => j.id === aim.joint) && supply.filter((j) => j.to !== "outside").length > 1;
  return {
    steps: [
      { text: `Engine off. Pump on ${name}, gauge at zero first. Count the strokes until it moves.` },
      { text: "Stop pumping, write the vacuum down, and again after 60 s." },
      { text: "Pump up again and work the pipe ends while it holds: intermittents show only now." },
      { text: "Then its lever by hand: free over the whole way, nothing broken off." },
      { text: "Where it moves: the vacuum it starts at and is full at, and that it goes back to its stop at once when let go." },
      ...(shared
        ? [
            {
              text: "A supply that loses its vacuum: shut one branch off at a time and hold again. What changes with a branch off confirms or clears it. Each is a diagnostic bypass: undone before anything else.",
              caution: "emission-devices" as const,
            },
          ]
        : []),
    ],
    displaces: [{ joint: aim.joint, what: `hose off at ${name}` }],
    cautions: shared ? ["emission-devices"] : [],
    clocks: [{ name: "Hold", seconds: 60 }],
  };
}
