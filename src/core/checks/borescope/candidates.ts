import { inSentence } from "../../sentence";
import { type Candidate, TAKEN_APART } from "../candidate";
import type { CheckContext } from "../check";
import type { Seen } from "./rows";

/** Passages that a borescope is put into, with the minutes it takes to get there. */
export const PASSAGES: readonly (readonly [string, number])[] = [
  ["intake-valves", 10],
  ["throttle", 10],
  ["egr-valve", 15],
  ["catalyst", 20],
];

export function borescopeCandidates({ layout }: CheckContext): Candidate<Seen>[] {
  return PASSAGES.flatMap(([id, minutes]): Candidate<Seen>[] => {
    const passage = layout.joints.find((j) => j.id === id);
    if (!passage) return [];
    return [
      {
        place: id,
        name: `Borescope: ${inSentence(passage.name)}`,
        minutes,
        penalty: TAKEN_APART,
        outcomes: [`ports-blocked:${id}`, "ports-open"],
        tested: [id],
        why: "seen with the eye, straight and from the side",
      },
    ];
  });
}
