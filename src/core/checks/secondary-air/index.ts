import type { CheckKind } from "../check";
import { secondaryAirAsks } from "./asks";
import { airValves, secondaryAirCandidates } from "./candidates";
import { secondaryAirForm } from "./form";
import { judgeSecondaryAir } from "./judge";
import { planSecondaryAir } from "./plan";
import { type RunBy, type SecondaryAirRecord, secondaryAirSchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./judge";
export * from "./record";

export const secondaryAir: CheckKind<SecondaryAirRecord, { readonly runBy: RunBy; readonly window?: number }, Seen> = {
  id: "secondary-air",
  name: "Secondary air",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Pump made to run, joints soaped, switching valve opened and shut: does air arrive",
  engine: "warm-running",
  role: "measures",
  shelf: "electric",
  families: ["secondary-air"],
  needs: ["fitted", "banks"],
  rows,
  candidates: secondaryAirCandidates,
  asks: secondaryAirAsks,
  byPart: true,
  setup: (r) => (r.runBy === "fused-lead" ? [r.joint, "air-pump"] : [r.joint]),
  ownCommands: (r) => [r.joint, "air-pump"],
  schema: secondaryAirSchema,
  form: secondaryAirForm,
  plan: planSecondaryAir,
  judge: judgeSecondaryAir,
  readings: (r) => [
    ...(r.watched === undefined ? [] : [{ reading: "oxygen sensor's reaction", value: r.watched, unit: "s" }]),
    ...(r.trim === undefined ? [] : [{ reading: "short-term trim moved", value: r.trim, unit: "%" }]),
  ],
  places: ({ layout }) => airValves(layout).map((j) => j.id),
  place: (r) => r.joint,
};
