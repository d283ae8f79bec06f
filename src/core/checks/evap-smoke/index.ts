import type { CheckKind } from "../contract";
import { evapSetupOf } from "../evap-fields";
import { smoke, smokeClaims } from "../smoke";
import { smokeProof } from "../smoke/proof";
import { evapOnly } from "../unfit";
import { evapSmokeCandidates } from "./candidates";
import { vapourCodes } from "./claims";
import { type EvapSmokeRun, evapSmokeFields } from "./fields";
import { judgeEvapSmoke } from "./judge";
import { type EvapSmokeAim, planEvapSmoke } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./draft";
export * from "./fields";
export * from "./judge";
export * from "./plan";

export const evapSmoke: CheckKind<EvapSmokeRun, EvapSmokeAim, Seen> = {
  id: "evap-smoke",
  name: "EVAP smoke",
  words: { pass: "Tight", fail: "Leaking" },
  aim: "Smoke into the vapour system below its ceiling: where it comes out, and how far it got",
  engine: "standing",
  tool: "smoke-machine",
  unfit: evapOnly,
  role: "measures",
  inspects: { circuit: "Vapour system", minutes: 20, by: ["smoke", "all"] },
  soaked: true,
  shelf: "vapour",
  families: ["evap"],
  rows,
  candidates: evapSmokeCandidates,
  sweeps: true,
  hot: { why: "the exhaust is hot: let it cool", waits: true },
  claims: (run, verdict, context) => smokeClaims(run, verdict, context, "vapour"),
  codes: vapourCodes,
  setup: evapSetupOf,
  ownCommands: evapSetupOf,
  machineProof: (r) => smokeProof(r, r.regulated ?? r.machine.ratedPressure),
  irrelevant: {
    "arrivals.at": "that smoke arrived says it, not when; only many within one second are doubted",
    gas: "a matter of safety, said before the run: the reading is the same",
    heaterOnAt: "smoke that was seen was made",
    "required.size": "the job's own bar is taken where it is stricter",
    "units.flow": "a ball at the bottom reads nothing in any unit",
    "units.pressure": "near the machine's rated pressure a unit of the same size reads alike",
    "vent.at": "shut before the push, it is shut",
    "vent.by": "shut by hand or by command, it is shut",
  },
  fields: evapSmokeFields,
  plan: planEvapSmoke,
  judge: judgeEvapSmoke,
  readings: smoke.readings,
  place: (run) => run.entry,
};
