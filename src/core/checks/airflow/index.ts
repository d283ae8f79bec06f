import { atomOf, ofEngine, saysOf } from "../claim";
import type { CheckKind } from "../contract";
import { airflowCandidates } from "./candidates";
import { type AirflowRecord, airflowFields, airflowForm } from "./fields";
import { judgeAirflow } from "./judge";
import { planAirflow, unfit } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./extract";
export * from "./fields";
export * from "./judge";

export const airflow: CheckKind<AirflowRecord, unknown, Seen> = {
  id: "airflow",
  name: "Airflow",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Volumetric efficiency against the MAF: restriction or meter",
  engine: "warm-running",
  tool: "scan-tool",
  unfit,
  needs: ["induction", "metering"],
  role: "measures",
  onlyReads: true,
  shelf: "running",
  rows,
  candidates: airflowCandidates,
  claims: ({ points }, verdict, { layout }) => {
    if (verdict.outcome === "void") return [];
    const open = points.some((p) => p.state === "wide-open");
    return [
      ofEngine(
        layout,
        atomOf("breathing", open ? "wide-open" : "idle"),
        `breathing ${open ? "at wide open throttle" : "at idle"}`,
        saysOf(verdict.outcome),
      ),
    ];
  },
  irrelevant: {
    "points.maf": "at idle neither air nor manifold pressure decides: the pull does",
    "points.map": "the same",
  },
  fields: airflowFields,
  form: airflowForm,
  plan: planAirflow,
  judge: judgeAirflow,
};
