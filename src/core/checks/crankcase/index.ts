import type { CheckKind } from "../contract";
import { crankcaseCandidates } from "./candidates";
import { crankcaseClaims } from "./claims";
import { type CrankcaseReading, crankcaseFields, crankcaseForm } from "./fields";
import { judgeCrankcase } from "./judge";
import { planCrankcase, unfit } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";

export const crankcase: CheckKind<CrankcaseReading, unknown, Seen> = {
  id: "crankcase",
  name: "Crankcase pressure",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Manometer on the dipstick tube: PCV diaphragm, breather, blow-by",
  engine: "warm-running",
  tool: "gauge",
  unfit,
  role: "measures",
  inspects: { circuit: "Crankcase", minutes: 10, by: ["all"] },
  shelf: "running",
  rows,
  candidates: crankcaseCandidates,
  claims: crankcaseClaims,
  setup: () => ["dipstick"],
  hides: () => ["dipstick"],
  irrelevant: {
    raised: "read at idle alone it is judged at idle",
  },
  fields: crankcaseFields,
  form: crankcaseForm,
  plan: planCrankcase,
  judge: judgeCrankcase,
};
