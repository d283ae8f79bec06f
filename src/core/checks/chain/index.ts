import type { CheckKind } from "../contract";
import { chainCandidates } from "./candidates";
import { chainClaims } from "./claims";
import { type ChainRecord, chainFields, chainForm } from "./fields";
import { judgeChain } from "./judge";
import { planChain, unfit } from "./plan";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";

export const chain: CheckKind<ChainRecord, unknown, Seen> = {
  id: "chain",
  name: "Vacuum-worked device",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Supply, solenoid, diaphragm, shaft: stops at the first broken link",
  engine: "running",
  tool: "hand-pump",
  unfit,
  role: "measures",
  shelf: "electric",
  rows,
  candidates: chainCandidates,
  claims: chainClaims,
  ownCommands: () => ["flap-solenoid"],
  setup: () => ["flap-solenoid", "flap-pipe", "flap-line"],
  fields: chainFields,
  form: chainForm,
  plan: planChain,
  judge: judgeChain,
};
