import { causesOf, type Family } from "../../faults";
import { inSentence } from "../../sentence";
import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

/** Zones of which each part is pumped up by itself. */
export const PUMPED: readonly string[] = [
  "flap-actuator",
  "boost-actuator",
  "egr-actuator",
  "air-actuator",
  "vacuum-supply",
  "booster-branch",
];

export function holdCandidates({ layout, vehicle }: CheckContext, families: readonly Family[]): Candidate<Seen>[] {
  const suspect = new Set(causesOf(layout, vehicle, families).map((c) => c.joint));
  return layout.joints
    .filter((j) => j.kind === "seal" && PUMPED.includes(j.from) && suspect.has(j.id))
    .map(
      (part): Candidate<Seen> => ({
        place: part.id,
        name: `Hold test: ${inSentence(part.name)}`,
        minutes: 5,
        penalty: 0.9,
        // What moves can be stuck though it holds.
        outcomes: [
          `hold-leaks:${part.id}`,
          ...(part.from.endsWith("-actuator") ? [`hold-stuck:${part.id}` as const] : []),
          "hold-good",
        ],
        tested: [part.id],
        why: "a hand pump, still and wiggled",
      }),
    );
}
