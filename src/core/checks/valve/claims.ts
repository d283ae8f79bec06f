import { type Claim, ofPart } from "../claim";
import type { CheckContext } from "../context";
import type { Verdict } from "../verdict";
import type { ValveRecord } from "./fields";

/** Its seat at the temperature it was tried at, and that it opens; a part on the bench says nothing of the car. */
export function valveClaims({ joint, part, temperature }: ValveRecord, verdict: Verdict, { layout }: CheckContext): Claim[] {
  if (verdict.outcome === "void" || part === "new") return [];
  const leaks = verdict.observation?.startsWith("valve-leaks") ?? false;
  const stuck = verdict.observation?.startsWith("valve-stuck") ?? false;
  const good = verdict.outcome === "pass";
  return [
    ofPart(layout, "seat", joint, "holds where it must,", leaks ? "bad" : good ? "good" : "open", temperature),
    ofPart(layout, "opens", joint, "passes where it must", stuck ? "bad" : good ? "good" : "open"),
  ];
}
