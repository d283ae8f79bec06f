import { inSentence } from "../../sentence";
import { entriesOf, reachOf, usualSetup } from "../../vehicle";
import { type Candidate, TAKEN_APART } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export function smokeCandidates({ layout }: CheckContext): Candidate<Seen>[] {
  return entriesOf(layout).map((entry) => {
    const tested = reachOf(layout, usualSetup(layout, entry.id)).tested.map((j) => j.id);
    return {
      place: entry.id,
      name: `Smoke in at the ${inSentence(entry.name)}`,
      minutes: entry.end?.minutes ?? 0,
      penalty: TAKEN_APART,
      outcomes: ["smoke-none-outside", "smoke-inside-path", ...tested.map((id): Seen => `smoke-at:${id}`)],
      tested,
      why: `puts ${tested.length} joints to the test at once`,
    };
  });
}
