import { massFlowOfStandard, standardFlow } from "../../gas/air";
import { holeFromBall, standardFlowOfBall } from "../../gas/flow-ball";
import { leakDiameter, orificeFlow } from "../../gas/orifice";
import { fitSettling, type Settling } from "../../gas/settle";
import { settleTimeConstant } from "../../gas/vessel";
import { stretchEdges, stretchMeans } from "../../maths/thin";
import { ballCurve } from "../../shop/machine";
import { formatNumber, formatQuantity, fromSi, toSi, UNITS } from "../../units";
import type { Reach } from "../../vehicle";
import type { SmokeRun } from "./fields";

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
  /** While it is still filling: what flows in fills it too, so the hole is at most this, m */
  readonly atMost?: number;
}

/** A scale shows a change that is so many of its divisions. */
const DIVISIONS = 5;

/**
 * Why a ball's scale is too coarse for a hole that must be caught: one of its divisions is more than a fifth of what that hole passes at
 * the run's pressure. Undefined where it is fine enough, or nobody said how it is divided.
 * @param required m; @param pressure Pa gauge.
 */
export function coarseFor(
  run: Pick<SmokeRun, "machine" | "ambient" | "temperature">,
  required: number,
  pressure: number,
): string | undefined {
  const { division } = run.machine;
  if (!division || !(pressure > 0)) return undefined;
  const downstream = toSi(run.ambient);
  const { massFlow } = orificeFlow({
    upstream: downstream + pressure,
    downstream,
    temperature: toSi(run.temperature),
    diameter: required,
  });
  const passes = standardFlow(massFlow);
  if (toSi(division) <= (passes / DIVISIONS) * (1 + 1e-9)) return undefined;
  return `one division of this ball is ${formatQuantity(division)} and a ${formatNumber(1000 * required, 2)} mm hole passes ${formatQuantity(fromSi(passes, division.unit))} at this pressure: this tube cannot show it. Shut off and time the decay`;
}

/** A ball's scale is read to this share of its top where nobody said how finely it is divided. */
export const USUAL_DIVISION = 1 / 40;
/** A gauge is read to this share of the machine's rating. */
const GAUGE_READ = 0.02;
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
  // However well the fit settles, the ball was read to half a division.
  const half = (run.machine.division ? toSi(run.machine.division) : USUAL_DIVISION * maxFlow) / 2;
  const hole = (q: number, p: number) =>
    leakDiameter({
      massFlow: massFlowOfStandard(Math.max(0, q)),
      upstream: ambient + Math.max(1, p),
      downstream: ambient,
      temperature,
    });
  const beyondCurve = (height: number) => curve !== undefined && height > 0 && curve.flowAt(height).extrapolated;
  /**
   * By the mass balance of the circuit what leaks out is what flows in less what fills it, V·dp/dt over ambient pressure: nothing, or
   * what it gives back while the gauge falls by no more than its reader can tell. So the last reading bounds the hole, below the top
   * of the scale.
   */
  const bound = (): number | undefined => {
    const [height = 0, shown = 0] = [run.samples.at(-1)?.[1], pressures.at(-1)];
    const sure = shown - GAUGE_READ * rated;
    const inRange = height < (1 - USUAL_DIVISION) * run.machine.maxFlow.value && !beyondCurve(height);
    if (times.length < 2 || !inRange || sure <= 5 || Math.max(...pressures) > shown + GAUGE_READ * rated) return undefined;
    const given = (volume * GAUGE_READ * rated) / ambient / ((times.at(-1) as number) - (times.at(-2) as number));
    return hole((flows.at(-1) as number) + half + given, sure);
  };
  const atMost = bound();
  const base = { times, flows, pressures, expectedTime, ...(atMost === undefined ? {} : { atMost }) };
  if (times.length < 3) return base;
  const guess = Math.max(2, 3 * expectedTime);
  const approach = (values: readonly number[], resolution: number) => fitSettling(...thinned(times, values), guess, resolution);
  const settled = approach(flows, 0.02 * maxFlow);
  const fitted = approach(pressures, GAUGE_READ * rated);
  // No machine gives more than it is rated for or was seen to give, and no gauge stood where nobody read it.
  const [least, most] = [Math.min(...pressures), Math.max(...pressures)];
  const within = (pressure: number, top = most) => Math.min(top, Math.max(Math.min(0, least), pressure));
  const pressure: Settling = {
    ...fitted,
    value: Math.max(least, within(fitted.value)),
    low: within(fitted.low),
    high: within(fitted.high, Math.max(most, rated)),
  };
  const flow: Settling = {
    ...settled,
    low: Math.min(settled.low, settled.value - half),
    high: Math.max(settled.high, settled.value + half),
  };
  if (!(pressure.value > 5)) return { ...base, flow, pressure };
  const last = run.samples.slice(-Math.max(3, Math.floor(run.samples.length / 4)));
  const beyond = last.some((s) => beyondCurve(s[1]));
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
