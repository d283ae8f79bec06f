import { breathed } from "../../gas/filter";
import { formatQuantity, fromSi, toSi } from "../../units";
import { AT_LARGE, atomOf, type Claim, type Says, saysOf, type Window } from "../claim";
import type { CheckContext } from "../context";
import type { Verdict } from "../verdict";
import type { FilterRecord } from "./fields";

/** Question that the reset of the ECU's model rests on. */
export const FILTER_PRESSURE = atomOf("pressure", "filter-core");
const RESTS = ["filter-core", "filter-pipe-front", "filter-pipe-rear", AT_LARGE];

/** Whether the filter's sensor shows nothing where nothing flows. */
export const filterZero = (says: Says): Claim => ({
  ...atomOf("zero", "filter-sensor"),
  says,
  words: "filter pressure sensor at zero",
  rests: RESTS,
});

/** Share of the exhaust flow at which it failed that must go through it again. */
const AS_MUCH = 0.5;

/** Exhaust through the filter at each running point, kg/s: as the meter has it, else as the engine breathes without load. */
const flowsOf = ({ idle, held }: FilterRecord, { vehicle }: CheckContext): { readonly flow: number }[] =>
  [idle, held].flatMap((p) => (p ? [{ flow: p.maf ? toSi(p.maf) : breathed(toSi(vehicle.displacement), p.rpm) }] : []));

/** Whether the filter lets through what it should, and whether its sensor stands at zero. */
export function filterClaims(record: FilterRecord, verdict: Verdict, context: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  const { keyOn, egr } = record;
  const zeroOff = verdict.observation === "filter-zero-off";
  const said = zeroOff ? "open" : saysOf(verdict.outcome);
  // Gas that is led back is air that the meter does not see: less of it than the speed says goes through.
  const pressure: Says = said === "good" && egr === "open" ? "open" : said;
  const at = flowsOf(record, context);
  const from = AS_MUCH * Math.max(0, ...at.map((p) => p.flow));
  const under: Window = {
    of: "flow",
    from,
    words: `with ${formatQuantity(fromSi(from, "g/s"))} of exhaust or more, at least half of where it failed, and EGR shut`,
  };
  return [
    { ...FILTER_PRESSURE, says: pressure, words: "filter pressure within limits", rests: RESTS, at, under: [under] },
    ...(keyOn || zeroOff ? [filterZero(zeroOff ? "bad" : "good")] : []),
  ];
}
