import { FAMILY_IDS } from "../../faults";
import { ofPart, saysOf } from "../claim";
import { electricOf } from "../commanded";
import type { CheckKind } from "../contract";
import { circuitCandidates } from "./candidates";
import { type CircuitRecord, circuitFields, circuitForm } from "./fields";
import { judgeCircuit } from "./judge";
import type { Wiring } from "./pins";
import { planCircuit } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";
export * from "./pins";

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
  tool: "multimeter",
  role: "measures",
  shelf: "electric",
  families: FAMILY_IDS,
  rows,
  candidates: circuitCandidates,
  claims: (record, verdict, { layout }) =>
    verdict.outcome === "void" ? [] : [ofPart(layout, "circuit", record.joint, "fed and switched", saysOf(verdict.outcome))],
  byPart: true,
  ownCommands: (r) => [r.joint],
  setup: (r) => [r.joint],
  irrelevant: {
    needsEngine: "it matters only where the engine stood",
    pierced: "a wire that was pierced is sealed; its reading stands",
  },
  fields: circuitFields,
  form: circuitForm,
  plan: planCircuit,
  judge: judgeCircuit,
  places: ({ layout }) => electricOf(layout),
  place: (r) => r.joint,
};
