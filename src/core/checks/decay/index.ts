import type { CheckKind } from "../contract";
import { evapSetupOf } from "../evap-fields";
import type { EvapAim } from "../evap-smoke/plan";
import { evapOnly } from "../unfit";
import { decayCandidates } from "./candidates";
import { decayClaims } from "./claims";
import { type DecayRecord, decayFields, decayForm } from "./fields";
import { judgeDecay } from "./judge";
import { planDecay } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";
export * from "./plan";

export const decay: CheckKind<DecayRecord, EvapAim & { readonly byReference: boolean; readonly hotTank?: boolean }, Seen> = {
  id: "decay",
  name: "Pressure decay",
  words: { pass: "Tight", fail: "Leaking" },
  aim: "Shut the EVAP system off under pressure and watch it fall: what the ball no longer shows",
  engine: "standing",
  tool: "pressure-tester",
  unfit: evapOnly,
  role: "measures",
  soaked: true,
  shelf: "vapour",
  families: ["evap"],
  rows,
  candidates: decayCandidates,
  sweeps: true,
  hot: { why: "the exhaust is hot: let it cool" },
  claims: decayClaims,
  setup: evapSetupOf,
  ownCommands: evapSetupOf,
  irrelevant: {
    "required.size": "the job's own bar is taken where it is stricter",
  },
  fields: decayFields,
  form: decayForm,
  plan: planDecay,
  judge: judgeDecay,
  place: (r) => r.entry,
};
