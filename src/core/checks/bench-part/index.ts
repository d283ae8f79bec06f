import type { CheckKind } from "../contract";
import { type BenchPart, benchPartFields, benchPartForm } from "./fields";
import { judgeBenchPart } from "./judge";
import { rows } from "./rows";

export * from "./fields";
export * from "./judge";

export const benchPart: CheckKind<BenchPart, unknown, never> = {
  id: "bench-part",
  name: "Removed part on the bench",
  words: { pass: "Tight", fail: "Leaking" },
  aim: "A part by itself, old or new: plugged, under regulated pressure, dipped, soaped or smoked",
  engine: "standing",
  tool: "hand-pump",
  role: "measures",
  shelf: "standing",
  rows,
  // Nobody takes a part off to learn what a check on the car tells.
  candidates: () => [],
  claims: () => [],
  irrelevant: {
    state: "the old part is tried as the new one is",
  },
  fields: benchPartFields,
  form: benchPartForm,
  plan: ({ limits }) => ({
    steps: [
      {
        text: "Plug every opening; plugs tied, nobody in line with one. Regulator down before the hose goes on.",
        caution: "compressed-air",
      },
      {
        text: `Up slowly, never above the lowest rating of part, plugs and hose, nor ${limits.boostCeiling.value / 1e5} bar gauge.`,
      },
      { text: "Under water, soaped, or filled with smoke: watch each seam, joint and crimp for half a minute." },
      { text: "Let it down before anything is taken apart. A new part passes this before it is fitted." },
    ],
    displaces: [],
    cautions: ["compressed-air"],
    clocks: [{ name: "Watch", seconds: 60 }],
  }),
  judge: judgeBenchPart,
  onBench: () => true,
};
