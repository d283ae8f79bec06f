import { type CheckKind, readingOf } from "../check";
import { boostAsks } from "./asks";
import { boostCandidates } from "./candidates";
import { boostForm } from "./form";
import { judgeBoostCheck } from "./judge";
import { boostOperatingPoints } from "./operating-points";
import { planBoost } from "./plan";
import { type BoostRecord, boostSchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./extract";
export * from "./judge";
export * from "./record";

export const boost: CheckKind<BoostRecord, unknown, Seen> = {
  id: "boost",
  name: "Boost from a log",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Boost asked for against delivered, and the air meter against breathing: leak, restriction, actuator, sensor",
  engine: "warm-running",
  role: "measures",
  shelf: "running",
  families: ["engine", "boost"],
  needs: ["induction"],
  rows,
  candidates: boostCandidates,
  asks: boostAsks,
  schema: boostSchema,
  form: boostForm,
  plan: planBoost,
  judge: judgeBoostCheck,
  points: boostOperatingPoints,
  readings: ({ points, keyOn }) => [
    ...readingOf("manifold pressure, key on", keyOn?.map && { ...keyOn.map, kind: "absolute" }),
    ...readingOf("charge pressure, key on", keyOn?.charge && { ...keyOn.charge, kind: "absolute" }),
    ...readingOf("ECU's ambient pressure, key on", keyOn?.ambient && { ...keyOn.ambient, kind: "absolute" }),
    ...readingOf("exhaust pressure, key on", keyOn?.exhaust && { ...keyOn.exhaust, kind: "absolute" }),
    ...readingOf("filter pressure, key on", keyOn?.filter && { ...keyOn.filter, kind: "gauge" }),
    ...points.flatMap((p, point) => [
      { reading: "engine speed", value: p.rpm, unit: "1/min", point },
      ...readingOf("manifold pressure", p.map && { ...p.map, kind: "absolute" }, { point }),
      ...readingOf("charge pressure", p.charge && { ...p.charge, kind: "absolute" }, { point }),
      ...readingOf("charge pressure asked for", p.asked && { ...p.asked, kind: "absolute" }, { point }),
      ...readingOf("air meter flow", p.maf, { point }),
      ...readingOf("charge air temperature", p.chargeTemperature, { point }),
    ]),
  ],
};
