import { inSentence } from "../../sentence";
import { EVAP_ZONES, entriesOf, reachOf, usualSetup } from "../../vehicle";
import { type Candidate, TAKEN_APART } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

/** Every way into the vapour system: the joints that its fill tests, and what getting in destroys. */
export const evapWaysIn = ({ layout, vehicle }: CheckContext) =>
  vehicle.fitted.includes("evap")
    ? entriesOf(layout, "evap").map((entry) => ({
        place: entry.id,
        at: inSentence(entry.name),
        minutes: entry.end?.minutes ?? 0,
        tested: reachOf(layout, usualSetup(layout, entry.id))
          .tested.filter((j) => EVAP_ZONES.includes(j.from))
          .map((j) => j.id),
        // Taking the cap off to get in takes the evidence of how it sat.
        ...(entry.id === "filler-cap" ? { touches: ["filler-cap"] } : {}),
      }))
    : [];

export const evapSmokeCandidates = (context: CheckContext): Candidate<Seen>[] =>
  evapWaysIn(context).map(({ at, ...way }) => ({
    ...way,
    name: `EVAP smoke in at the ${at}`,
    penalty: TAKEN_APART,
    outcomes: ["smoke-none-outside", "smoke-inside-path", ...way.tested.map((id): Seen => `smoke-at:${id}`)],
    why: `puts ${way.tested.length} joints to the test at once`,
  }));
