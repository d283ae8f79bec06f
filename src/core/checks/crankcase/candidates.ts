import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export function crankcaseCandidates({ vehicle }: CheckContext): Candidate<Seen>[] {
  if (vehicle.fuel !== "petrol" || !vehicle.fitted.includes("pcv")) return [];
  return [
    {
      name: "Crankcase pressure",
      minutes: 6,
      penalty: 1,
      outcomes: ["crankcase-suction", "crankcase-positive", vehicle.crankcaseBand ? "crankcase-normal" : "crankcase-sign-right"],
      why: "a manometer on the dipstick tube",
    },
  ];
}
