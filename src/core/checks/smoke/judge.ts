import { massFlowOfStandard } from "../../gas/air";
import { leakDiameter } from "../../gas/orifice";
import { inSentence } from "../../sentence";
import { formatNumber, fromSi, toSi, UNITS } from "../../units";
import { entryZone, type Layout, noWayIn, type Reach, reachOf } from "../../vehicle";
import type { CheckContext } from "../context";
import { leaksSeen, weepsSeen } from "../seen";
import type { Measure, Verdict, ZoneKnowledge } from "../verdict";
import type { SmokeRun } from "./fields";
import { coarseFor, readSmoke, type SmokeReading } from "./reading";
import type { Seen } from "./rows";
import { alsoAt, machineTrap, names, type Trap, trappedVerdict } from "./traps";

/** Share of the machine's full flow above which the ball is held high. */
const BALL_HIGH = 0.7;
/**
 * Zones that a run showed smoke in: where it went in and every arrival that this fill can have made. One marked beyond what
 * the fill reaches is astray: the set-up was another, or what should stop smoke lets it by. It clears nothing there.
 */
export function arrivalsOf(
  run: SmokeRun,
  reach: Reach,
  layout: Layout,
): { readonly shown: ReadonlySet<string>; readonly astray?: string; readonly hasty?: string } {
  const start = entryZone(layout, run);
  const marked = [...new Set(run.arrivals.map((a) => a.zone))];
  const within = marked.filter((zone) => reach.zones.includes(zone));
  const beyond = layout.zones.filter((z) => marked.includes(z.id) && !reach.zones.includes(z.id)).map((z) => inSentence(z.name));
  const atOnce = clockedAtOnce(run.arrivals);
  return {
    shown: new Set([...(start ? [start] : []), ...within]),
    ...(atOnce > 0
      ? {
          hasty: `smoke was clocked at ${atOnce} places one by one within a second, and nobody sees so many at once: open each again and clock it as smoke comes, or say "Smoke at all of them" once it has come at each`,
        }
      : {}),
    ...(beyond.length > 0
      ? {
          astray: `smoke was marked in ${beyond.join(", ")}, which this set-up does not reach: correct the set-up, or find what lets it by, and run again`,
        }
      : {}),
  };
}

/** Seconds in which one pair of eyes sees smoke come at no more than two places. */
const GLANCE = 1;
/** So many places were clocked one by one within a glance; 0 where none were. Said of several at one moment, it is a word on all of them. */
function clockedAtOnce(arrivals: SmokeRun["arrivals"]): number {
  const times = arrivals.map((a) => a.at).sort((a, b) => a - b);
  const within = times.map((from) => times.filter((t) => t >= from && t < from + GLANCE));
  const most = within.toSorted((a, b) => b.length - a.length).find((w) => new Set(w).size > 2);
  return most?.length ?? 0;
}

/** The first trap that makes a run void, with what to do; undefined when none does. */
function voidTrap(run: SmokeRun, reach: Reach, reading: SmokeReading, context: CheckContext): Trap | undefined {
  const shut = noWayIn(context.layout, run);
  if (shut) return { why: shut };
  const trap = machineTrap(run, reading, context, toSi(run.machine.ratedPressure));
  if (trap) return trap;
  const [openEnd] = reach.openEnds;
  if (run.seen.length === 0 && openEnd)
    return { why: `${openEnd.name} was left open: the fill escaped there. Seal it and run again` };
  if (run.seen.length === 0 && run.draughtOrGlare) return { why: "draught or bright daylight: smoke could not have been seen" };
  return undefined;
}

/** Judges an intake smoke run: traps first, then smoke seen, then an inside path, then tight as far as shown. */
export function judgeSmoke(run: SmokeRun, context: CheckContext): Verdict<Seen> {
  const reach = reachOf(context.layout, run);
  const verdict = judgeRun(run, reach, context);
  if (verdict.outcome === "void" || verdict.tested) return verdict;
  // What the fill reaches is not yet tested: smoke must have been shown there.
  const shown = new Set<string>(verdict.zones.filter((z) => z.state !== "not-reached").map((z) => z.zone));
  return { ...verdict, tested: reach.tested.filter((j) => shown.has(j.from) || shown.has(j.to)).map((j) => j.id) };
}

function judgeRun(run: SmokeRun, reach: Reach, context: CheckContext): Verdict<Seen> {
  const { layout, house } = context;
  const reading = readSmoke(run, reach);
  const trap = voidTrap(run, reach, reading, context);
  if (trap) return trappedVerdict(run, trap, layout);
  const measures = smokeMeasures(run, reading, reach.zones.includes("cylinders"));

  const joint = (id: string) => layout.joints.find((j) => j.id === id);
  const entry = joint(run.entry);
  const { shown, astray, hasty } = arrivalsOf(run, reach, layout);
  const hidden = entry ? [`${entry.name} was hidden by the hose: untested until re-checked`] : [];
  const zeroed = run.zeroed ? [] : ["gauge and ball were not at zero before the run: the size is not to be trusted"];
  const unshown = reach.zones.filter((z) => !shown.has(z) && !reach.behindEngine.includes(z));
  const beyond =
    reading.atLeast !== undefined
      ? [
          `the ball stood above its last calibrated height: at least ${formatNumber(1000 * reading.atLeast, 1)} mm, the rest is not known`,
        ]
      : [];
  const zoneName = (id: string) => layout.zones.find((z) => z.id === id)?.name ?? id;
  const untested = unshown.length > 0 ? [`arrival of smoke not shown, so untested: ${unshown.map(zoneName).join(", ")}`] : [];
  const throughEngine = reach.zones.includes("cylinders")
    ? ["the flow includes what passes the open engine valves: a size here is of all openings together"]
    : [];

  const weeps = weepsSeen(run, layout);
  const weeping =
    weeps.length > 0
      ? [
          `${names(weeps, layout)} passes some by design: plug it and compare the ball with and without before calling it a finding`,
        ]
      : [];
  const leaks = leaksSeen(run, layout);
  if (leaks.length > 0) {
    const doubts = [...zeroed, ...ballDown(reading), ...throughEngine, ...beyond, ...hidden];
    return { ...leakVerdict(leaks, shown, context, [doubts, weeping]), measures };
  }
  if (weeps.length > 0) {
    return {
      outcome: "unsure",
      headline: `Smoke only at ${names(weeps, layout)}, where some passes by design`,
      measures,
      reasons: [...weeping, ...untested],
      zones: [],
    };
  }
  const share = reading.flow ? reading.flow.value / toSi(run.machine.maxFlow) : 0;
  if (!run.noSmokeOutside) {
    return {
      outcome: "unsure",
      headline: "Settled, but nobody has looked yet",
      measures,
      reasons: ["look along every joint, then mark smoke or say there is none", ...untested],
      zones: [],
    };
  }
  if (share >= BALL_HIGH) {
    return {
      outcome: "fail",
      headline: "Ball held high and no smoke outside: an inside path",
      measures,
      reasons: ["EGR valve, crankcase breather, bypass valve or a valve held open passes it inside", ...untested, ...hidden],
      observation: "smoke-inside-path",
      zones: [],
    };
  }
  if (!run.zeroed) {
    return {
      outcome: "unsure",
      headline: "No smoke outside, but the instrument was not at zero",
      measures,
      reasons: ["zero gauge and ball, then repeat", ...untested],
      zones: [],
    };
  }
  const finest = seenFrom(run, reach, reading, context);
  const seeable: Measure[] = [
    ...measures,
    ...(finest.smallest === undefined
      ? []
      : [
          {
            name: "Smallest hole this run could have seen",
            value: fromSi(finest.smallest, "mm"),
            limit: `${formatNumber(1000 * finest.needed, 1)} mm must be caught`,
            limitSource: finest.source,
          },
        ]),
  ];
  if (finest.passing)
    return { ...finest.passing, measures: seeable, reasons: [...finest.passing.reasons, ...untested, ...hidden] };
  const school = schoolVerdict(run, reach, reading, context);
  if (school) return { outcome: "unsure", ...school, measures: seeable, zones: [] };
  if (astray) {
    return {
      outcome: "unsure",
      headline: "No smoke outside, but smoke where this set-up sends none",
      measures: seeable,
      reasons: [astray, ...untested, ...hidden],
      zones: [],
    };
  }
  if (hasty)
    return {
      outcome: "unsure",
      headline: "No smoke outside, but nobody can have seen it arrive everywhere",
      measures: seeable,
      reasons: [hasty, ...untested, ...hidden],
      zones: [],
    };
  return {
    outcome: "pass",
    headline:
      untested.length > 0
        ? `Tight as far as smoke was shown; ${unshown.map(zoneName).join(", ")} untested`
        : "Smoke everywhere inside, none outside",
    measures: seeable,
    reasons: [
      ...(finest.smallest === undefined
        ? []
        : [`a hole of ${formatNumber(1000 * finest.smallest, 1)} mm or more would have shown`]),
      ...untested,
      ...throughEngine,
      ...beyond,
      ...hidden,
      ...(house.verdictBy === "decay" ? ["decay says nothing through open engine valves: judged by flow"] : []),
    ],
    observation: "smoke-none-outside",
    zones: tightZones(reach, shown, context),
  };
}

/** Smoke was seen, and the ball told no flow: one of the two is not what it looks. */
export const ballDown = ({ flow }: Pick<SmokeReading, "flow">): string[] =>
  flow?.settled && flow.low <= 0
    ? [
        "the ball lay at the bottom meanwhile: the leak passes less than it shows, or the ball sticks. Tap the tube and look again",
      ]
    : [];

/** Smoke was seen: where, and what the run still leaves open; doubts stand before what to do, what weeps by design after it. */
function leakVerdict(
  leaks: ReturnType<typeof leaksSeen>,
  shown: ReadonlySet<string>,
  { layout, house }: CheckContext,
  [doubts, weeping]: readonly [readonly string[], readonly string[]],
): Omit<Verdict<Seen>, "measures"> {
  const places = [...new Set(leaks.map((s) => s.joint))];
  const leaking = new Map(places.map((id) => [layout.joints.find((j) => j.id === id)?.from, id]));
  const zones = layout.zones.map((z): ZoneKnowledge => {
    const at = leaking.get(z.id);
    if (at) return { zone: z.id, state: "leaking", joint: at, why: `smoke seen at ${names([at], layout)}` };
    if (shown.has(z.id)) return { zone: z.id, state: "reached", why: "smoke reached it while another joint leaked" };
    return { zone: z.id, state: "not-reached", why: "this run did not show smoke here" };
  });
  return {
    outcome: "fail",
    headline: `Smoke at ${names(places, layout)}`,
    reasons: [
      ...doubts,
      ...(house.dye === "uv" ? ["UV lamp: residue inside a nested seal only means that seal works"] : []),
      "cap it off and see the reading recover: that confirms, or shows a second leak",
      ...weeping,
    ],
    observation: `smoke-at:${places[0]}`,
    ...alsoAt(places),
    zones,
  };
}

/** Claims of a run without smoke outside of each zone: tight only where smoke was shown. */
const tightZones = (reach: Reach, shown: ReadonlySet<string>, { layout }: CheckContext): ZoneKnowledge[] =>
  layout.zones.map((z) => {
    if (shown.has(z.id)) return { zone: z.id, state: "tight", why: "smoke was there and none came out" };
    const why = reach.behindEngine.includes(z.id)
      ? "it lies behind the engine's valves, no part of an intake run"
      : reach.zones.includes(z.id)
        ? "arrival of smoke was not shown"
        : "this fill does not reach it";
    return { zone: z.id, state: "not-reached", why };
  });

/** A stream of smoke this strong shows under a lamp, m³/s standard; own judgement. */
const SEEN_FLOW = 0.4e-3 / 60;

interface SeenFrom {
  /** Smallest hole that would have shown, m */
  readonly smallest?: number;
  /** Hole that must be caught in this fill, m, and who says so */
  readonly needed: number;
  readonly source: string;
  /** Why the run cannot pass, as the verdict to give */
  readonly passing?: Pick<Verdict<Seen>, "outcome" | "headline" | "reasons" | "zones" | "observation">;
}

/**
 * Smallest hole that a run without smoke outside could have shown. Without cylinders in the fill the ball itself must lie at the bottom
 * within its division, and steady flow that nothing explains is no pass. Through the engine's open valves the ball says
 * nothing of a small leak: there smoke itself must have been strong enough to see at the pressure that was left.
 */
function seenFrom(run: SmokeRun, reach: Reach, reading: SmokeReading, { limits }: CheckContext): SeenFrom {
  const manifold = reach.tested.some((j) => !DUCTS.includes(j.from));
  const caught = manifold ? limits.caughtManifold : limits.caughtDuct;
  const base = { needed: caught.value, source: caught.source };
  const unsure = (headline: string, ...reasons: string[]): SeenFrom["passing"] => ({
    outcome: "unsure",
    headline,
    reasons,
    zones: [],
  });
  if (run.machine.plain) {
    return {
      ...base,
      passing: unsure(
        "Nothing seen; a machine without ball and gauge clears nothing",
        "it can find a leak and cannot say that there is none: take a machine that measures, or another check",
      ),
    };
  }
  const { flow, hole, pressure, atLeast } = reading;
  const mm = (m: number) => `${formatNumber(1000 * m, 1)} mm`;
  if (!reach.zones.includes("cylinders")) {
    if (atLeast !== undefined || !hole || !flow)
      return {
        ...base,
        passing: unsure(
          "No smoke outside; the ball gives no size",
          "it stands beyond its calibration, or has no pressure to be read with",
        ),
      };
    const told = flow.low > 0;
    if (told && hole.low >= caught.value) {
      return {
        ...base,
        smallest: hole.low,
        passing: {
          outcome: "fail",
          headline: `Passes the flow of a ${mm(hole.diameter)} hole with no smoke outside`,
          reasons: ["an inside path, a blank that weeps, or a place nobody has looked at: cap off one by one"],
          zones: [],
          observation: "smoke-inside-path",
        },
      };
    }
    if (told) {
      return {
        ...base,
        passing: unsure(
          `No smoke outside, but ${mm(hole.diameter)} of openings still pass`,
          "steady flow that nothing explains is no tight circuit: plug or cap off part by part until it stops",
        ),
      };
    }
    const coarse = coarseFor(run, caught.value, pressure?.value ?? 0);
    if (coarse || hole.high > caught.value) {
      return {
        ...base,
        smallest: hole.high,
        passing: unsure(
          "No smoke outside, and the ball is too coarse to say tight",
          coarse ??
            `what it cannot tell from none is ${mm(hole.high)}, and ${mm(caught.value)} must be caught (${caught.source}): take a finer ball, or time the decay`,
        ),
      };
    }
    return { ...base, smallest: hole.high };
  }
  const left = Math.max(1, pressure?.low ?? 1);
  const smallest = leakDiameter({
    massFlow: massFlowOfStandard(SEEN_FLOW),
    upstream: toSi(run.ambient) + left,
    downstream: toSi(run.ambient),
    temperature: toSi(run.temperature),
  });
  if (smallest <= caught.value) return { ...base, smallest };
  return {
    ...base,
    smallest,
    passing: unsure(
      "No smoke outside, at too little pressure to say tight",
      `the open valves leave so little pressure that a hole below ${mm(smallest)} would hardly show, and ${mm(caught.value)} must be caught: move the crank, or section it`,
    ),
  };
}

/** Zones whose leaks count from 2 mm: the duct side, crankcase and charge pipes. */
const DUCTS: readonly string[] = ["filter-box", "metered-duct", "breather", "crankcase", "hot-pipe", "cooler", "cold-pipe"];

/** A flow this small a ball hardly shows, m equivalent hole. */
const SMALL_FOR_A_BALL = 0.5e-3;

/**
 * Steps that the shop's method still asks for before a quiet run may be called tight. Through a standing engine's open valves
 * only flow can be read, so there no school asks for more.
 */
function schoolVerdict(
  run: SmokeRun,
  reach: Reach,
  reading: SmokeReading,
  { house, limits }: CheckContext,
): { headline: string; reasons: string[] } | undefined {
  if (reach.zones.includes("cylinders")) return undefined;
  if (house.verdictBy === "decay") {
    return {
      headline: "No smoke outside; this shop's verdict is by decay",
      reasons: ["shut the supply off and time the fall: the ball does not show the smallest leaks"],
    };
  }
  const rated = toSi(run.machine.ratedPressure);
  const share = (reading.pressure?.value ?? 0) / rated;
  if (house.verdictBy === "gauge" && share < limits.machineProof.value) {
    return {
      headline: `No smoke outside, but the gauge stays at ${formatNumber(100 * share, 0)} % of rated pressure`,
      reasons: ["this shop's verdict is by gauge: something takes the pressure down. Section the circuit and watch it come up"],
    };
  }
  const hole = reading.hole?.diameter ?? 0;
  if (house.verdictBy === "flow" && hole > 0.2e-3 && hole < SMALL_FOR_A_BALL) {
    return {
      headline: `No smoke outside, but ${formatNumber(hole * 1000, 1)} mm of openings still pass`,
      reasons: ["too small for a ball to judge: shut the supply off and time the fall"],
    };
  }
  return undefined;
}

/** Settled flow, pressure and the hole they make, as far as the run has settled. */
export function smokeMeasures(run: SmokeRun, reading: SmokeReading, throughEngine = false): Measure[] {
  const { flow, pressure, hole } = reading;
  // A run that has not settled has no size yet.
  if (!flow?.settled || !pressure) return [];
  const flowUnit = UNITS[run.units.flow];
  const pressureUnit = UNITS[run.units.pressure];
  return [
    {
      name: "Flow, 20 °C and 101.325 kPa",
      value: fromSi(Math.max(0, flow.value), run.units.flow),
      low: Math.max(0, flow.low / flowUnit.scale),
      high: flow.high / flowUnit.scale,
    },
    {
      name: "Pressure",
      value: fromSi(pressure.value, run.units.pressure, "gauge"),
      low: pressure.low / pressureUnit.scale,
      high: pressure.high / pressureUnit.scale,
    },
    ...(hole
      ? [
          {
            name: throughEngine
              ? "All openings and what the engine's valves pass, as one sharp-edged hole (Cd 0.61)"
              : "All openings as one sharp-edged hole (Cd 0.61)",
            value: fromSi(hole.diameter, "mm"),
            low: hole.low * 1000,
            high: hole.high * 1000,
          },
        ]
      : []),
  ];
}
