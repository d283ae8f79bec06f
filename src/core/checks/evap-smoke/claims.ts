import { isVapourLeak } from "../../faults";
import { inSentence } from "../../sentence";
import { EVAP_ZONES, entriesFor, type Layout } from "../../vehicle";
import { atomOf, type Claim, tight, tightAt } from "../claim";
import type { CheckContext } from "../context";
import type { CodeSet } from "../contract";

/** Places where the vapour system can leak to the outside. */
const vapourSeals = (layout: Layout): string[] =>
  layout.joints.filter((j) => j.kind === "seal" && EVAP_ZONES.includes(j.from) && j.from !== "vent-hose").map((j) => j.id);

/** Obligations from a leak code of the vapour system: every place of it that can leak tight, whatever an entry hid. */
export const vapourCodes = {
  claims: (codes: readonly CodeSet[], { layout }: CheckContext): Claim[] =>
    codes.some(({ code }) => isVapourLeak(code))
      ? vapourSeals(layout).map((id) => {
          const claim = tight(layout, id, "open");
          // An adapter in the neck takes the seat's place, and a flap may keep all other smoke away from it: eyes will do.
          const seen = layout.joints.find((j) => j.id === id)?.seatOf !== undefined;
          return seen ? { ...claim, metBy: [[tightAt(id)], [atomOf("seated", id)]] } : claim;
        })
      : [],
  /** It names the way in that gets furthest. */
  missing: (words: string, places: readonly string[], layout: Layout) => {
    const [entry] = entriesFor(layout, "evap", places);
    return `Test ${words}${entry ? ` from the ${inSentence(entry.name)}` : ""}: not proved since the repair`;
  },
};
