import { ofEngine, saysOf } from "../asked";
import { type CheckKind, readingOf } from "../check";
import { vacuumCandidates } from "./candidates";
import { vacuumForm } from "./form";
import { judgeVacuum } from "./judge";
import { planVacuum } from "./plan";
import { type VacuumReading, vacuumSchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./judge";
export * from "./record";

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
  asks: (_record, verdict, { layout }) =>
    verdict.outcome === "void" ? [] : [ofEngine(layout, "vacuum@idle", "intake vacuum at idle", saysOf(verdict.outcome))],
  setup: () => ["gauge-port"],
  hides: () => ["gauge-port"],
  schema: vacuumSchema,
  form: vacuumForm,
  plan: planVacuum,
  judge: judgeVacuum,
  readings: (r) => [
    ...readingOf("intake vacuum", { ...r.vacuum, kind: "vacuum" }),
    { reading: "engine speed", value: r.rpm, unit: "1/min" },
  ],
};
