import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { absolute } from "../units";
import { STANDARD_PRESSURE, STANDARD_TEMPERATURE, standardFlow } from "./air";
import { ambientAtAltitude, stationPressure } from "./atmosphere";
import { engineAirflow } from "./engine-airflow";
import { calibrateBall, standardFlowOfBall } from "./flow-ball";
import { CRITICAL_RATIO, leakDiameter, massFlux, orificeFlow } from "./orifice";
import { fitSettling } from "./settle";
import { fillHeating, pressureDecay, settleTimeConstant, smokeArrivalTime } from "./vessel";

const inch = 0.0254;
const inH2O = 249.0889;
const psi = 6894.757;
const litrePerMinute = (massFlow: number) => standardFlow(massFlow) * 60e3;
const through = (diameter: number, gauge: number) =>
  orificeFlow({
    upstream: STANDARD_PRESSURE + gauge,
    downstream: STANDARD_PRESSURE,
    temperature: STANDARD_TEMPERATURE,
    diameter,
  });

describe("orifice", () => {
  it.each([
    [0.01, [0.119, 0.136, 0.14, 0.198]],
    [0.02, [0.477, 0.543, 0.561, 0.792]],
    [0.04, [1.907, 2.174, 2.243, 3.168]],
  ])("gives the published flows of a %f in hole", (hole, flows) => {
    const gauges = [10 * inH2O, 13 * inH2O, 0.5 * psi, psi];
    for (const [i, flow] of flows.entries()) {
      expect(litrePerMinute(through(hole * inch, gauges[i] as number).massFlow)).toBeCloseTo(flow, 3);
    }
  });

  it("chokes at the critical ratio and joins smoothly there", () => {
    expect(CRITICAL_RATIO).toBeCloseTo(0.52828, 5);
    const at = (r: number) => massFlux(1e5, r * 1e5, 293.15);
    expect(at(CRITICAL_RATIO + 1e-9)).toBeCloseTo(at(CRITICAL_RATIO - 1e-9), 6);
    expect(at(0.1)).toBe(at(0.4));
    expect(orificeFlow({ upstream: 1e5, downstream: 5e4, temperature: 293, diameter: 1e-3 }).choked).toBe(true);
  });

  it("is signed by direction", () => {
    expect(massFlux(1e5, 9e4, 293)).toBeCloseTo(-massFlux(9e4, 1e5, 293), 12);
    expect(massFlux(1e5, 1e5, 293)).toBe(0);
    expect(massFlux(0, 0, 293)).toBe(0);
  });

  it("sizes what it made: flow from hole and hole from flow agree within 1e-9", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1e-3, max: 20e-3, noNaN: true }),
        fc.double({ min: 20, max: 2e5, noNaN: true }),
        (d, gauge) => {
          const { massFlow } = through(d, gauge);
          const back = leakDiameter({
            massFlow,
            upstream: STANDARD_PRESSURE + gauge,
            downstream: STANDARD_PRESSURE,
            temperature: STANDARD_TEMPERATURE,
          });
          expect(Math.abs(back / d - 1)).toBeLessThan(1e-9);
        },
      ),
    );
  });

  it("refuses what has no meaning", () => {
    expect(() => massFlux(-1, 1e5, 293)).toThrow(RangeError);
    expect(() => massFlux(1e5, 9e4, 0)).toThrow(RangeError);
    expect(() => through(-1e-3, 100)).toThrow(RangeError);
    expect(() => leakDiameter({ massFlow: 1e-5, upstream: 1e5, downstream: 1e5, temperature: 293 })).toThrow(/flow and pressure/);
  });
});

describe("atmosphere", () => {
  it("follows the standard atmosphere", () => {
    expect(ambientAtAltitude(0)).toBe(101325);
    expect(ambientAtAltitude(1000)).toBeCloseTo(89875, -2);
    expect(ambientAtAltitude(3000)).toBeCloseTo(70109, -2);
    expect(stationPressure(absolute(101325), 500)).toBeCloseTo(ambientAtAltitude(500), 6);
    // At the temperature of the standard atmosphere both say the same; a warm column of air weighs less.
    expect(stationPressure(absolute(101325), 1500, 288.15 - 9.75)).toBeCloseTo(ambientAtAltitude(1500), -1);
    expect(stationPressure(absolute(101325), 1500, 303.15) - ambientAtAltitude(1500)).toBeGreaterThan(1100);
    expect(stationPressure(absolute(101325), 1500, 303.15) - ambientAtAltitude(1500)).toBeLessThan(1400);
    expect(() => stationPressure(absolute(101325), 20000, 288)).toThrow(RangeError);
    expect(() => ambientAtAltitude(20000)).toThrow(RangeError);
  });
});

describe("flow ball", () => {
  it("corrects the scale for density", () => {
    expect(standardFlowOfBall(1e-5, STANDARD_PRESSURE, STANDARD_TEMPERATURE)).toBeCloseTo(1e-5, 12);
    expect(standardFlowOfBall(1e-5, 1.21 * STANDARD_PRESSURE, STANDARD_TEMPERATURE)).toBeCloseTo(1.1e-5, 12);
  });

  it("calibrates monotone through its points and says when it extrapolates", () => {
    const at = { pressure: 10 * inH2O, ambient: STANDARD_PRESSURE, temperature: STANDARD_TEMPERATURE };
    const points = [
      { height: 8, diameter: 0.01 * inch },
      { height: 25, diameter: 0.02 * inch },
      { height: 70, diameter: 0.04 * inch },
    ];
    const curve = calibrateBall(points, at);
    for (const p of points) {
      expect(curve.flowAt(p.height).flow).toBeCloseTo(standardFlow(through(p.diameter, at.pressure).massFlow), 9);
    }
    let last = -1;
    for (let h = 0; h <= 70; h += 0.5) {
      const { flow, extrapolated } = curve.flowAt(h);
      expect(flow).toBeGreaterThan(last);
      expect(extrapolated).toBe(false);
      last = flow;
    }
    expect(curve.flowAt(80).extrapolated).toBe(true);
    expect(curve.heightAt(curve.flowAt(40).flow)).toBeCloseTo(40, 6);
    expect(() => calibrateBall([points[2], { height: 80, diameter: 0.02 * inch }] as typeof points, at)).toThrow(/bigger/);
    expect(() => calibrateBall([], at)).toThrow(/at least one/);
  });
});

describe("vessel", () => {
  const tank = { volume: 0.03, ambient: STANDARD_PRESSURE, wallTemperature: STANDARD_TEMPERATURE, gasExcess: 0, drift: 0 };
  const area = (d: number) => 0.61 * (Math.PI / 4) * d * d;

  it.each([
    [0.02, [7.03, 4.58, 1.25]],
    [0.01, [9.21, 8.45, 7.03]],
  ])("empties through %f in by the published isothermal values", (hole, expected) => {
    const isothermal = { ...tank, effectiveArea: area(hole * inch), wallTime: 0.05 };
    const p = pressureDecay(isothermal, 10 * inH2O, [30, 60, 120]);
    for (const [i, value] of expected.entries()) expect((p[i] as number) / inH2O).toBeCloseTo(value, 1);
  });

  it("cools as it empties, so a real tank reads larger than an isothermal one", () => {
    const leak = { ...tank, effectiveArea: area(0.02 * inch) };
    const [slow] = pressureDecay({ ...leak, wallTime: 25 }, 10 * inH2O, [20]);
    const [fast] = pressureDecay({ ...leak, wallTime: 0.05 }, 10 * inH2O, [20]);
    expect(slow as number).toBeLessThan(fast as number);
  });

  it("shows a degree of drift as 346 Pa", () => {
    const [p] = pressureDecay({ ...tank, effectiveArea: 0, wallTime: 1, drift: 1 / 600 }, 100, [600]);
    expect(((p as number) - 100) / 346).toBeCloseTo(1, 2);
  });

  it("knows settling, arrival and fill heating", () => {
    expect(settleTimeConstant({ volume: 0.03, setPressure: 2491, ambient: 101325, maxFlow: 12e-3 / 60 })).toBeCloseTo(3.69, 2);
    expect(smokeArrivalTime(10e-3, 12e-3 / 60)).toBeCloseTo(50, 9);
    expect(smokeArrivalTime(10e-3, 0)).toBe(Number.POSITIVE_INFINITY);
    expect(fillHeating(293.15, 10 * inH2O, 101325)).toBeCloseTo(2.06, 2);
  });
});

describe("settling", () => {
  const times = Array.from({ length: 20 }, (_, i) => i * 3);
  const rush = (tau: number) => times.map((t) => 3 + 4 * Math.exp(-t / tau));

  it("finds where the ball is going", () => {
    const done = fitSettling(times, rush(8), 6, 0.05);
    expect(done.settled).toBe(true);
    expect(done.value).toBeCloseTo(3, 1);
    expect(done.low).toBeLessThan(3);
    expect(done.high).toBeGreaterThan(3);
  });

  it("says still filling, with the time left", () => {
    const filling = fitSettling(times.slice(0, 6), rush(25).slice(0, 6), 20, 0.05);
    expect(filling.settled).toBe(false);
    expect(filling.timeLeft).toBeGreaterThan(20);
    expect(() => fitSettling([0, 1], [1, 1], 5, 0.1)).toThrow(/3 samples/);
  });
});

describe("engine airflow", () => {
  it("breathes displacement, speed and density", () => {
    const flow = engineAirflow({ displacement: 2e-3, rpm: 3000, efficiency: 0.85, pressure: 101325, temperature: 293.15 });
    expect(flow * 1000).toBeCloseTo(0.85 * 1.2041 * 50, 1);
  });
});
