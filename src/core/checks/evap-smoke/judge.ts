import { inSentence } from "../../sentence";
import { formatNumber, formatQuantity, fromSi, toSi } from "../../units";
import { EVAP_ZONES, type Reach, reachOf } from "../../vehicle";
import type { CheckContext } from "../context";
import { fuelLevelDoubt, gasSpace, holeMeasure, setupTrap, temperatureDoubt } from "../evap-fields";
import {
  alsoAt,
  arrivalsOf,
  ballDown,
  coarseFor,
  leaksSeen,
  machineTrap,
  names,
  readSmoke,
  type SmokeReading,
  smokeMeasures,
  type Trap,
  trappedVerdict,
} from "../smoke";
import { jointName, type Measure, type Verdict, WITHIN, type ZoneKnowledge } from "../verdict";
import type { CapOff, EvapSmokeRun } from "./fields";
import type { Seen } from "./rows";

/** Set pressure of the machine, Pa gauge: its regulated output where it was regulated. */
const setPressure = (run: EvapSmokeRun) => toSi(run.regulated ?? run.machine.ratedPressure);

/** Flow, pressure and hole of a run, with the gas space its fuel level leaves. */
export function readEvapSmoke(run: EvapSmokeRun, context: Pick<CheckContext, "layout" | "vehicle">): SmokeReading {
  const reach = reachOf(context.layout, run);
  return readSmoke(run, { ...reach, volume: gasSpace(context, run).volume });
}

function trapOf(run: EvapSmokeRun, reach: Reach, reading: SmokeReading, context: CheckContext): Trap | undefined {
  const { limits, layout } = context;
  const ceiling = limits.evapCeiling;
  const unit = run.units.pressure;
  const limit = `${formatQuantity(fromSi(ceiling.value, unit, "gauge"))} (${ceiling.source})`;
  if (setPressure(run) > ceiling.value * 1.001) {
    return {
      why: `the machine was not shown regulated below the EVAP ceiling of ${limit}: regulate it and prove that with the hose clamped`,
    };
  }
  if (run.proof?.pressure && toSi(run.proof.pressure) > ceiling.value * 1.001)
    return { why: `the clamped hose came up above the EVAP ceiling of ${limit}` };
  const highest = Math.max(...reading.pressures);
  if (highest > ceiling.value * 1.05) {
    return {
      why: `the system was put under ${formatQuantity(fromSi(highest, unit, "gauge"))}, above its ceiling of ${limit}: let it down, look at valves and seals`,
    };
  }
  const trap = machineTrap(run, reading, context, setPressure(run));
  if (trap) return trap;
  const setup = setupTrap(run, run.endedAt, layout);
  if (setup) return { why: setup };
  const [openEnd] = reach.openEnds;
  if (run.seen.length === 0 && openEnd)
    return { why: `${openEnd.name} was left open: the fill escaped there. Seal it and run again` };
  if (run.seen.length === 0 && run.draughtOrGlare) return { why: "draught or bright daylight: smoke could not have been seen" };
  return undefined;
}

/** Share of the ball's fall above which a cap-off has taken the whole flow away, and below which it changed nothing. */
const RECOVERED = 0.8;
const UNCHANGED = 0.2;
/** A ball that rises by more than this share while something is capped tells of something else. */
const ROSE = 0.15;

/** Reading that one side of a joint showed while it was capped. */
export type Side = "gone" | "less" | "same" | "more" | "not-tried";
export type CapOffReading = "here" | "itself" | "partly" | "elsewhere" | "one-side" | "blank-weeps" | "void" | "not-tried";

function readSide(before: number, after: number | undefined): Side {
  if (after === undefined) return "not-tried";
  if (!(before > 0)) return "same";
  const fall = (before - after) / before;
  return fall < -ROSE ? "more" : fall >= RECOVERED ? "gone" : fall <= UNCHANGED ? "same" : "less";
}

/**
 * Verdict of capping a joint off, as a table over both sides and the blank. A flow that is gone convicts, whatever the blank
 * is worth: a weeping one would have left some. Less than all, or nothing, counts only with a blank that was proved, and
 * "elsewhere" only with both sides tried.
 */
export function readCapOff(capOff: CapOff): CapOffReading {
  const sides = [readSide(capOff.before, capOff.hoseSide), readSide(capOff.before, capOff.portSide)];
  const tried = sides.filter((s) => s !== "not-tried");
  if (tried.length === 0) return "not-tried";
  if (!(capOff.before > 0) || tried.includes("more")) return "void";
  // Shut on either side it is gone: what lies between the two blanks lets it out.
  if (tried.length === 2 && tried.every((side) => side === "gone")) return "itself";
  if (tried.includes("gone")) return "here";
  if (!capOff.blankProved) return "blank-weeps";
  if (tried.includes("less")) return "partly";
  return tried.length === 2 ? "elsewhere" : "one-side";
}

const CAP_OFF_WORDS: Record<CapOffReading, string> = {
  here: "The flow is gone: the leak lies beyond it",
  itself: "The flow is gone on either side: it is this joint itself",

  partly: "A part of the flow stays: a second leak, or the blank weeps",
  elsewhere: "Nothing changed on either side: it is not there",
  "one-side": "Nothing changed with this side shut; cap the other side too",
  "blank-weeps": "The blank was not proved: it may weep itself, so this says nothing",
  void: "The ball stood at nothing before, or rose while it was capped: something else changed, this says nothing",
  "not-tried": "Neither side was shut",
};

function capOffWords(capOff: CapOff, name: string, unit: string): string {
  const side = (value: number | undefined, which: string) =>
    value === undefined ? [] : [`${which} side shut ${formatNumber(value, 2)}`];
  const sides = [...side(capOff.hoseSide, "hose"), ...side(capOff.portSide, "port")].join(", ") || "neither side shut";
  return `${name}: ball ${formatNumber(capOff.before, 2)}, ${sides} ${unit}. ${CAP_OFF_WORDS[readCapOff(capOff)]}`;
}

/** Cap-offs that took flow away: something leaks, whatever its size. */
const tookFlow = ({ capOffs }: EvapSmokeRun, layout: CheckContext["layout"]): string[] =>
  capOffs
    .filter((c) => ["here", "itself", "partly"].includes(readCapOff(c)))
    .map(
      (c) =>
        `capping off the ${inSentence(jointName(layout, c.joint))} took flow away: something leaks, look for it there and beyond`,
    );

/** Smoke was seen: where, how large all of it is together, and whether that is what the monitor must catch. */
function leakVerdict(
  run: EvapSmokeRun,
  leaks: ReturnType<typeof leaksSeen>,
  hole: ReturnType<typeof readEvapSmoke>["hole"],
  shown: ReadonlySet<string>,
  layout: CheckContext["layout"],
  [capOffs, hidden]: readonly [readonly string[], string],
): Omit<Verdict<Seen>, "measures"> {
  const places = [...new Set(leaks.map((s) => s.joint))];
  const leaking = new Map(places.map((id) => [layout.joints.find((j) => j.id === id)?.from, id]));
  const small = hole && run.required && hole.high < toSi(run.required.size);
  return {
    outcome: "fail",
    headline: `Smoke at ${names(places, layout)}${hole ? `: all leaks together ${sizeOf(hole)}` : ""}`,
    reasons: [
      ...capOffs,
      ...(small ? ["smaller than the monitor must catch: a leak all the same, and it may not be the one that set the code"] : []),
      ...(run.capOffs.length === 0
        ? ["cap it off on the hose side and on the port side and see the ball fall: that confirms, or shows a second leak"]
        : []),
      hidden,
    ],
    observation: `smoke-at:${places[0] as string}`,
    ...alsoAt(places),
    zones: layout.zones.flatMap((z): ZoneKnowledge[] => {
      const at = leaking.get(z.id);
      if (at) return [{ zone: z.id, state: "leaking", joint: at, why: `smoke seen at ${names([at], layout)}` }];
      return shown.has(z.id) ? [{ zone: z.id, state: "reached", why: "smoke reached it while another joint leaked" }] : [];
    }),
  };
}

/**
 * Claims of a run without smoke outside of each zone: tight only where smoke was shown. The vent hose stands open to the
 * air when nobody tests: only where smoke was shown in it is anything said of it.
 */
const tightZones = (reach: Reach, shown: ReadonlySet<string>, layout: CheckContext["layout"]): ZoneKnowledge[] =>
  layout.zones
    .filter((z) => EVAP_ZONES.includes(z.id) && (z.id !== "vent-hose" || shown.has(z.id)))
    .map((z): ZoneKnowledge => {
      if (shown.has(z.id)) return { zone: z.id, state: "tight", why: "smoke was there and none came out" };
      const by = reach.stopped.find((s) => s.zone === z.id)?.by.name;
      return {
        zone: z.id,
        state: "not-reached",
        why: by ? `smoke from here is stopped at ${inSentence(by)}` : "arrival of smoke was not shown",
      };
    });

const sizeOf = ({ diameter }: { readonly diameter: number }): string => `${formatNumber(1000 * diameter, 2)} mm`;

/** Judges an EVAP smoke run: traps, smoke seen, an inside path, then tight as far as smoke was shown and the size asks. */
export function judgeEvapSmoke(run: EvapSmokeRun, context: CheckContext): Verdict<Seen> {
  const reach = reachOf(context.layout, run);
  const verdict = judgeRun(run, reach, context);
  if (verdict.outcome === "void") return verdict;
  const { shown } = arrivalsOf(run, reach, context.layout);
  const tested = reach.tested.filter((j) => shown.has(j.from) || shown.has(j.to)).map((j) => j.id);
  return { ...verdict, tested: verdict.tested ?? tested };
}

function judgeRun(run: EvapSmokeRun, reach: Reach, context: CheckContext): Verdict<Seen> {
  const { layout } = context;
  const reading = readEvapSmoke(run, context);
  const trap = trapOf(run, reach, reading, context);
  if (trap) return trappedVerdict(run, trap, layout);
  // A ball at the bottom still leaves a size that its scale cannot tell from none; one that hunts has no size yet.
  const hole = reading.flow?.settled ? reading.hole : undefined;
  const { required } = run;
  const measures: Measure[] = [
    ...smokeMeasures(run, reading).filter((m) => !m.name.startsWith("All openings")),
    ...(hole ? [holeMeasure(hole, required)] : []),
  ];
  const { shown, astray, hasty } = arrivalsOf(run, reach, layout);
  const zoneName = (id: string) => inSentence(layout.zones.find((z) => z.id === id)?.name ?? id);
  const hidden = `${jointName(layout, run.entry)} was hidden by the adapter: untested until re-checked`;
  const capOffs = run.capOffs.map((c) => capOffWords(c, jointName(layout, c.joint), run.units.flow));
  const size = hole && sizeOf(hole);

  const leaks = leaksSeen(run, layout);
  if (leaks.length > 0) {
    return { ...leakVerdict(run, leaks, hole, shown, layout, [[...ballDown(reading), ...capOffs], hidden]), measures };
  }
  if (!run.noSmokeOutside) {
    return {
      outcome: "unsure",
      headline: "Settled, but nobody has looked yet",
      measures,
      reasons: ["look along every joint with a lamp, then mark smoke or say there is none", ...capOffs],
      zones: [],
    };
  }
  const least = hole?.low ?? reading.atLeast;
  if (required && least !== undefined && least >= toSi(required.size)) {
    const here = run.capOffs.find((c) => ["here", "itself"].includes(readCapOff(c)))?.joint;
    return {
      outcome: "fail",
      headline: `Passes the flow of a ${size ?? `${formatNumber(1000 * least, 2)} mm or larger`} hole with no smoke outside`,
      measures,
      reasons: [
        ...capOffs,
        ...(here
          ? []
          : [
              "an inside path (purge valve into the manifold, vent not shut), a blank that weeps, or a place nobody has looked at: cap off one by one",
            ]),
        hidden,
      ],
      observation: here ? "pinch-recovers" : "smoke-inside-path",
      ...(here ? { tested: [here] } : {}),
      zones: [],
    };
  }
  const coarse = required && coarseFor(run, toSi(required.size), reading.pressure?.value ?? 0);
  const down = (reading.flow?.low ?? 0) <= 0;
  const doubts = [
    run.machine.plain ? "a machine without ball and gauge can find a leak and cannot say that there is none" : undefined,
    reading.atLeast === undefined
      ? undefined
      : `the ball stood above its last calibrated height: at least ${formatNumber(1000 * reading.atLeast, 2)} mm passes somewhere`,
    astray,
    hasty,
    run.zeroed ? undefined : "gauge and ball were not at zero before the run: zero them and repeat",
    required
      ? undefined
      : "which leak must be caught is not known: read the code's own criteria, or ask the maker. This is a size only",
    fuelLevelDoubt(run, context),
    temperatureDoubt(run, context),
    hole ? undefined : "the ball has not settled at a pressure that a size can be told from",
    coarse,
    ...tookFlow(run, layout),
    !coarse && hole && required && hole.high >= toSi(required.size)
      ? `what the ball cannot tell from none is ${formatNumber(1000 * hole.high, 2)} mm, and ${formatNumber(1000 * toSi(required.size), 2)} mm must be caught: shut off and time the decay`
      : undefined,
    context.house.verdictBy === "decay"
      ? "this shop's verdict on a small leak is by decay: shut off and time the fall"
      : undefined,
  ].filter((d) => d !== undefined);
  if (doubts.length > 0) {
    return {
      outcome: "unsure",
      headline:
        size && !down
          ? `No smoke outside; the ball settles like a ${size} hole: not sure yet`
          : coarse && down
            ? "No smoke outside and the ball down: too coarse a tube to say tight"
            : "No smoke outside: not sure yet",
      measures,
      reasons: [...doubts, ...capOffs],
      zones: [],
    };
  }
  const zones = tightZones(reach, shown, layout);
  const untested = zones.filter((z) => z.state === "not-reached");
  const untestedWords = untested.map((z) => `${zoneName(z.zone)} untested: ${z.why}`);
  // A hole that is told from none and smaller than must be caught is no tight system: the search goes on where a smell does.
  if (hole && (reading.flow?.low ?? 0) > 0) {
    return {
      outcome: "pass",
      word: WITHIN,
      headline: `Leaks like a ${size} hole: inside what must be caught, and not tight`,
      measures,
      reasons: [
        "no smoke was seen for it; where a smell or the complaint remains, it is still to be found",
        ...untestedWords,
        hidden,
        ...capOffs,
      ],
      zones: zones.map((z) =>
        z.state === "tight" ? { ...z, state: "reached", why: "smoke was there; something still passes" } : z,
      ),
    };
  }
  return {
    outcome: "pass",
    headline:
      untested.length > 0
        ? `Tight as far as it reached; ${untested.map((z) => zoneName(z.zone)).join(", ")} untested`
        : "Smoke everywhere inside, none outside",
    measures,
    reasons: [
      ...(hole ? [`a hole of ${formatNumber(1000 * hole.high, 2)} mm or more would have shown`] : []),
      ...untestedWords,
      hidden,
      ...capOffs,
    ],
    observation: "smoke-none-outside",
    zones,
  };
}
