import type { Family } from "../../faults";
import { EVAP_ZONES } from "../../vehicle";
import type { Candidate } from "../candidate";
import type { CheckContext } from "../check";
import type { Seen } from "./rows";

export function lookCandidates({ layout }: CheckContext, families: readonly Family[]): Candidate<Seen>[] {
  const seals = layout.joints.filter(
    (j) => j.kind === "seal" && families.includes(EVAP_ZONES.includes(j.from) ? "evap" : "engine"),
  );
  return [
    {
      name: "Look and feel",
      minutes: 6,
      penalty: 1,
      outcomes: ["look-clean", ...seals.map((j): Seen => `look-found:${j.id}`), "look-found:filter-clogged"],
      why: "costs nothing and takes nothing apart",
      free: true,
    },
  ];
}
