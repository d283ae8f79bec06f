import { ofEngine, saysOf } from "../asked";
import { type CheckKind, readingOf } from "../check";
import { airflowCandidates } from "./candidates";
import { airflowForm } from "./form";
import { judgeAirflow } from "./judge";
import { planAirflow } from "./plan";
import { type AirflowRecord, airflowSchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./extract";
export * from "./judge";
export * from "./record";

export const airflow: CheckKind<AirflowRecord, unknown, Seen> = {
  id: "airflow",
  name: "Airflow",
  words: { pass: "Works", fail: "Faulty" },
  aim: "What the engine breathes against what its meter says: restriction or meter",
  engine: "warm-running",
  needs: ["induction", "metering"],
  role: "measures",
  shelf: "running",
  rows,
  candidates: airflowCandidates,
  asks: ({ points }, verdict, { layout }) => {
    if (verdict.outcome === "void") return [];
    const open = points.some((p) => p.state === "wide-open");
    return [
      ofEngine(
        layout,
        open ? "breathing@wide-open" : "breathing@idle",
        `breathing ${open ? "at wide open throttle" : "at idle"}`,
        saysOf(verdict.outcome),
      ),
    ];
  },
  schema: airflowSchema,
  form: airflowForm,
  plan: planAirflow,
  judge: judgeAirflow,
  readings: ({ points }) =>
    points.flatMap((p, point) => [
      { reading: `engine speed, ${p.state}`, value: p.rpm, unit: "1/min", point },
      ...readingOf(`air meter flow, ${p.state}`, p.maf, { point }),
      ...readingOf(`manifold pressure, ${p.state}`, p.map && { ...p.map, kind: "absolute" }, { point }),
    ]),
};
