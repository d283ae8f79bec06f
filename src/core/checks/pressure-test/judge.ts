import { inSentence } from "../../sentence";
import { formatQuantity, fromSi, type Quantity, toSi } from "../../units";
import { type Layout, noWayIn, type Reach, reachOf } from "../../vehicle";
import type { CheckContext } from "../context";
import { instrumentDoubt } from "../instrument";
import { leaksSeen, pastPlugs, weepsSeen } from "../seen";
import { jointName, type Measure, type Verdict, voidVerdict, type ZoneKnowledge } from "../verdict";
import { ESCAPE_SIGNS, type PressureTest } from "./fields";
import type { Seen } from "./rows";
import { boostOf, isAbove, testStage } from "./stage";

/** Pressure shares: a joint that is to pass must have stood at this share of the test stage, and this share of what the engine itself puts on it. */
const REACHED = 0.9;
const COVERED = 0.7;
/** Low-pressure smoke goes no further than this, Pa: what begins above it, no smoke shows. */
const SMOKE_REACHES = 7e3;

/** The escapes as smoke's own rules see them: past a plug, by design, or a leak. */
const asSeen = (record: PressureTest) => ({
  blocked: record.blocked,
  seen: record.escapes.map((e) => ({ joint: e.joint, at: 0 })),
});

export const topOf = ({ steps }: Pick<PressureTest, "steps">): Quantity =>
  (steps.at(-1) as PressureTest["steps"][number]).pressure;

/**
 * Joints that air came out at where none should, at a pressure that the test was allowed to have; each once, with how it first
 * showed.
 */
export function escapesOf(record: PressureTest, context: CheckContext): PressureTest["escapes"] {
  const stage = testStage(record, context);
  const escapes = record.escapes.filter((e) => !isAbove(toSi(e.from), stage));
  const joints = new Set(leaksSeen(asSeen({ ...record, escapes }), context.layout).map((s) => s.joint));
  return [...joints].map((id) =>
    escapes.filter((e) => e.joint === id).reduce((low, e) => (toSi(e.from) < toSi(low.from) ? e : low)),
  );
}

/** The crankcase's seals bear no more than this, Pa gauge, with the oil cap off. */
const CRANKCASE_BEARS = 30e3;

/** Joints that a test put under pressure before the crankcase: what lies in it or behind it is not built for boost, and is not cleared by it. */
export function testedBy(record: Pick<PressureTest, "entry" | "blocked" | "heldOpen">, layout: Layout): Reach {
  const ties = layout.joints.filter((j) => j.kind !== "seal" && [j.from, j.to].includes("crankcase")).map((j) => j.id);
  return reachOf(layout, { ...record, blocked: [...record.blocked, ...ties] });
}

/** Wording where the crankcase stood under the pressure too. */
const crankcaseSays = (record: PressureTest, reach: Reach): string[] =>
  reach.zones.includes("crankcase")
    ? [
        toSi(topOf(record)) > CRANKCASE_BEARS
          ? "danger: the crankcase stood under the pressure too, and its seals are not built for it. Shut its branches off, or take the oil cap off and go no higher than 0.3 bar"
          : "the crankcase stood under the pressure too: nothing there is cleared by it",
      ]
    : [];

/** The trap that makes a test prove nothing. */
function trapOf(record: PressureTest, reach: Reach, context: CheckContext): string | undefined {
  const { layout } = context;
  const top = topOf(record);
  const stage = testStage(record, context);
  if (isAbove(toSi(top), stage))
    return `${formatQuantity({ ...top, kind: "gauge" })} is above ${stage.binds}, ${formatQuantity(fromSi(stage.pressure, top.unit, "gauge"))}: let it down. What came out up there says nothing`;
  if (record.supply && toSi(record.supply) < toSi(top))
    return `the supply stands at ${formatQuantity(record.supply)}, below the ${formatQuantity({ ...top, kind: "gauge" })} that were on the engine: one of the two gauges is wrong`;
  if (reach.zones.length === 0) return "from there the air goes nowhere";
  // Behind the engine's valves and the crankcase nothing holds: what leaves there, by tail or breather, is by design.
  const before = testedBy(record, layout);
  const open = before.openEnds.filter((j) => !before.behindEngine.includes(j.from));
  if (open.length > 0)
    return `${open.map((j) => inSentence(j.name)).join(", ")} stood open: seal it, nothing can build up behind it`;
  const plugs = [...new Set(pastPlugs(asSeen(record)).map((s) => s.joint))];
  if (plugs.length > 0)
    return `air came past the plug at ${plugs.map((id) => inSentence(jointName(layout, id))).join(", ")}: seat it and test again`;
  return undefined;
}

function measuresOf(record: PressureTest, context: CheckContext): Measure[] {
  const top = topOf(record);
  const stage = testStage(record, context);
  return [
    {
      name: "Tested up to",
      value: { ...top, kind: "gauge" },
      limit: `${formatQuantity(fromSi(stage.pressure, top.unit, "gauge"))} at most`,
      limitSource: stage.binds,
    },
    ...(record.flow ? [{ name: "Air to hold it", value: record.flow }] : []),
    ...(record.fillTime === undefined ? [] : [{ name: "Time to fill", value: { value: record.fillTime, unit: "s" as const } }]),
  ];
}

/**
 * Judges a boost pressure test by where air came out. That it does not hold is no fault: valves overlap and pass air by
 * design, so flow and filling time count only against the same engine at the same crank position.
 */
export function judgePressureTest(record: PressureTest, context: CheckContext): Verdict<Seen> {
  const { layout, vehicle, limits } = context;
  if (vehicle.induction !== "turbo")
    return voidVerdict("Nothing to test under boost", "this engine has no compressor: smoke shows what leaks here");
  const shut = noWayIn(layout, record);
  if (shut) return voidVerdict("Nothing was under pressure", shut);
  const reach = reachOf(layout, record);
  const trap = trapOf(record, reach, context);
  if (trap) return voidVerdict("This test proves nothing", trap);
  const measures = measuresOf(record, context);
  const top = topOf(record);
  const manifold = reach.zones.includes("manifold") ? [] : ["the throttle was shut, so the manifold is untested"];
  const compare =
    record.flow || record.fillTime !== undefined
      ? [
          record.crank
            ? `compare air and time only with the crank at the same mark (${record.crank})`
            : "air and time compare with nothing: nobody wrote down where the crank stood",
        ]
      : [];
  const leaks = escapesOf(record, context);
  const crankcase = crankcaseSays(record, reach);
  if (leaks.length > 0) {
    const found = escapesAt(leaks, layout);
    return { ...found, reasons: [...crankcase, ...found.reasons], measures };
  }
  const tested = testedBy(record, layout);
  const doubts = [
    ...weepsSeen(asSeen(record), layout).map(
      (id) => `air at ${inSentence(jointName(layout, id))}, where some passes by design: plug it and test again`,
    ),
    record.everywhere
      ? undefined
      : record.everywhere === false
        ? "not every joint was listened to, felt and soaped at the last stop"
        : "nobody said yet whether every joint was listened to, felt and soaped at the last stop",
    instrumentDoubt(record.instrument, toSi(top), limits),
    ...coverDoubts(record, context),
  ].filter((d) => d !== undefined);
  const rest = [...crankcase, ...manifold, ...compare];
  if (doubts.length > 0)
    return { outcome: "unsure", headline: "No escape found: not sure yet", measures, reasons: [...doubts, ...rest], zones: [] };
  const boost = boostOf(record, vehicle);
  return {
    outcome: "pass",
    headline: `No joint leaks up to ${formatQuantity({ ...top, kind: "gauge" })}`,
    measures,
    reasons: [
      ...(boost && toSi(top) < REACHED * toSi(boost)
        ? [`the engine boosts to ${formatQuantity({ ...boost, kind: "gauge" })}: what opens only above the test is not shown`]
        : []),
      ...(reach.zones.includes("cylinders") ? ["what passes the open engine valves is by design, and no leak"] : []),
      ...rest,
    ],
    observation: "escape-none",
    tested: tested.tested.map((j) => j.id),
    zones: layout.zones
      .filter((z) => tested.zones.includes(z.id) && !tested.behindEngine.includes(z.id))
      .map((z): ZoneKnowledge => ({ zone: z.id, state: "tight", why: "it stood under pressure and did not leak" })),
  };
}

/** Why a test that found nothing does not yet cover what the engine does. */
function coverDoubts(record: PressureTest, context: CheckContext): (string | undefined)[] {
  const top = toSi(topOf(record));
  const stage = testStage(record, context);
  const { unit } = topOf(record);
  const shown = (pa: number) => formatQuantity(fromSi(pa, unit, "gauge"));
  const most = boostOf(record, context.vehicle);
  const boost = most && toSi(most);
  return [
    top < REACHED * stage.pressure ? `go up to ${shown(stage.pressure)}: ${stage.binds} allows it` : undefined,
    boost === undefined
      ? "the engine's maximum boost is not known: nobody can say whether the test covers it"
      : top < COVERED * boost
        ? `the engine boosts to ${shown(boost)}, the test went to ${shown(top)}: too little to clear anything`
        : undefined,
  ];
}

/** Air came out: where, how it showed, and from which pressure on. */
function escapesAt(escapes: PressureTest["escapes"], layout: CheckContext["layout"]): Omit<Verdict<Seen>, "measures"> {
  const name = (id: string) => inSentence(jointName(layout, id));
  const late = escapes.filter((e) => toSi(e.from) > SMOKE_REACHES);
  const places = escapes.map((e) => e.joint);
  const at = ({ joint, sign, from }: PressureTest["escapes"][number]) =>
    `${name(joint)} (${ESCAPE_SIGNS[sign].toLowerCase()}, from ${formatQuantity({ ...from, kind: "gauge" })} on)`;
  const zoneOf = new Map(places.map((id) => [layout.joints.find((j) => j.id === id)?.from, id]));
  return {
    outcome: "fail",
    headline: `Air escapes at ${escapes.map(at).join(", ")}`,
    reasons: [
      ...(late.length > 0
        ? [`${late.map((e) => name(e.joint)).join(", ")}: opens only under pressure: smoke could not have shown it`]
        : []),
      "repair it and test again to the same pressure, with the crank at the same mark",
    ],
    observation: `escape-at:${places[0] as string}`,
    ...(places.length > 1 ? { also: places.slice(1).map((id): Seen => `escape-at:${id}`) } : {}),
    tested: places,
    zones: layout.zones.flatMap((z): ZoneKnowledge[] => {
      const joint = zoneOf.get(z.id);
      return joint ? [{ zone: z.id, state: "leaking", joint, why: `air escapes at ${name(joint)}` }] : [];
    }),
  };
}
