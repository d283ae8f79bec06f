import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import { refusal } from "./judge";
import type { Seen } from "./rows";

export function trimsCandidates({ vehicle }: CheckContext): Candidate<Seen>[] {
  if (refusal(vehicle)) return [];
  return [
    {
      name: "Fuel-trim survey",
      minutes: 12,
      penalty: 1,
      outcomes: [
        "lean-fades-with-flow",
        "lean-constant",
        "lean-grows-with-flow",
        "rich-under-boost",
        "trims-normal",
        "rich-constant",
        "rich-fades-with-flow",
        "rich-grows-with-flow",
        "trims-unclear",
      ],
      why: "tells leak from meter and fuel, takes nothing apart",
    },
  ];
}
