import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export function pulldownCandidates({ vehicle }: CheckContext): Candidate<Seen>[] {
  if (!vehicle.fitted.includes("evap") || vehicle.evap?.monitor === "canister-pump") return [];
  return [
    {
      name: "Pull-down trace",
      minutes: 8,
      penalty: 1,
      outcomes: ["pulldown-good", "pulldown-creeps", "pulldown-none", "pulldown-loses", "pulldown-no-relief"],
      tested: ["purge-valve", "vent-valve", "vent-filter"],
      why: "purge, vent and tightness in one trace, nothing comes off",
    },
  ];
}
