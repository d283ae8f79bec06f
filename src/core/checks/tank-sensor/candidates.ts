import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export function tankSensorCandidates({ vehicle }: CheckContext): Candidate<Seen>[] {
  if (!vehicle.fitted.includes("evap")) return [];
  return [
    {
      name: "Tank-pressure sensor",
      minutes: 6,
      penalty: 1,
      outcomes: ["sensor-off", "sensor-good"],
      why: "cap off, key on, one reading",
      touches: ["filler-cap"],
    },
  ];
}
