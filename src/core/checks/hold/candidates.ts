import { inSentence } from "../../sentence";
import type { Candidate } from "../candidate";
import type { CheckContext } from "../check";

/** Zones of which each part is pumped up by itself. */
export const PUMPED: readonly string[] = ["flap-actuator", "vacuum-supply", "booster-branch"];

export function holdCandidates({ layout }: CheckContext): Candidate[] {
  return layout.joints
    .filter((j) => j.kind === "seal" && PUMPED.includes(j.from))
    .map((part) => ({
      place: part.id,
      name: `Hold test: ${inSentence(part.name)}`,
      minutes: 5,
      penalty: 0.9,
      // What moves can be stuck though it holds.
      outcomes: [`hold-leaks:${part.id}`, ...(part.from === "flap-actuator" ? [`hold-stuck:${part.id}`] : []), "hold-good"],
      tested: [part.id],
      why: "a hand pump, still and wiggled",
    }));
}
