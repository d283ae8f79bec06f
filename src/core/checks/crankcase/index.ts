import { ofEngine, saysOf } from "../asked";
import { type CheckKind, readingOf } from "../check";
import { crankcaseCandidates } from "./candidates";
import { crankcaseForm } from "./form";
import { judgeCrankcase } from "./judge";
import { planCrankcase } from "./plan";
import { type CrankcaseReading, crankcaseSchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./judge";
export * from "./record";

export const crankcase: CheckKind<CrankcaseReading, unknown, Seen> = {
  id: "crankcase",
  name: "Crankcase pressure",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Manometer on the dipstick tube: PCV diaphragm, breather, blow-by",
  engine: "warm-running",
  role: "measures",
  shelf: "running",
  rows,
  candidates: crankcaseCandidates,
  asks: (_record, verdict, { layout }) =>
    verdict.outcome === "void"
      ? []
      : [ofEngine(layout, "pressure@crankcase", "crankcase pressure at idle", saysOf(verdict.outcome))],
  setup: () => ["dipstick"],
  hides: () => ["dipstick"],
  schema: crankcaseSchema,
  form: crankcaseForm,
  plan: planCrankcase,
  judge: judgeCrankcase,
  readings: (r) => [
    ...readingOf("crankcase pressure, idle", { ...r.idle, kind: "gauge" }),
    ...readingOf("crankcase pressure, raised speed", r.raised && { ...r.raised, kind: "gauge" }),
  ],
};
