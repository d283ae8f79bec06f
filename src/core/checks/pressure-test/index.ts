import type { CheckKind } from "../contract";
import { pressureCandidates } from "./candidates";
import { pressureClaims, pressureSetup } from "./claims";
import { chargeEntries } from "./entries";
import { type PressureTest, pressureTestFields, pressureTestForm } from "./fields";
import { judgePressureTest } from "./judge";
import { type PressureAim, planPressureTest, unfit } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";
export * from "./stage";

export const pressureTest: CheckKind<PressureTest, PressureAim, Seen> = {
  id: "pressure-test",
  name: "Boost pressure test",
  words: { pass: "Tight", fail: "Leaking" },
  aim: "Air at boost pressure into the charge side: hear it, feel it, soap it",
  engine: "standing",
  tool: "air-line",
  unfit,
  needs: ["induction", "fitted"],
  role: "measures",
  inspects: { circuit: "Charge side", minutes: 30, by: ["all"] },
  shelf: "standing",
  families: ["engine", "boost"],
  rows,
  candidates: pressureCandidates,
  sweeps: true,
  hot: { why: "the exhaust is hot: let it cool" },
  claims: pressureClaims,
  setup: pressureSetup,
  hides: (r) => [r.entry],
  fields: pressureTestFields,
  form: pressureTestForm,
  plan: planPressureTest,
  judge: judgePressureTest,
  places: ({ layout }) => chargeEntries(layout).map((j) => j.id),
  place: (r) => r.entry,
};
