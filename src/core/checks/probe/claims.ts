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
  const bent = { of: "flexed", from: 1, words: "bent again while it is tapped, as it was when it reacted" };
  const flexed = (joint: string, outcome: "reacts" | "quiet") =>
    taps.some((r) => r.outcome === outcome && r.tap.joint === joint && r.tap.flexed);
  const straight = (joint: string) => taps.some((r) => r.outcome === "reacts" && r.tap.joint === joint && !r.tap.flexed);
  return [...new Set([...reacting, ...of("quiet")])].map((joint) => ({
    ...pointedAt(layout, [joint], {
      banks: vehicle.banks,
      trims: refusal(vehicle) === undefined,
      by: "probe",
      says: reacting.has(joint) ? "bad" : "good",
    }),
    at: [{ [agent]: 1, flexed: Number(flexed(joint, "quiet")) }],
    // What reacted only while it was bent is not answered by a tap that bent nothing.
    under: [like, ...(flexed(joint, "reacts") && !straight(joint) ? [bent] : [])],
  }));
}
