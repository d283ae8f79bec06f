import { CABIN_SEAL } from "../../faults";
import { atomOf } from "../claim";
import type { CheckKind } from "../contract";
import { type CabinRecord, cabinFields, cabinForm } from "./fields";
import { judgeCabin } from "./judge";
import { rows } from "./rows";

export * from "./fields";
export * from "./judge";

export const cabin: CheckKind<CabinRecord, unknown, never> = {
  id: "cabin",
  name: "Cabin leak",
  words: { pass: "Tight", fail: "Leaking" },
  aim: "Wind noise and water: fan on fresh air, smoke along the seals from outside",
  engine: "running",
  tool: "smoke-machine",
  role: "measures",
  shelf: "running",
  rows,
  candidates: () => [],
  claims: (record, verdict) =>
    verdict.outcome === "void"
      ? []
      : record.seals.map(({ name, blown }) => ({
          ...atomOf("seal", "cabin", name),
          says: blown ? ("bad" as const) : ("good" as const),
          words: `${name} sealed`,
          rests: [CABIN_SEAL.id],
        })),
  fields: cabinFields,
  form: cabinForm,
  plan: () => ({
    steps: [
      {
        text: "Fan at its strongest on fresh air, recirculation off, every door, window and roof shut.",
        caution: "running-engine",
      },
      {
        text: "A little smoke along each seal from outside, slowly. Where it is blown away, air gets out: there water gets in.",
        caution: "smoke-vapour",
      },
    ],
    displaces: [],
    cautions: ["running-engine", "smoke-vapour"],
    clocks: [],
  }),
  judge: judgeCabin,
  readings: ({ seals }) =>
    seals.map((s, point) => ({ reading: `smoke blown away, ${s.name}`, value: Number(s.blown), unit: "1 = yes", point })),
};
