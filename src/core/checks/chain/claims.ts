import { inSentence } from "../../sentence";
import { atomOf, type Claim } from "../claim";
import type { CheckContext } from "../context";
import type { Verdict } from "../verdict";
import { type ChainRecord, LINK_NAMES, linksOf } from "./fields";
import { chainDoubt, PLACES, readLink } from "./judge";

/** Every link from supply to plate: good up to the broken one, open beyond it, because nothing beyond it can be told. */
export function chainClaims(record: ChainRecord, verdict: Verdict, context: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  const rests = [...new Set([...Object.values(PLACES), "flap-pipe", "flap-spindle", "flap-check-valve"])];
  let told = chainDoubt(record, context) === undefined;
  return linksOf(record).map((id): Claim => {
    const state = told ? readLink(id, record, context) : "unread";
    if (state !== "good") told = false;
    // Vacuum from a hand pump is none of the car's.
    const shown = state === "good" && !(id === "supply" && record.source === "pump");
    return {
      ...atomOf("link", PLACES[id], id),
      says: shown ? "good" : state === "broken" ? "bad" : "open",
      words: `${record.device}: ${inSentence(LINK_NAMES[id])}`,
      rests,
    };
  });
}
