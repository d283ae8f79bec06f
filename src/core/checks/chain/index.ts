import { type CheckKind, readingOf } from "../check";
import { chainAsks } from "./asks";
import { chainCandidates } from "./candidates";
import { chainForm } from "./form";
import { judgeChain } from "./judge";
import { planChain } from "./plan";
import { type ChainRecord, chainSchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./judge";
export * from "./record";

export const chain: CheckKind<ChainRecord, unknown, Seen> = {
  id: "chain",
  name: "Vacuum-worked device",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Supply, solenoid, diaphragm, shaft: stops at the first broken link",
  engine: "running",
  role: "measures",
  shelf: "electric",
  rows,
  candidates: chainCandidates,
  asks: chainAsks,
  ownCommands: () => ["flap-solenoid"],
  setup: () => ["flap-solenoid", "flap-pipe", "flap-line"],
  schema: chainSchema,
  form: chainForm,
  plan: planChain,
  judge: judgeChain,
  readings: ({ links }) => [
    ...readingOf("supply", links.supply && { ...links.supply, kind: "vacuum" }),
    ...readingOf("battery", links.battery),
    ...readingOf("across the solenoid", links.control),
    ...readingOf("outlet", links.outlet && { ...links.outlet, kind: "vacuum" }),
  ],
};
