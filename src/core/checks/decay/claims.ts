import { EVAP_ZONES, reachOf } from "../../vehicle";
import { atomOf, type Claim, tight, tightAt } from "../claim";
import type { CheckContext } from "../context";
import type { Verdict } from "../verdict";
import type { DecayRecord } from "./fields";

/** A decay says whether all it holds is tight; where it is not, it cannot say: every place of it answers together. */
export function decayClaims(record: DecayRecord, verdict: Verdict, { layout }: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  const held = reachOf(layout, record).tested.filter((j) => EVAP_ZONES.includes(j.from));
  if (verdict.outcome === "fail") {
    return [
      {
        ...atomOf("holds", record.entry),
        says: "bad",
        words: "the vapour system holds its pressure",
        rests: held.map((j) => j.id),
        metBy: [held.map((j) => tightAt(j.id))],
      },
    ];
  }
  return held.map((j) => tight(layout, j.id, verdict.outcome === "pass" ? "good" : "open"));
}
