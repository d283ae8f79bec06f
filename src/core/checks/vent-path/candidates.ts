import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import { VENT_PARTS } from "./fields";
import type { Seen } from "./rows";

export function ventPathCandidates({ vehicle }: CheckContext): Candidate<Seen>[] {
  if (!vehicle.fitted.includes("evap")) return [];
  return [
    {
      name: "Vent path",
      minutes: 12,
      penalty: 0.9,
      outcomes: ["vent-free", ...VENT_PARTS.map((id): Seen => `vent-blocked:${id}`)],
      tested: [...VENT_PARTS],
      why: "blown through from outside to the tank",
    },
  ];
}
