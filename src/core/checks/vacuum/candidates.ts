import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export function vacuumCandidates({ vehicle }: CheckContext): Candidate<Seen>[] {
  if (vehicle.fuel !== "petrol") return [];
  return [
    {
      name: "Intake vacuum",
      minutes: 6,
      penalty: 0.95,
      outcomes: [
        "vacuum-low",
        "vacuum-fine-idle-high",
        "vacuum-normal",
        "vacuum-slow-return",
        "vacuum-flick",
        "vacuum-flutter",
        "vacuum-drifts",
      ],
      why: "one gauge on one port",
    },
  ];
}
