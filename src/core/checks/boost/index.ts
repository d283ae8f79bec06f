import type { CheckKind } from "../contract";
import { boostCandidates } from "./candidates";
import { boostClaims, boostCodes } from "./claims";
import { type BoostRecord, boostFields, boostForm } from "./fields";
import { judgeBoostCheck } from "./judge";
import { boostOperatingPoints } from "./operating-points";
import { planBoost, unfit } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./extract";
export * from "./fields";
export * from "./judge";

export const boost: CheckKind<BoostRecord, unknown, Seen> = {
  id: "boost",
  name: "Boost from a log",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Requested against actual boost, and the MAF against volumetric efficiency: leak, restriction, actuator, sensor",
  engine: "warm-running",
  tool: "scan-tool",
  unfit,
  role: "measures",
  onlyReads: true,
  shelf: "running",
  families: ["engine", "boost"],
  needs: ["induction"],
  rows,
  candidates: boostCandidates,
  claims: boostClaims,
  codes: boostCodes,
  irrelevant: {
    keyOn: "sensors that agree while it runs need not be read standing",
    "keyOn.map": "one sensor less is compared with the outside",
    "keyOn.charge": "one sensor less is compared with the outside",
    "points.charge": "manifold pressure stands for it",
    "points.map": "charge pressure stands for it",
    "points.chargeTemperature": "one point that fits none of the others counts for little",
    "points.maf": "one point fewer shows the volumetric efficiency",
  },
  fields: boostFields,
  form: boostForm,
  plan: planBoost,
  judge: judgeBoostCheck,
  points: boostOperatingPoints,
};
