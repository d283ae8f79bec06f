import { EVAP_ZONES } from "../../vehicle";
import { AT_LARGE, atomOf, type Claim, type Says, tightAt } from "../claim";
import type { CheckContext } from "../context";
import type { Verdict } from "../verdict";
import type { PulldownRecord } from "./fields";
import { readPulldown } from "./judge";

/** Pull-down, hold and relief, each a question of its own; and that purge shuts. */
export function pulldownClaims(record: PulldownRecord, verdict: Verdict, context: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  const read = readPulldown(record, context);
  const { layout } = context;
  const places = layout.joints.filter((j) => EVAP_ZONES.includes(j.from) || j.id === "purge-valve").map((j) => j.id);
  const seals = layout.joints.filter((j) => EVAP_ZONES.includes(j.from) && j.kind === "seal").map((j) => tightAt(j.id));
  const rests = [...places, AT_LARGE];
  const creeps = verdict.observation === "pulldown-creeps";
  // While purge leaks by nothing else of the trace can be told.
  const of = (part: Says): Says => (creeps ? "open" : part);
  return [
    { ...atomOf("pulls", "evap"), says: of(partSays(read.pullDown)), words: "the vapour system pulls down", rests },
    {
      ...atomOf("holds", "evap"),
      says: of(partSays(read.hold)),
      words: "the vapour system holds its vacuum",
      rests,
      metBy: [[atomOf("holds", "evap")], seals],
    },
    { ...atomOf("relieves", "evap"), says: of(partSays(read.relief)), words: "the vapour system relieves", rests },
    {
      ...atomOf("shuts", "purge-valve"),
      says: creeps ? "bad" : verdict.outcome === "pass" ? "good" : "open",
      words: "purge valve shuts",
      rests: ["purge-valve"],
      metBy: [[atomOf("shuts", "purge-valve")], [atomOf("seat", "purge-valve", "cold")], [atomOf("seat", "purge-valve", "warm")]],
    },
  ];
}

const partSays = (part: "good" | "bad" | "unsure"): Says => (part === "unsure" ? "open" : part);
