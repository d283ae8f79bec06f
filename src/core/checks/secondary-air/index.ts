import type { CheckKind } from "../contract";
import { airValves, secondaryAirCandidates } from "./candidates";
import { secondaryAirClaims } from "./claims";
import { type RunBy, type SecondaryAirRecord, secondaryAirFields, secondaryAirForm } from "./fields";
import { judgeSecondaryAir } from "./judge";
import { planSecondaryAir, unfit, VALVE_PIPE_OFF } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";

export const secondaryAir: CheckKind<SecondaryAirRecord, { readonly runBy: RunBy; readonly window?: number }, Seen> = {
  id: "secondary-air",
  name: "Secondary air",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Pump made to run, joints soaped, switching valve opened and shut: does air arrive",
  engine: "warm-running",
  tool: "scan-tool",
  unfit,
  role: "measures",
  takesOff: [VALVE_PIPE_OFF],
  shelf: "electric",
  families: ["secondary-air"],
  needs: ["fitted", "banks"],
  rows,
  candidates: secondaryAirCandidates,
  claims: secondaryAirClaims,
  byPart: true,
  setup: (r) => (r.runBy === "fused-lead" ? [r.joint, "air-pump"] : [r.joint]),
  ownCommands: (r) => [r.joint, "air-pump"],
  irrelevant: {
    openedBy: "air that arrives arrives, however the valve was opened",
    rearmed: "a pump that ran was commanded",
    runBy: "a pump that ran ran",
    trim: "the oxygen sensor tells; the trim beside it",
    watched: "at once is as good as soon",
    window: "a reaction that came was in time",
  },
  fields: secondaryAirFields,
  form: secondaryAirForm,
  plan: planSecondaryAir,
  judge: judgeSecondaryAir,
  places: ({ layout }) => airValves(layout).map((j) => j.id),
  place: (r) => r.joint,
};
