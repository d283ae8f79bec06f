import { type Claim, pointedAt } from "../claim";
import type { CheckContext } from "../context";
import { refusal } from "../trims";
import type { Verdict } from "../verdict";
import type { ProbeRecord } from "./fields";
import { readTaps } from "./judge";

/** Every spot that reacted; a quiet one is not proved tight. */
export function probeClaims(record: ProbeRecord, verdict: Verdict, context: CheckContext): Claim[] {
  if (verdict.outcome !== "fail") return [];
  const reacting = readTaps(record, context).filter((r) => r.outcome === "reacts");
  const { vehicle, layout } = context;
  return [...new Set(reacting.map((r) => r.tap.joint))].map((joint) =>
    pointedAt(layout, [joint], vehicle.banks, refusal(vehicle) === undefined),
  );
}
