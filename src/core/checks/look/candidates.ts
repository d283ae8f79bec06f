import { causesOf, type Family } from "../../faults";
import type { Candidate } from "../candidate";
import type { CheckContext } from "../context";
import type { Seen } from "./rows";

export function lookCandidates({ layout, vehicle }: CheckContext, families: readonly Family[]): Candidate<Seen>[] {
  const suspect = new Set(causesOf(layout, vehicle, families).map((c) => c.joint));
  const seals = layout.joints.filter((j) => j.kind === "seal" && suspect.has(j.id));
  return [
    {
      name: "Look and feel",
      minutes: 6,
      penalty: 1,
      outcomes: ["look-clean", ...seals.map((j): Seen => `look-found:${j.id}`), "look-found:filter-clogged"],
      why: "costs nothing and takes nothing apart",
    },
  ];
}
