import { atomOf, ofEngine, saysOf } from "../claim";
import type { CheckKind } from "../contract";
import { vacuumCandidates } from "./candidates";
import { type VacuumReading, vacuumFields, vacuumForm } from "./fields";
import { judgeVacuum } from "./judge";
import { planVacuum, unfit } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";

export const vacuum: CheckKind<VacuumReading, unknown, Seen> = {
  id: "vacuum",
  name: "Intake vacuum",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Gauge on the manifold: level, needle and snap",
  engine: "warm-running",
  tool: "gauge",
  unfit,
  role: "measures",
  shelf: "running",
  rows,
  candidates: vacuumCandidates,
  // What failed by the snap is answered by a snap, and by no steady needle.
  claims: ({ snap }, verdict, { layout }) => {
    if (verdict.outcome === "void") return [];
    const slow = snap === "slow-return";
    return [
      ofEngine(layout, atomOf("vacuum", "idle"), "intake vacuum at idle", slow ? "open" : saysOf(verdict.outcome)),
      ...(snap === "not-tried"
        ? []
        : [ofEngine(layout, atomOf("vacuum", "snap"), "intake vacuum after a snap", slow ? "bad" : "good")]),
    ];
  },
  setup: () => ["gauge-port"],
  hides: () => ["gauge-port"],
  irrelevant: {
    snap: "needle and level decide; a snap tells of the exhaust",
  },
  fields: vacuumFields,
  form: vacuumForm,
  plan: planVacuum,
  judge: judgeVacuum,
};
