import { toSi } from "../../units";
import { AT_LARGE, atomOf, type Claim, ofEngine, type Says, saysOf, tightAt } from "../claim";
import type { CheckContext } from "../context";
import { filterZero } from "../filter/claims";
import type { Verdict } from "../verdict";
import type { BoostRecord } from "./fields";
import { deliveryDoubt, judgedOf } from "./judge";

/** Leaks are asked after in whole millimetres, up to a pipe that is off. */
const LARGEST = 30;
const leakAtom = (mm: number) => atomOf("boost", "meter", `leak of ${mm} mm`);

/** Joints between compressor and cylinders: all of them tight under pressure answer a leak as well. */
const CHARGE = ["hot-pipe", "cooler", "cold-pipe"];

/**
 * Whether boost holds what is asked for, and whether the meter fits what the engine breathes under it. A leak is asked after by its
 * size: a later log answers it that could have shown one as small, and so does every joint of the charge side shown tight.
 */
export function boostClaims(record: BoostRecord, verdict: Verdict, context: CheckContext): Claim[] {
  if (verdict.outcome === "void") return [];
  const { layout } = context;
  const { hole, smallestVisible, shapes, standing } = judgedOf(record, context);
  const joints = layout.joints.filter((j) => CHARGE.includes(j.from) && j.to === "outside").map((j) => tightAt(j.id));
  const leak = (mm: number, says: Says): Claim => {
    const asked = ofEngine(layout, leakAtom(mm), `no leak of ${mm} mm or more under boost`, says);
    return { ...asked, metBy: [[asked.atom], joints] };
  };
  // A sensor of the exhaust that is off takes nothing from boost: it is owed by itself.
  const beside = standing?.sensors.every((id) => id === "exhaust" || id === "filter");
  const sound = beside ? shapes[0]?.id === "sensor-offset" : shapes[0]?.id === "sound" && verdict.outcome !== "fail";
  const shown = sound && smallestVisible !== null ? Math.ceil(1000 * smallestVisible) : undefined;
  const delivered: Says = hole
    ? "open"
    : sound && (beside || verdict.outcome === "unsure") && !deliveryDoubt(record)
      ? "good"
      : saysOf(verdict.outcome);
  const zero = (id: "exhaust" | "filter"): Says => (standing?.sensors.includes(id) ? "bad" : "good");
  return [
    ...(record.keyOn?.filter ? [filterZero(zero("filter"))] : []),
    ...(record.keyOn?.exhaust
      ? [
          {
            ...atomOf("zero", "exhaust-sensor"),
            says: standing && standing.sensors.length > 1 ? ("open" as const) : zero("exhaust"),
            words: "exhaust pressure sensor at ambient with the engine standing",
            rests: [AT_LARGE],
          },
        ]
      : []),
    ...(record.points.some((p) => p.asked && toSi(p.asked) > toSi(record.ambient))
      ? [ofEngine(layout, atomOf("boost", "delivered"), "boost as asked for", delivered)]
      : []),
    ...(hole ? [leak(Math.max(1, Math.floor(1000 * hole.diameter)), "bad")] : []),
    ...(shown === undefined ? [] : Array.from({ length: Math.max(0, LARGEST + 1 - shown) }, (_, i) => leak(shown + i, "good"))),
  ];
}
