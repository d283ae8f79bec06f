import { airDensity, STANDARD_DENSITY } from "./air";
import { leakDiameter, orificeFlow } from "./orifice";

/**
 * Standard flow (m³/s at 20 °C, 101.325 kPa) from a variable-area meter's scale reading.
 * A float in gas of density ρ passes Q = Q_scale·√(ρ_cal/ρ) actual; at standard state that is Q_scale·√(ρ/ρ_cal)
 * for a meter calibrated at standard conditions (ISO 11605).
 * @param scaleReading m³/s on the scale; @param pressure Pa absolute and @param temperature K in the tube.
 */
export function standardFlowOfBall(scaleReading: number, pressure: number, temperature: number): number {
  return scaleReading * Math.sqrt(airDensity(pressure, temperature) / STANDARD_DENSITY);
}

/** One point of a machine's calibration: the ball's height on the scale with a known hole on the hose. */
export interface BallPoint {
  /** Scale reading, in the machine's own marks. */
  readonly height: number;
  /** Reference hole, m. */
  readonly diameter: number;
}

export interface BallCurve {
  /** Standard flow (m³/s) at a height; `extrapolated` when the height lies outside the calibrated points. */
  flowAt(height: number): { flow: number; extrapolated: boolean };
  /** Height at a standard flow (m³/s): the inverse, clamped to the calibrated span. */
  heightAt(flow: number): number;
}

/**
 * Calibration of a flow ball with reference holes at the machine's set pressure.
 * Monotone cubic through the (height, flow) pairs (PCHIP: Fritsch & Carlson 1980) from (0, 0); beyond the last point
 * the reading is held and says so.
 * @param points at least one reference hole, heights and diameters rising together.
 * @param at pressure: gauge Pa at the hole; ambient: Pa absolute; temperature: K.
 * Throws RangeError when heights or sizes do not rise together.
 */
export function calibrateBall(
  points: readonly BallPoint[],
  at: { pressure: number; ambient: number; temperature: number },
): BallCurve {
  const sorted = [...points].sort((a, b) => a.height - b.height);
  const x = [0];
  const y = [0];
  for (const point of sorted) {
    const { massFlow } = orificeFlow({
      upstream: at.ambient + at.pressure,
      downstream: at.ambient,
      temperature: at.temperature,
      diameter: point.diameter,
    });
    const flow = massFlow / STANDARD_DENSITY;
    if (!(point.height > (x.at(-1) ?? 0)) || !(flow > (y.at(-1) ?? 0))) {
      throw new RangeError("A bigger reference hole must lift the ball higher: check the calibration points");
    }
    x.push(point.height);
    y.push(flow);
  }
  if (x.length < 2) throw new RangeError("Calibration needs at least one reference hole");
  const slopes = pchipSlopes(x, y);
  const top = x.at(-1) as number;
  const flowAt = (height: number) => {
    const inside = Math.min(Math.max(height, 0), top);
    return { flow: evaluatePchip(x, y, slopes, inside), extrapolated: height < 0 || height > top };
  };
  return {
    flowAt,
    heightAt(flow) {
      let low = 0;
      let high = top;
      for (let i = 0; i < 60; i++) {
        const middle = (low + high) / 2;
        if (flowAt(middle).flow < flow) low = middle;
        else high = middle;
      }
      return (low + high) / 2;
    },
  };
}

/** Fritsch–Carlson slopes: weighted harmonic means keep every interval monotone. */
function pchipSlopes(x: readonly number[], y: readonly number[]): number[] {
  const n = x.length;
  const h = (i: number) => (x[i + 1] as number) - (x[i] as number);
  const d = (i: number) => ((y[i + 1] as number) - (y[i] as number)) / h(i);
  if (n === 2) return [d(0), d(0)];
  const edge = (h0: number, h1: number, d0: number, d1: number) => {
    const s = ((2 * h0 + h1) * d0 - h0 * d1) / (h0 + h1);
    return s * d0 <= 0 ? 0 : d0 * d1 <= 0 && Math.abs(s) > 3 * Math.abs(d0) ? 3 * d0 : s;
  };
  const slopes = [edge(h(0), h(1), d(0), d(1))];
  for (let i = 1; i < n - 1; i++) {
    const w1 = 2 * h(i) + h(i - 1);
    const w2 = h(i) + 2 * h(i - 1);
    slopes.push(d(i - 1) * d(i) <= 0 ? 0 : (w1 + w2) / (w1 / d(i - 1) + w2 / d(i)));
  }
  slopes.push(edge(h(n - 2), h(n - 3), d(n - 2), d(n - 3)));
  return slopes;
}

function evaluatePchip(x: readonly number[], y: readonly number[], m: readonly number[], at: number): number {
  let i = 0;
  while (i < x.length - 2 && at > (x[i + 1] as number)) i++;
  const h = (x[i + 1] as number) - (x[i] as number);
  const t = (at - (x[i] as number)) / h;
  return (
    (1 + 2 * t) * (1 - t) ** 2 * (y[i] as number) +
    t * (1 - t) ** 2 * h * (m[i] as number) +
    t * t * (3 - 2 * t) * (y[i + 1] as number) +
    t * t * (t - 1) * h * (m[i + 1] as number)
  );
}

/** The hole (m, Cd 0.61) that a settled ball and gauge report together. `flow` m³/s standard; pressures Pa. */
export function holeFromBall(flow: number, pressure: number, ambient: number, temperature: number): number {
  return leakDiameter({
    massFlow: flow * STANDARD_DENSITY,
    upstream: ambient + pressure,
    downstream: ambient,
    temperature,
  });
}
