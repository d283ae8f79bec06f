import { inSentence } from "../../sentence";
import { type Claim, pointedAt } from "../claim";
import type { CheckContext } from "../context";
import { refusal } from "../trims";
import type { Verdict } from "../verdict";
import { AGENT_NAMES, type ProbeRecord } from "./fields";
import { readTaps } from "./judge";

/** Every spot that reacted, and every one that stayed quiet: that one answers what the same agent found there, and is not proved tight. */
export function probeClaims(record: ProbeRecord, verdict: Verdict, context: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  const taps = readTaps(record, context);
  const { vehicle, layout } = context;
  const of = (outcome: "reacts" | "quiet") => taps.filter((r) => r.outcome === outcome).map((r) => r.tap.joint);
  const reacting = new Set(of("reacts"));
  const { agent } = record;
  const like = { of: agent, from: 1, words: `with ${inSentence(AGENT_NAMES[agent])} again` };
  return [...new Set([...reacting, ...of("quiet")])].map((joint) => ({
    ...pointedAt(layout, [joint], {
      banks: vehicle.banks,
      trims: refusal(vehicle) === undefined,
      by: "probe",
      says: reacting.has(joint) ? "bad" : "good",
    }),
    at: [{ [agent]: 1 }],
    under: [like],
  }));
}
