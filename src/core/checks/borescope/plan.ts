import { type CheckContext, jointName, type Plan } from "../check";

/** Into one passage, straight and from the side. */
export function planBorescope(context: CheckContext, aim: { readonly joint: string }): Plan {
  const name = jointName(context.layout, aim.joint);
  return {
    steps: [
      { text: `Engine off and cool. Into ${name}: straight first, then the mirror or side tip past the first bend.` },
      { text: "Grade each port by the share that is open. A picture of each, before and after cleaning." },
      { text: "Keep debris out of open ports; count what went in." },
    ],
    displaces: [{ joint: aim.joint, what: `opened for the borescope at ${name}` }],
    cautions: ["hot-exhaust"],
    clocks: [],
  };
}
