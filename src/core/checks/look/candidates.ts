import { EVAP_ZONES } from "../../vehicle";
import type { Candidate, Family } from "../candidate";
import type { CheckContext } from "../check";

export function lookCandidates({ layout }: CheckContext, families: readonly Family[]): Candidate[] {
  const seals = layout.joints.filter(
    (j) => j.kind === "seal" && families.includes(EVAP_ZONES.includes(j.from) ? "evap" : "engine"),
  );
  return [
    {
      name: "Look and feel",
      minutes: 6,
      penalty: 1,
      outcomes: ["look-clean", ...seals.map((j) => `look-found:${j.id}`), "look-found:filter-clogged"],
      why: "costs nothing and takes nothing apart",
      free: true,
    },
  ];
}
