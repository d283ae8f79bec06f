import { inSentence } from "../../sentence";
import { reachOf } from "../../vehicle";
import { type Candidate, TAKEN_APART } from "../candidate";
import type { CheckContext } from "../context";
import { chargeEntries } from "./entries";
import type { Seen } from "./rows";

/** Air before smoke, or after it, as the house has it: the other way costs this much of its worth. */
const OTHER_SCHOOL = 0.8;

export function pressureCandidates({ layout, vehicle, house }: CheckContext): Candidate<Seen>[] {
  if (vehicle.induction !== "turbo") return [];
  return chargeEntries(layout).flatMap((entry): Candidate<Seen>[] => {
    const reach = reachOf(layout, { entry: entry.id, blocked: [], heldOpen: [] });
    if (reach.openEnds.length > 0) return [];
    const tested = reach.tested.map((j) => j.id);
    return [
      {
        place: entry.id,
        name: `Air under pressure in at the ${inSentence(entry.name)}`,
        minutes: (entry.end?.minutes ?? 0) + 8,
        penalty: TAKEN_APART * (house.boostBy === "air" ? 1 : OTHER_SCHOOL),
        outcomes: ["escape-none", ...tested.map((id): Seen => `escape-at:${id}`)],
        tested,
        why: `puts ${tested.length} joints under the pressure that boost puts on them`,
      },
    ];
  });
}
