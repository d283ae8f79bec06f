import { atomOf, ofEngine, saysOf } from "../claim";
import type { CheckKind } from "../contract";
import { vacuumCandidates } from "./candidates";
import { type VacuumReading, vacuumFields, vacuumForm } from "./fields";
import { judgeVacuum } from "./judge";
import { planVacuum } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";

export const vacuum: CheckKind<VacuumReading, unknown, Seen> = {
  id: "vacuum",
  name: "Intake vacuum",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Gauge on the manifold: level, needle and snap",
  engine: "warm-running",
  role: "measures",
  shelf: "running",
  rows,
  candidates: vacuumCandidates,
  claims: (_record, verdict, { layout }) =>
    verdict.outcome === "void"
      ? []
      : [ofEngine(layout, atomOf("vacuum", "idle"), "intake vacuum at idle", saysOf(verdict.outcome))],
  setup: () => ["gauge-port"],
  hides: () => ["gauge-port"],
  fields: vacuumFields,
  form: vacuumForm,
  plan: planVacuum,
  judge: judgeVacuum,
};
