import type { CheckKind } from "../contract";
import { filterCandidates } from "./candidates";
import { FILTER_PRESSURE, filterClaims } from "./claims";
import { type FilterRecord, filterFields, filterForm } from "./fields";
import { judgeFilterCheck } from "./judge";
import { planFilter, unfit } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./extract";
export * from "./fields";
export * from "./judge";

export const filter: CheckKind<FilterRecord, unknown, Seen> = {
  id: "filter",
  name: "Filter pressure",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Pressure before over behind the particulate filter: loaded, sound, or a faulty sensor",
  engine: "warm-running",
  tool: "scan-tool",
  unfit,
  role: "measures",
  shelf: "running",
  families: ["filter"],
  needs: ["fitted"],
  rows,
  candidates: filterCandidates,
  claims: filterClaims,
  resets: {
    name: "DPF replacement reset",
    atom: FILTER_PRESSURE,
    places: ["filter-core", "filter-loaded", "filter-broken"],
    stays: "ash",
  },
  irrelevant: {
    ambient: "carried in the interval where it is not known",
    intakeTemperature: "carried in the interval",
    egr: "with the MAF beside it the flow is known; proof asks for it shut",
    "held.exhaustTemperature": "carried in the interval where it is not known",
    "held.maf": "the flow is estimated from speed where there is no meter",
    idle: "the held speed decides",
    "idle.pressure": "the held speed decides",
    keyOn: "within one division of nothing it stands at zero",
    sootMeasured: "it is the ECU's own reckoning, and told beside",
    sootModel: "it is the ECU's own reckoning, and told beside",
  },
  fields: filterFields,
  form: filterForm,
  plan: planFilter,
  judge: judgeFilterCheck,
};
