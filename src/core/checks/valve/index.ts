import { FAMILY_IDS } from "../../faults";
import { electricOf } from "../commanded";
import type { CheckKind } from "../contract";
import { valveCandidates } from "./candidates";
import { valveClaims } from "./claims";
import { type Power, type ValveRecord, valveFields, valveForm } from "./fields";
import { judgeValve } from "./judge";
import { planValve } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";

export const valve: CheckKind<
  ValveRecord,
  { readonly joint: string; readonly part?: "fitted" | "new"; readonly power: Power; readonly rests: "closed" | "open" },
  Seen
> = {
  id: "valve",
  name: "Valve, two states",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Rest and energised: holds where it must, passes where it must",
  engine: "standing",
  tool: "hand-pump",
  role: "measures",
  shelf: "standing",
  // A seat that holds warm is still to be tried cold.
  repeats: (verdict) => verdict.observation === "valve-good-warm",
  families: FAMILY_IDS,
  rows,
  candidates: valveCandidates,
  claims: valveClaims,
  byPart: true,
  setup: (r) => [r.joint],
  ownCommands: (r) => [r.joint],
  irrelevant: {
    clicked: "a click proves the coil, not the seat",
    "energised.seconds": "a valve that passes does so at once",
    temperature: "its seat warm and cold are asked apart",
  },
  fields: valveFields,
  form: valveForm,
  plan: planValve,
  judge: judgeValve,
  readings: (r) =>
    (["rest", "energised"] as const).flatMap((name, point) => {
      const state = r[name];
      if (!state) return [];
      return [
        { reading: `put on, ${name}`, value: state.start, unit: r.unit, point, seconds: 0 },
        { reading: `left, ${name}`, value: state.end, unit: r.unit, point, seconds: state.seconds },
      ];
    }),
  places: ({ layout }) => electricOf(layout).filter((id) => layout.joints.some((j) => j.id === id && j.kind === "valve")),
  place: (r) => r.joint,
  onBench: (r) => r.part === "new",
};
