import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export function capCandidates({ layout, vehicle }: CheckContext): Candidate<Seen>[] {
  if (!layout.joints.some((j) => j.id === "filler-cap") || vehicle.evap?.neck === "capless") return [];
  return [
    {
      place: "filler-cap",
      name: "Filler cap on its tester",
      minutes: 4,
      penalty: 0.95,
      outcomes: ["hold-leaks:filler-cap", "hold-good"],
      tested: ["filler-cap"],
      why: "the cheapest suspect by itself",
      touches: ["filler-cap"],
    },
  ];
}
