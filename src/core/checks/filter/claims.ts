import { AT_LARGE, atomOf, type Claim, type Says, saysOf } from "../claim";
import type { Verdict } from "../verdict";
import type { FilterRecord } from "./fields";

/** What the reset of the ECU's model rests on. */
export const FILTER_PRESSURE = atomOf("pressure", "filter-core");
const RESTS = ["filter-core", "filter-pipe-front", "filter-pipe-rear", AT_LARGE];

/** Whether the filter's sensor shows nothing where nothing flows. */
export const filterZero = (says: Says): Claim => ({
  ...atomOf("zero", "filter-sensor"),
  says,
  words: "filter pressure sensor at zero",
  rests: RESTS,
});

/** Whether the filter lets through what it should, and whether its sensor stands at zero. */
export function filterClaims({ keyOn }: FilterRecord, verdict: Verdict): Claim[] {
  if (verdict.outcome === "void") return [];
  const zeroOff = verdict.observation === "filter-zero-off";
  const pressure: Says = zeroOff ? "open" : saysOf(verdict.outcome);
  return [
    { ...FILTER_PRESSURE, says: pressure, words: "filter pressure within limits", rests: RESTS },
    ...(keyOn || zeroOff ? [filterZero(zeroOff ? "bad" : "good")] : []),
  ];
}
