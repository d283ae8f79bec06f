import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export function airflowCandidates({ vehicle }: CheckContext): Candidate<Seen>[] {
  if (vehicle.fuel !== "petrol") return [];
  return [
    {
      name: "Airflow",
      minutes: 9,
      penalty: 1,
      // A low idle flow is seen beside one of the others, and is no outcome that the check is done for.
      outcomes: ["airflow-restricted", "airflow-reads-low", "airflow-normal"],
      why: "tells a restriction from a faulty MAF",
    },
  ];
}
