import type { Proved } from "../suspects";
import { engineOf } from "../vehicle";
import type { JobState } from "./state";

/**
 * Contribution of a job to the shop's own experience: what was found, repaired and proved on a real car and has not come back.
 * Undefined for practice, for what is not proved to the end, for a cause that is not proved to be it, and for what was left.
 */
export function provedOf(
  state: Pick<
    JobState,
    "practice" | "status" | "standing" | "blocks" | "findings" | "repairs" | "outcomes" | "proof" | "vehicle" | "updatedAt"
  >,
  families: readonly string[],
): Proved | undefined {
  const { practice, status, standing, blocks, findings, repairs, proof, vehicle } = state;
  const done = status === "closed" || status === "handed-over";
  const cured = standing === "proved" || standing === "temporary";
  if (practice || !vehicle || !done || !cured || proof.cameBack || blocks.close.length > 0) return undefined;
  const lasting = new Set(repairs.filter((r) => !r.undone && r.body.permanence !== "bypass").map((r) => r.entry));
  const found = findings
    .filter((f) => f.body.confirmed && f.repairedBy !== undefined && lasting.has(f.repairedBy))
    .map((f) => f.body.joint);
  if (found.length === 0) return undefined;
  const age = vehicle.year === undefined ? undefined : Math.max(0, new Date(state.updatedAt).getUTCFullYear() - vehicle.year);
  return { engine: engineOf(vehicle), families, found: [...new Set(found)], ...(age === undefined ? {} : { age }) };
}
