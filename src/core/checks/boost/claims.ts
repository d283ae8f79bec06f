import { codeText } from "../../faults";
import { boostThatMatters } from "../../gas/boost";
import { formatQuantity, fromSi, toSi } from "../../units";
import { AT_LARGE, atomOf, type Claim, ofEngine, type Says, saysOf, tightAt, type Window } from "../claim";
import type { CheckContext } from "../context";
import type { CodeSet } from "../contract";
import { filterZero } from "../filter/claims";
import type { Verdict } from "../verdict";
import type { BoostRecord } from "./fields";
import { deliveryDoubt, judgedOf } from "./judge";

/** Leaks are asked after in whole millimetres, up to a pipe that is off. */
const LARGEST = 30;
const leakAtom = (mm: number) => atomOf("boost", "meter", `leak of ${mm} mm`);

const DELIVERED = atomOf("boost", "delivered");
/** Share of the gauge pressure asked for, where it failed, that a log must ask for that shows it cured. */
const AS_MUCH = 0.9;

/** The boost that a log must have asked for to answer this one, which failed: most of what was asked where it fell short or went over. */
function asMuchBoost({ points, ambient }: BoostRecord): Window {
  const outside = toSi(ambient);
  const asked = points.flatMap((p) => {
    const got = p.charge ?? p.map;
    return p.asked && got && toSi(p.asked) > outside
      ? [{ boost: toSi(p.asked) - outside, by: Math.abs(toSi(p.asked) - toSi(got)) }]
      : [];
  });
  const failing = asked.filter((p) => p.by > boostThatMatters(p.boost + outside, outside));
  const from = AS_MUCH * Math.max(0, ...(failing.length > 0 ? failing : asked).map((p) => p.boost));
  return {
    of: "boost",
    from,
    words: `with ${formatQuantity(fromSi(from, "bar", "gauge"))} or more asked for, as where it failed: a steady climb or a dyno, no pull on the road`,
  };
}

/** Codes that say that boost was not what was asked for: only asked and delivered, logged again, answer them. */
export const boostCodes = {
  claims: (codes: readonly CodeSet[], { layout, vehicle }: CheckContext): Claim[] =>
    vehicle.induction === "turbo" &&
    codes.some(({ code }) => ["code:low-boost", "code:over-boost"].includes(codeText(code)?.observation ?? ""))
      ? [ofEngine(layout, DELIVERED, "boost as requested", "open")]
      : [],
  missing: () => "Log requested and actual boost up a steady climb, or on a dyno: not logged since the repair",
};

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
    const atom = leakAtom(mm);
    const asked = ofEngine(layout, atom, `no leak of ${mm} mm or more under boost`, says);
    return { ...asked, metBy: [[atom], joints] };
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
  const outside = toSi(record.ambient);
  const asked = record.points.flatMap((p) => (p.asked && toSi(p.asked) > outside ? [{ boost: toSi(p.asked) - outside }] : []));
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
    ...(asked.length > 0
      ? [{ ...ofEngine(layout, DELIVERED, "boost as requested", delivered), at: asked, under: [asMuchBoost(record)] }]
      : []),
    ...(hole ? [leak(Math.max(1, Math.floor(1000 * hole.diameter)), "bad")] : []),
    ...(shown === undefined ? [] : Array.from({ length: Math.max(0, LARGEST + 1 - shown) }, (_, i) => leak(shown + i, "good"))),
  ];
}
