import { FAMILY_IDS } from "../../faults";
import type { CheckKind } from "../contract";
import { holdCandidates, PUMPED } from "./candidates";
import { holdClaims } from "./claims";
import { type HoldRecord, holdFields, holdForm } from "./fields";
import { judgeHold } from "./judge";
import { planHold } from "./plan";
import { rows, type Seen } from "./rows";
import { sharedSupply } from "./shared";

export * from "./fields";
export * from "./judge";
export * from "./loss";

export const hold: CheckKind<HoldRecord, { readonly joint: string }, Seen> = {
  id: "hold",
  name: "Hold test",
  words: { pass: "Tight", fail: "Faulty" },
  aim: "Hand pump on one part: moves, holds, still holds while wiggled",
  engine: "standing",
  tool: "hand-pump",
  role: "measures",
  shelf: "standing",
  families: FAMILY_IDS,
  rows,
  candidates: holdCandidates,
  claims: holdClaims,
  together: sharedSupply,
  byPart: true,
  setup: (r) => [r.joint, ...(r.isolated ?? [])],
  irrelevant: {
    freeByHand: "it matters where something is to move",
    moved: "it matters where something is to move",
    strokes: "it matters where something is to move",
  },
  fields: holdFields,
  form: holdForm,
  plan: planHold,
  judge: judgeHold,
  places: ({ layout }) =>
    layout.joints
      .filter((j) => PUMPED.includes(j.from) || j.pinchable === true || (j.rest === "one-way" && PUMPED.includes(j.to)))
      .map((j) => j.id),
  place: (r) => r.joint,
};
