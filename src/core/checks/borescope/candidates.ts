import { causesOf, type Family } from "../../faults";
import { inSentence } from "../../sentence";
import { type Candidate, TAKEN_APART } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

/** Passages that a borescope is put into, with the minutes it takes to get there. */
export const PASSAGES: readonly (readonly [string, number])[] = [
  ["intake-valves", 10],
  ["throttle", 10],
  ["egr-valve", 15],
  ["catalyst", 20],
  ["air-valve", 25],
  ["air-valve-1", 25],
  ["air-valve-2", 25],
];

/** Behind these valves lie ports that are counted, and cleaned with water. */
export const AIR_VALVES: readonly string[] = ["air-valve", "air-valve-1", "air-valve-2"];

export function borescopeCandidates({ layout, vehicle }: CheckContext, families: readonly Family[]): Candidate<Seen>[] {
  const suspect = new Set(causesOf(layout, vehicle, families).map((c) => c.joint));
  return PASSAGES.flatMap(([id, minutes]): Candidate<Seen>[] => {
    const passage = layout.joints.find((j) => j.id === id);
    if (!passage || !suspect.has(id)) return [];
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
