import { pointedAt } from "../claim";
import type { CheckKind } from "../contract";
import { refusal } from "../trims";
import { pinchCandidates } from "./candidates";
import { PINCH_READ_NAMES, type PinchRecord, pinchFields, pinchForm } from "./fields";
import { behind, judgePinch } from "./judge";
import { planPinch } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";

export const pinch: CheckKind<PinchRecord, { readonly joint?: string | undefined; readonly how: "pinch" | "cap" }, Seen> = {
  id: "pinch",
  name: "Pinch or cap off",
  words: { pass: "No change", fail: "Leaking" },
  aim: "Shut one branch off and see the reading recover: that confirms",
  engine: "warm-running",
  tool: "hands",
  role: "locates",
  shelf: "running",
  rows,
  candidates: pinchCandidates,
  claims: (record, verdict, { layout, vehicle }) =>
    verdict.outcome === "fail" || verdict.outcome === "pass"
      ? [
          pointedAt(layout, behind(layout, record.joint), {
            banks: vehicle.banks,
            trims: refusal(vehicle) === undefined,
            by: "pinch",
            says: verdict.outcome === "fail" ? "bad" : "good",
          }),
        ]
      : [],
  byPart: true,
  setup: (r) => [r.joint],
  fields: pinchFields,
  form: pinchForm,
  plan: planPinch,
  judge: judgePinch,
  readings: (r) =>
    (["before", "shut", "released"] as const).map((state, point) => ({
      reading: `${PINCH_READ_NAMES[r.reads].toLowerCase()}, ${state}`,
      value: r[state],
      unit: r.unit ?? (r.reads === "trim" ? "%" : "rpm"),
      point,
    })),
  places: ({ layout }) =>
    layout.joints
      .filter((j) => (j.kind === "seal" && j.id !== "exhaust-gasket") || (j.kind === "valve" && j.weeps))
      .map((j) => j.id),
  place: (r) => r.joint,
};
