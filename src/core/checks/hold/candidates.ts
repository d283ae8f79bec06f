import { inSentence } from "../../sentence";
import type { Candidate } from "../candidate";
import type { CheckContext } from "../check";
import type { Seen } from "./rows";

/** Zones of which each part is pumped up by itself. */
export const PUMPED: readonly string[] = ["flap-actuator", "vacuum-supply", "booster-branch"];

export function holdCandidates({ layout }: CheckContext): Candidate<Seen>[] {
  return layout.joints
    .filter((j) => j.kind === "seal" && PUMPED.includes(j.from))
    .map(
      (part): Candidate<Seen> => ({
        place: part.id,
        name: `Hold test: ${inSentence(part.name)}`,
        minutes: 5,
        penalty: 0.9,
        // What moves can be stuck though it holds.
        outcomes: [
          `hold-leaks:${part.id}`,
          ...(part.from === "flap-actuator" ? [`hold-stuck:${part.id}` as const] : []),
          "hold-good",
        ],
        tested: [part.id],
        why: "a hand pump, still and wiggled",
      }),
    );
}
