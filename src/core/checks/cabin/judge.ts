import { type Verdict, voidVerdict } from "../verdict";
import type { CabinRecord } from "./fields";

/** Judges seals by smoke: where it is blown away the seal leaks; a seal that was not gone along says nothing. */
export function judgeCabin({ fanOnFresh, still, seals }: CabinRecord): Verdict<never> {
  if (!fanOnFresh)
    return voidVerdict("This proves nothing", "without the fan on fresh air and all shut there is no pressure in the cabin");
  const base = { measures: [], zones: [] };
  const blown = seals.filter((s) => s.blown).map((s) => s.name);
  if (!still) return voidVerdict("This proves nothing", "a draught blew the smoke about: shut the doors of the bay");
  if (blown.length > 0)
    return {
      ...base,
      outcome: "fail",
      headline: `Smoke is blown away at ${blown.join(", ")}`,
      reasons: ["seat, height and adjustment of that seal first, then the seal itself; water comes in where air goes out"],
    };
  return {
    ...base,
    outcome: "pass",
    headline: `Smoke stays at ${seals.map((s) => s.name).join(", ")}`,
    reasons: ["those seals only: the others were not checked"],
  };
}
