import { massFlowOfStandard } from "../../gas/air";
import { holeFromBall, standardFlowOfBall } from "../../gas/flow-ball";
import { leakDiameter } from "../../gas/orifice";
import { fitSettling, type Settling } from "../../gas/settle";
import { settleTimeConstant } from "../../gas/vessel";
import { ballCurve } from "../../shop/machine";
import { formatNumber, fromSi, toSi, UNITS } from "../../units";
import { entryZone, type Layout, type Reach, reachOf } from "../../vehicle";
import type { CheckContext, Measure, Verdict, ZoneKnowledge } from "../check";
import type { SmokeRun } from "./record";

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
  /** Equivalent hole of all that flows out, m */
  readonly hole?: { readonly diameter: number; readonly low: number; readonly high: number };
}

/** Flow and pressure of a run, settled values and the hole they make together; void traps are not looked at here. */
export function readSmoke(run: SmokeRun, reach: Reach): SmokeReading {
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
  const expectedTime = settleTimeConstant({ volume: reach.volume, setPressure: rated, ambient, maxFlow });
  const base = { times, flows, pressures, expectedTime };
  if (times.length < 3) return base;
  const guess = Math.max(2, 3 * expectedTime);
  const flow = fitSettling(times, flows, guess, 0.02 * maxFlow);
  const pressure = fitSettling(times, pressures, guess, 0.02 * rated);
  if (!(pressure.value > 5)) return { ...base, flow, pressure };
  const hole = (q: number, p: number) =>
    leakDiameter({
      massFlow: massFlowOfStandard(Math.max(0, q)),
      upstream: ambient + Math.max(1, p),
      downstream: ambient,
      temperature,
    });
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

/**
 * The first trap of the machine and its run, whatever circuit it fills; undefined when none does.
 * @param rated Pa gauge, what the machine is set to.
 */
export function machineTrap(
  run: SmokeRun,
  reading: SmokeReading,
  { limits, layout }: Pick<CheckContext, "limits" | "layout">,
  rated: number,
): string | undefined {
  const proofShare = limits.machineProof.value;
  if (!run.proof)
    return "the machine was never proved: clamp the hose, see rated pressure and the ball at the bottom, then run again";
  if (toSi(run.proof.pressure) < proofShare * rated) {
    return `the machine proved only ${formatNumber((100 * toSi(run.proof.pressure)) / rated, 0)} % of its rated pressure (${formatNumber(proofShare * 100, 0)} % needed): service it first`;
  }
  if (!run.proof.ballAtBottom) return "with the hose clamped the ball did not sit at the bottom: the machine or its hose leaks";
  if (!run.proof.smokeSeen) return "no smoke came from the open hose at proof: check heater and fluid";
  const offAt = run.heaterOnAt + run.machine.autoOff;
  if (offAt < run.endedAt) {
    return `heater and pump timed out ${formatNumber(run.endedAt - offAt, 0)} s before the run ended: the ball fell because nothing was being pushed`;
  }
  if (run.cameUndone.length > 0) return `${names(run.cameUndone, layout)} came undone, dropped out or wept during the run`;
  if (run.touchedBefore.length > 0)
    return `${names(run.touchedBefore, layout)} was touched before the check: the evidence is gone`;
  if (run.adapterLeaks) return "the adapter leaked at its own threads or cone";
  const maxFlow = toSi(run.machine.maxFlow);
  const [firstFlow] = reading.flows;
  const early = (reading.times[0] ?? Infinity) <= 2;
  if (early && (firstFlow ?? 0) < BALL_DOWN * maxFlow && (reading.pressures[0] ?? 0) > 0.5 * rated) {
    return "the flow fell to zero the moment the hose went on: the port is not open (core not pressed, hose kinked)";
  }
  if (reading.times.length < 3) return "fewer than three readings were taken: follow the ball until it settles";
  if (run.seen.length === 0 && reading.flow && !reading.flow.settled) {
    return `still filling: about ${formatNumber(reading.flow.timeLeft, 0)} s were missing until the ball settles`;
  }
  return undefined;
}

/** The first trap that makes a run void, with what to do; undefined when none does. */
function voidTrap(run: SmokeRun, reach: Reach, reading: SmokeReading, context: CheckContext): string | undefined {
  const trap = machineTrap(run, reading, context, toSi(run.machine.ratedPressure));
  if (trap) return trap;
  const [openEnd] = reach.openEnds;
  if (run.seen.length === 0 && openEnd) return `${openEnd.name} was left open: the fill escaped there. Seal it and run again`;
  if (run.seen.length === 0 && run.draughtOrGlare) return "draught or bright daylight: smoke could not have been seen";
  return undefined;
}

export const names = (ids: readonly string[], layout: Layout) =>
  ids.map((id) => layout.joints.find((j) => j.id === id)?.name ?? id).join(", ");

/** Judges an intake smoke run: traps first, then smoke seen, then an inside path, then tight as far as shown. */
export function judgeSmoke(run: SmokeRun, context: CheckContext): Verdict {
  const reach = reachOf(context.layout, run);
  const verdict = judgeRun(run, reach, context);
  if (verdict.outcome === "void") return verdict;
  // What the fill reaches is not yet tested: smoke must have been shown there.
  const shown = new Set<string>(verdict.zones.filter((z) => z.state !== "not-reached").map((z) => z.zone));
  return { ...verdict, tested: reach.tested.filter((j) => shown.has(j.from) || shown.has(j.to)).map((j) => j.id) };
}

function judgeRun(run: SmokeRun, reach: Reach, context: CheckContext): Verdict {
  const { layout, house } = context;
  const reading = readSmoke(run, reach);
  const trap = voidTrap(run, reach, reading, context);
  if (trap) return { outcome: "void", headline: "This run proves nothing", measures: [], reasons: [trap], zones: [] };
  const measures = smokeMeasures(run, reading);

  const joint = (id: string) => layout.joints.find((j) => j.id === id);
  const entry = joint(run.entry);
  const shown = new Set<string>([...(entry ? [entryZone(entry)] : []), ...run.arrivals.map((a) => a.zone)]);
  const hidden = entry ? [`${entry.name} was hidden by the hose: untested until re-checked`] : [];
  const zeroed = run.zeroed ? [] : ["gauge and ball were not at zero before the run: the size is not to be trusted"];
  const unshown = reach.zones.filter((z) => !shown.has(z) && !reach.behindEngine.includes(z));
  const top = run.machine.calibration && Math.max(...run.machine.calibration.points.map((p) => p.height));
  const beyond =
    top !== undefined && run.samples.some((s) => s[1] > top)
      ? ["the ball stood above its last calibrated height: flow there is held, not known"]
      : [];
  const zoneName = (id: string) => layout.zones.find((z) => z.id === id)?.name ?? id;
  const untested = unshown.length > 0 ? [`arrival of smoke not shown, so untested: ${unshown.map(zoneName).join(", ")}`] : [];
  const throughEngine = reach.zones.includes("cylinders")
    ? ["the flow includes what passes the open engine valves: a size here is of all openings together"]
    : [];

  const [first] = run.seen;
  if (first) {
    const places = [...new Set(run.seen.map((s) => s.joint))];
    const leaking = new Map(places.map((id) => [joint(id)?.from, id]));
    const zones = layout.zones.map((z): ZoneKnowledge => {
      const at = leaking.get(z.id);
      if (at) return { zone: z.id, state: "leaking", joint: at, why: `smoke seen at ${names([at], layout)}` };
      if (shown.has(z.id)) return { zone: z.id, state: "reached", why: "smoke reached it while another joint leaked" };
      return { zone: z.id, state: "not-reached", why: "this run did not show smoke here" };
    });
    return {
      outcome: "fail",
      headline: `Smoke at ${names(places, layout)}`,
      measures,
      reasons: [
        ...zeroed,
        ...throughEngine,
        ...beyond,
        ...hidden,
        ...(house.dye === "uv" ? ["UV lamp: residue inside a nested seal only means that seal works"] : []),
        "cap it off and see the reading recover: that confirms, or shows a second leak",
      ],
      observation: `smoke-at:${first.joint}`,
      zones,
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
  const school = schoolVerdict(run, reach, reading, context);
  if (school) return { outcome: "unsure", ...school, measures, zones: [] };
  const zones = layout.zones.map(
    (z): ZoneKnowledge =>
      shown.has(z.id)
        ? { zone: z.id, state: "tight", why: "smoke was there and none came out" }
        : {
            zone: z.id,
            state: "not-reached",
            why: reach.behindEngine.includes(z.id)
              ? "it lies behind the engine's valves, no part of an intake run"
              : reach.zones.includes(z.id)
                ? "arrival of smoke was not shown"
                : "this fill does not reach it",
          },
  );
  return {
    outcome: "pass",
    headline:
      untested.length > 0
        ? `Tight as far as smoke was shown; ${unshown.map(zoneName).join(", ")} untested`
        : "Tight: smoke everywhere inside, none outside",
    measures,
    reasons: [
      ...untested,
      ...throughEngine,
      ...beyond,
      ...hidden,
      ...(house.verdictBy === "decay" ? ["decay says nothing through open engine valves: judged by flow"] : []),
    ],
    observation: "smoke-none-outside",
    zones,
  };
}

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
