import { type Claim, ofPart, tight } from "../claim";
import type { CheckContext } from "../context";
import type { Verdict } from "../verdict";
import type { HoldRecord } from "./fields";

/** Whether the part holds, and where it has something to move, whether it moves. */
export function holdClaims({ joint, moved, isolated = [] }: HoldRecord, verdict: Verdict, { layout }: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  // With a branch shut off it is diagnosis: it says nothing of the supply as it runs, neither good nor owed.
  if (isolated.length > 0) return [];
  const leaks = verdict.observation?.startsWith("hold-leaks") ?? false;
  const good = verdict.outcome === "pass";
  return [
    ofPart(layout, "holds", joint, "holds", leaks ? "bad" : good ? "good" : "open"),
    ...(verdict.observation?.startsWith("hold-stuck")
      ? [ofPart(layout, "moves", joint, "moves", "bad")]
      : moved === undefined
        ? []
        : [ofPart(layout, "moves", joint, "moves", good && moved ? "good" : "open")]),
    // A part that holds vacuum lets nothing through: far finer than smoke asks.
    ...(good ? [tight(layout, joint, "good")] : []),
  ];
}
