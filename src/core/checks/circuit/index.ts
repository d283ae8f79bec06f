import { FAMILY_IDS } from "../../faults";
import { ofPart, saysOf } from "../asked";
import { type CheckKind, readingOf } from "../check";
import { electricOf } from "../commanded";
import { circuitCandidates } from "./candidates";
import { circuitForm } from "./form";
import { judgeCircuit } from "./judge";
import type { Wiring } from "./pins";
import { planCircuit } from "./plan";
import { type CircuitRecord, circuitSchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./judge";
export * from "./pins";
export * from "./record";

export const circuit: CheckKind<
  CircuitRecord,
  { readonly joint: string; readonly wiring: Wiring; readonly switched: "ground" | "feed"; readonly pierced: boolean },
  Seen
> = {
  id: "circuit",
  name: "Circuit, pin by pin",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Feed, control, voltage across the load: the first pin that is wrong",
  engine: "running",
  role: "measures",
  shelf: "electric",
  families: FAMILY_IDS,
  rows,
  candidates: circuitCandidates,
  asks: (record, verdict, { layout }) =>
    verdict.outcome === "void" ? [] : [ofPart(layout, "circuit", record.joint, "fed and switched", saysOf(verdict.outcome))],
  byPart: true,
  ownCommands: (r) => [r.joint],
  setup: (r) => [r.joint],
  schema: circuitSchema,
  form: circuitForm,
  plan: planCircuit,
  judge: judgeCircuit,
  readings: (r) => [
    ...readingOf("battery", r.battery),
    ...r.readings.flatMap(({ pin, voltage }, point) => readingOf(pin, voltage, { point })),
  ],
  places: ({ layout }) => electricOf(layout),
  place: (r) => r.joint,
};
