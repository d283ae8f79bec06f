import { GAMMA, massFlowOfStandard } from "../../gas/air";
import { holeFromBall, standardFlowOfBall } from "../../gas/flow-ball";
import { leakDiameter } from "../../gas/orifice";
import { fitSettling, type Settling } from "../../gas/settle";
import { settleTimeConstant } from "../../gas/vessel";
import { stretchEdges, stretchMeans } from "../../maths/thin";
import { inSentence } from "../../sentence";
import { ballCurve } from "../../shop/machine";
import { formatNumber, fromSi, toSi, UNITS } from "../../units";
import { entryZone, type Layout, noWayIn, type Reach, reachOf } from "../../vehicle";
import type { CheckContext } from "../context";
import { leaksSeen, pastPlugs, weepsSeen } from "../seen";
import { type Measure, type Verdict, voidVerdict, type ZoneKnowledge } from "../verdict";
import type { SmokeRun } from "./fields";
import type { Seen } from "./rows";

/** Share of the machine's full flow above which the ball is held high. */
const BALL_HIGH = 0.7;
/** Share of full flow at which a ball counts as lying at the bottom. */
const BALL_DOWN = 0.03;

/** The run's samples in SI with the settling of flow and pressure, as far as they can be told. */
export interface SmokeReading {
  readonly times: readonly number[];
  /** m³/s standard */
  readonly flows: readonly number[];
  /** Pa gauge */
  readonly pressures: readonly number[];
  readonly flow?: Settling;
  readonly pressure?: Settling;
  /** Expected settling time constant from volume and machine, s */
  readonly expectedTime: number;
  /** Equivalent hole of all that flows out, m; absent where the ball stands beyond its calibration */
  readonly hole?: { readonly diameter: number; readonly low: number; readonly high: number };
  /** The ball settled above its last calibrated height: the hole is at least this, m */
  readonly atLeast?: number;
}

/** A ball's scale is read to this share of its top where nobody said how finely it is divided. */
const USUAL_DIVISION = 1 / 40;
/** Longest series that is fitted whole: longer ones are thinned to the means of as many stretches. */
const MOST_FITTED = 80;

/**
 * Means of stretches of a long series, short ones first: the rush is over in a few time constants, the rest stands still.
 * A short series stays as it is.
 */
export function thinned(times: readonly number[], values: readonly number[]): readonly [number[], number[]] {
  if (times.length <= MOST_FITTED) return [[...times], [...values]];
  const edges = stretchEdges(times.length, MOST_FITTED, 2);
  return [stretchMeans(times, edges), stretchMeans(values, edges)];
}

/** Flow and pressure of a run, settled values and the hole they make together; void traps are not looked at here. */
export function readSmoke(run: SmokeRun, { volume }: Pick<Reach, "volume">): SmokeReading {
  const known = readings.get(run);
  if (known?.volume === volume) return known.reading;
  const reading = readAnew(run, volume);
  readings.set(run, { volume, reading });
  return reading;
}

/** A run is fitted for its verdict, and again each time it is held against others: once is enough. */
const readings = new WeakMap<SmokeRun, { readonly volume: number; readonly reading: SmokeReading }>();

function readAnew(run: SmokeRun, volume: number): SmokeReading {
  const flowScale = UNITS[run.units.flow].scale;
  const pressureScale = UNITS[run.units.pressure].scale;
  const maxFlow = toSi(run.machine.maxFlow);
  const rated = toSi(run.machine.ratedPressure);
  const ambient = toSi(run.ambient);
  const temperature = toSi(run.temperature);
  const times = run.samples.map((s) => s[0]);
  const pressures = run.samples.map((s) => s[2] * pressureScale);
  // A machine's own curve was taken with air at its set pressure: it gives standard flow at once.
  const curve = run.machine.calibration && ballCurve(run.machine.calibration, { ambient, temperature });
  const flows = run.samples.map((s, i) =>
    curve ? curve.flowAt(s[1]).flow : standardFlowOfBall(s[1] * flowScale, ambient + (pressures[i] as number), temperature),
  );
  const expectedTime = settleTimeConstant({ volume, setPressure: rated, ambient, maxFlow });
  const base = { times, flows, pressures, expectedTime };
  if (times.length < 3) return base;
  const guess = Math.max(2, 3 * expectedTime);
  const approach = (values: readonly number[], resolution: number) => fitSettling(...thinned(times, values), guess, resolution);
  const settled = approach(flows, 0.02 * maxFlow);
  const pressure = approach(pressures, 0.02 * rated);
  // However well the fit settles, the ball was read to half a division.
  const half = (run.machine.division ? toSi(run.machine.division) : USUAL_DIVISION * maxFlow) / 2;
  const flow: Settling = {
    ...settled,
    low: Math.min(settled.low, settled.value - half),
    high: Math.max(settled.high, settled.value + half),
  };
  if (!(pressure.value > 5)) return { ...base, flow, pressure };
  const hole = (q: number, p: number) =>
    leakDiameter({
      massFlow: massFlowOfStandard(Math.max(0, q)),
      upstream: ambient + Math.max(1, p),
      downstream: ambient,
      temperature,
    });
  const last = run.samples.slice(-Math.max(3, Math.floor(run.samples.length / 4)));
  const beyond = curve && last.some((s) => curve.flowAt(s[1]).extrapolated && s[1] > 0);
  if (beyond) return { ...base, flow, pressure, atLeast: hole(flow.value, pressure.value) };
  return {
    ...base,
    flow,
    pressure,
    hole: {
      diameter: holeFromBall(Math.max(0, flow.value), pressure.value, ambient, temperature),
      low: hole(flow.low, pressure.high),
      high: hole(flow.high, pressure.low),
    },
  };
}

/** A trap that spoils a run, and when it closed, s of the run; what was seen before stays seen. */
export interface Trap {
  readonly why: string;
  readonly from?: number;
}

/** Share of the rated pressure and of full flow below which a machine pushes nothing. */
const NO_PRESSURE = 0.08;
const SOME_FLOW = 0.5;
/** A reading above what the machine makes by more than this is none of its own. */
const BEYOND_MACHINE = 1.25;
/** The first reading must be taken as the hose goes on, s: later a shut port looks like a tight circuit. */
const AT_ONCE = 2;

/** What no machine, no run and no physics can have given; undefined where every reading is possible. */
function impossible(run: SmokeRun, reading: SmokeReading, rated: number): string | undefined {
  const maxFlow = toSi(run.machine.maxFlow);
  const top = Math.max(...run.samples.map((s) => s[1])) * UNITS[run.units.flow].scale;
  const outside = [...run.seen, ...run.arrivals].find((e) => e.at < -1 || e.at > run.endedAt + 1);
  if (outside) return "something was noted outside the run's own time";
  if ((run.samples.at(-1)?.[0] ?? 0) > run.endedAt + 2) return "readings go on after the run had ended";
  if (run.samples.length === 0) return undefined;
  if (!run.machine.calibration && top > BEYOND_MACHINE * maxFlow) return "the ball shows more than this machine can push";
  const most = Math.max(rated, run.proof?.pressure ? toSi(run.proof.pressure) : 0);
  if (Math.max(...reading.pressures) > BEYOND_MACHINE * most) return "the gauge shows more pressure than this machine makes";
  const end = reading.pressures.slice(-Math.max(3, Math.floor(reading.pressures.length / 3)));
  const flows = reading.flows.slice(-end.length);
  const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;
  if (end.length >= 3 && mean(end) < NO_PRESSURE * rated && mean(flows) < SOME_FLOW * maxFlow)
    return "neither pressure nor full flow: nothing was being pushed. Look at pump, valve and hose";
  return undefined;
}

/**
 * The first trap of the machine and its run, whatever circuit it fills; undefined when none does.
 * @param rated Pa gauge, what the machine is set to.
 */
export function machineTrap(
  run: SmokeRun,
  reading: SmokeReading,
  { limits, layout }: Pick<CheckContext, "limits" | "layout">,
  rated: number,
): Trap | undefined {
  const because = (why: string, from?: number): Trap => ({ why, ...(from === undefined ? {} : { from }) });
  const proofShare = limits.machineProof.value;
  const { proof, machine } = run;
  if (!proof)
    return because("the machine was never proved: clamp the hose, see rated pressure and the ball at the bottom, then run again");
  if (!proof.smokeSeen) return because("no smoke came from the open hose at proof: check heater and fluid");
  if (!machine.plain && !proof.pressure)
    return because("nobody read the pressure with the hose clamped: prove the machine, then run again");
  if (proof.pressure && toSi(proof.pressure) < proofShare * rated) {
    return because(
      `the machine proved only ${formatNumber((100 * toSi(proof.pressure)) / rated, 0)} % of its rated pressure (${formatNumber(proofShare * 100, 0)} % needed): service it first`,
    );
  }
  if (!machine.plain && !proof.ballAtBottom)
    return because("with the hose clamped the ball did not sit at the bottom: the machine or its hose leaks");
  const cannot = impossible(run, reading, rated);
  if (cannot) return because(cannot);
  const offAt = run.heaterOnAt + machine.autoOff;
  if (offAt < run.endedAt) {
    return because(
      `heater and pump timed out ${formatNumber(run.endedAt - offAt, 0)} s before the run ended: the ball fell because nothing was being pushed`,
      offAt,
    );
  }
  if (run.cameUndone.length > 0)
    return because(`${names(run.cameUndone, layout)} came undone, dropped out or wept during the run`);
  if (run.touchedBefore.length > 0)
    return because(`${names(run.touchedBefore, layout)} was touched before the check: the evidence is gone`);
  if (run.adapterLeaks) return because("the adapter leaked at its own threads or cone");
  const past = pastPlugs(run);
  if (past.length > 0)
    return because(
      `smoke came past what seals ${names([...new Set(past.map((s) => s.joint))], layout)}: seat it anew and run again`,
      Math.min(...past.map((s) => s.at)),
    );
  if (machine.plain) return undefined;
  const maxFlow = toSi(machine.maxFlow);
  const shut = (i: number) => (reading.flows[i] ?? 0) < BALL_DOWN * maxFlow && (reading.pressures[i] ?? 0) > 0.5 * rated;
  const first = reading.times[0] ?? Number.POSITIVE_INFINITY;
  // A small tight space is full before anybody reads the ball; then smoke at a far end tells it from a port that is not open.
  // Filled so fast the gas keeps its heat, and takes 1/γ of the time.
  const passed = run.arrivals.length > 0 || run.seen.length > 0;
  const full = reading.expectedTime / GAMMA < first && passed;
  if (first <= AT_ONCE && shut(0) && !full)
    return because("the flow fell to zero the moment the hose went on: the port is not open (core not pressed, hose kinked)");
  if (reading.times.length < 3) return because("fewer than three readings were taken: follow the ball until it settles");
  if (first > AT_ONCE && !passed && reading.times.every((_, i) => shut(i))) {
    return because(
      "the first reading came late: a port that was never open looks just like a tight circuit. Read as the hose goes on, or show smoke at a far end",
    );
  }
  if (run.seen.length === 0 && reading.flow && !reading.flow.settled) {
    return because(`still filling: about ${formatNumber(reading.flow.timeLeft, 0)} s were missing until the ball settles`);
  }
  return undefined;
}

/** Smoke goes on coming out for this long after the push has ended, s. */
const LINGERS = 5;

/** Every further place that smoke was seen at. */
export const alsoAt = ([_first, ...more]: readonly string[]): Pick<Verdict<Seen>, "also"> =>
  more.length > 0 ? { also: more.map((id): Seen => `smoke-at:${id}`) } : {};

/** The verdict on a run that fell into a trap: void, unless smoke was seen before the trap closed. That stays evidence. */
export function trappedVerdict(run: SmokeRun, trap: Trap, layout: Layout): Verdict<Seen> {
  // Smoke at the entry itself is the adapter's.
  const own = leaksSeen(run, layout).filter((s) => s.joint !== run.entry);
  const seen = own.filter(
    (s) => s.at >= -1 && s.at <= Math.min(run.endedAt + 1, (trap.from ?? Number.POSITIVE_INFINITY) + LINGERS),
  );
  if (seen.length === 0) return voidVerdict("This run proves nothing", trap.why);
  const places = [...new Set(seen.map((s) => s.joint))];
  return {
    outcome: "fail",
    headline: `Smoke at ${names(places, layout)}; the rest of this run proves nothing`,
    measures: [],
    reasons: [trap.why, "what was seen stays seen: cap it off to confirm, then run again for the rest"],
    observation: `smoke-at:${places[0]}`,
    ...alsoAt(places),
    tested: places,
    zones: places.flatMap((id): ZoneKnowledge[] => {
      const joint = layout.joints.find((j) => j.id === id);
      return joint ? [{ zone: joint.from, state: "leaking", joint: id, why: `smoke seen at ${joint.name}` }] : [];
    }),
  };
}

/**
 * Zones that a run showed smoke in: where it went in and every arrival that this fill can have made. One marked beyond what
 * the fill reaches is astray: the set-up was another, or what should stop smoke lets it by. It clears nothing there.
 */
export function arrivalsOf(
  run: SmokeRun,
  reach: Reach,
  layout: Layout,
): { readonly shown: ReadonlySet<string>; readonly astray?: string } {
  const start = entryZone(layout, run);
  const marked = [...new Set(run.arrivals.map((a) => a.zone))];
  const within = marked.filter((zone) => reach.zones.includes(zone));
  const beyond = layout.zones.filter((z) => marked.includes(z.id) && !reach.zones.includes(z.id)).map((z) => inSentence(z.name));
  return {
    shown: new Set([...(start ? [start] : []), ...within]),
    ...(beyond.length > 0
      ? {
          astray: `smoke was marked in ${beyond.join(", ")}, which this set-up does not reach: correct the set-up, or find what lets it by, and run again`,
        }
      : {}),
  };
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

export const names = (ids: readonly string[], layout: Layout) =>
  ids.map((id) => layout.joints.find((j) => j.id === id)?.name ?? id).join(", ");

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
  const measures = smokeMeasures(run, reading);

  const joint = (id: string) => layout.joints.find((j) => j.id === id);
  const entry = joint(run.entry);
  const { shown, astray } = arrivalsOf(run, reach, layout);
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
    const doubts = [...zeroed, ...throughEngine, ...beyond, ...hidden];
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

/** What a run without smoke outside says of each zone: tight only where smoke was shown. */
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
  /** What must be caught in this fill, m, and who says so */
  readonly needed: number;
  readonly source: string;
  /** Why the run cannot pass, as the verdict to give */
  readonly passing?: Pick<Verdict<Seen>, "outcome" | "headline" | "reasons" | "zones" | "observation">;
}

/**
 * What a run without smoke outside could have seen. Without cylinders in the fill the ball itself must lie at the bottom
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
    if (hole.high > caught.value) {
      return {
        ...base,
        smallest: hole.high,
        passing: unsure(
          "No smoke outside, and the ball is too coarse to say tight",
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
 * What the shop's school still asks for before a quiet run may be called tight. Through a standing engine's open valves
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
export function smokeMeasures(run: SmokeRun, reading: SmokeReading): Measure[] {
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
            name: "All openings as one sharp-edged hole (Cd 0.61)",
            value: fromSi(hole.diameter, "mm"),
            low: hole.low * 1000,
            high: hole.high * 1000,
          },
        ]
      : []),
  ];
}
