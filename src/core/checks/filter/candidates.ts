import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export function filterCandidates({ vehicle }: CheckContext): Candidate<Seen>[] {
  if (!vehicle.fitted.includes("particulate-filter")) return [];
  return [
    {
      name: "Filter pressure",
      minutes: 8,
      penalty: 1,
      outcomes: [
        "filter-loaded",
        "filter-within",
        "filter-zero-off",
        "filter-backwards",
        "filter-none",
        "filter-pipe:filter-pipe-front",
        "filter-pipe:filter-pipe-rear",
      ],
      why: "three readings of the scan tool and a look at two pipes",
    },
  ];
}
