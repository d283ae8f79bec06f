import { type CheckContext, jointName, type Plan } from "../check";

/** Hand pump on one part. */
export function planHold(context: CheckContext, aim: { readonly joint: string }): Plan {
  const name = jointName(context.layout, aim.joint);
  return {
    steps: [
      { text: `Engine off. Pump on ${name}, gauge at zero first. Count the strokes until it moves.` },
      { text: "Stop pumping, write the vacuum down, and again after 60 s." },
      { text: "Pump up again and work the pipe ends while it holds: intermittents show only now." },
      { text: "Then its lever by hand: free over the whole way, nothing broken off." },
    ],
    displaces: [{ joint: aim.joint, what: `hose off at ${name}` }],
    cautions: [],
    clocks: [{ name: "Hold", seconds: 60 }],
  };
}
