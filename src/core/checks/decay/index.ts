import type { CheckKind } from "../check";
import { evapSetupOf } from "../evap-fields";
import type { EvapAim } from "../evap-smoke/plan";
import { decayAsks } from "./asks";
import { decayCandidates } from "./candidates";
import { decayForm } from "./form";
import { judgeDecay } from "./judge";
import { planDecay } from "./plan";
import { type DecayRecord, decaySchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./judge";
export * from "./plan";
export * from "./record";

export const decay: CheckKind<DecayRecord, EvapAim & { readonly byReference: boolean; readonly hotTank?: boolean }, Seen> = {
  id: "decay",
  name: "Pressure decay",
  words: { pass: "Tight", fail: "Leaking" },
  aim: "Shut the EVAP system off under pressure and watch it fall: what the ball no longer shows",
  engine: "standing",
  role: "measures",
  soaked: true,
  shelf: "vapour",
  families: ["evap"],
  rows,
  candidates: decayCandidates,
  sweeps: true,
  hot: { why: "the exhaust is hot: let it cool" },
  asks: decayAsks,
  setup: evapSetupOf,
  ownCommands: evapSetupOf,
  schema: decaySchema,
  form: decayForm,
  plan: planDecay,
  judge: judgeDecay,
  readings: (r) =>
    (
      [
        ["decay pressure", r.samples],
        ["decay pressure, reference hole open", r.reference?.samples ?? []],
      ] as const
    ).flatMap(([reading, samples]) =>
      samples.map(([seconds, value], point) => ({ reading, value, unit: r.unit, kind: "gauge", point, seconds })),
    ),
  place: (r) => r.entry,
};
