import { isKnown } from "../../vehicle";
import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export function boostCandidates({ vehicle }: CheckContext): Candidate<Seen>[] {
  if (vehicle.induction !== "turbo" || !isKnown(vehicle, "induction")) return [];
  return [
    {
      name: "Boost from a log",
      minutes: 18,
      penalty: 1,
      outcomes: [
        "boost-sound",
        "boost-leak",
        "boost-short",
        "boost-over",
        "boost-sensor",
        "boost-exhaust",
        "boost-meter",
        ...(vehicle.fitted.includes("particulate-filter") ? (["standing-filter"] as const) : []),
      ],
      why: "tells a leak from a restriction, an actuator and a sensor; nothing comes off",
    },
  ];
}
