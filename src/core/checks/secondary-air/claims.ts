import { type Claim, ofPart, type Says, tight } from "../claim";
import type { CheckContext } from "../context";
import type { Verdict } from "../verdict";
import type { SecondaryAirRecord } from "./fields";
import { SOAPED } from "./fields";

/** Whether the pump runs, its joints hold, air arrives through this valve, and the valve keeps exhaust back. */
export function secondaryAirClaims(record: SecondaryAirRecord, verdict: Verdict, { layout }: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  const { joint, pumped, soaped, bubbles, whenShut } = record;
  const has = (id: string) => layout.joints.some((j) => j.id === id);
  const good = verdict.outcome === "pass";
  const arrives: Says = verdict.observation?.startsWith("air-blocked") ? "bad" : good ? "good" : "open";
  return [
    ofPart(layout, "runs", "air-pump", "runs", pumped ? "good" : "bad"),
    ...(pumped ? SOAPED.filter(has).map((id) => tight(layout, id, bubbles.includes(id) ? "bad" : soaped ? "good" : "open")) : []),
    ...(has(joint)
      ? [
          ofPart(layout, "air", joint, "lets air through", arrives),
          ofPart(
            layout,
            "shut",
            joint,
            "keeps exhaust back",
            whenShut === "pulses" ? "bad" : whenShut === "quiet" ? "good" : "open",
          ),
        ]
      : []),
  ];
}
