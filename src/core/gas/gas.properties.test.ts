import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { seededNoise } from "../maths/random";
import { absolute } from "../units";
import { airDensity, massFlowOf, massFlowOfStandard, R_AIR, STANDARD_DENSITY, standardFlow } from "./air";
import { ambientAtAltitude, stationPressure } from "./atmosphere";
import { engineAirflow } from "./engine-airflow";
import { calibrateBall, standardFlowOfBall } from "./flow-ball";
import { CRITICAL_RATIO, leakDiameter, massFlux, orificeFlow } from "./orifice";
import { fitSettling } from "./settle";
import { pressureDecay } from "./vessel";

const pressure = fc.double({ min: 20e3, max: 400e3, noNaN: true });
const temperature = fc.double({ min: 230, max: 400, noNaN: true });
const diameter = fc.double({ min: 0.1e-3, max: 10e-3, noNaN: true });

describe("orifice (properties)", () => {
  it("is the same both ways, with the sign of its direction", () => {
    fc.assert(
      fc.property(pressure, pressure, temperature, (a, b, t) => {
        expect(massFlux(a, b, t)).toBeCloseTo(-massFlux(b, a, t), 9);
      }),
    );
  });

  it("gives the hole back from its flow", () => {
    fc.assert(
      fc.property(pressure, fc.double({ min: 0.05, max: 0.999, noNaN: true }), temperature, diameter, (p, ratio, t, d) => {
        const at = { upstream: p, downstream: p * ratio, temperature: t };
        const { massFlow } = orificeFlow({ ...at, diameter: d });
        expect(leakDiameter({ ...at, massFlow }) / d).toBeCloseTo(1, 9);
      }),
    );
  });

  it("passes more the lower the pressure behind it, and no more once choked", () => {
    fc.assert(
      fc.property(pressure, temperature, fc.double({ min: 0.01, max: 0.98, noNaN: true }), (p, t, r) => {
        const here = massFlux(p, p * r, t);
        const lower = massFlux(p, p * r * 0.98, t);
        expect(lower).toBeGreaterThanOrEqual(here - 1e-12);
        if (r < CRITICAL_RATIO) expect(lower).toBeCloseTo(here, 12);
        expect(orificeFlow({ upstream: p, downstream: p * r, temperature: t, diameter: 1e-3 }).choked).toBe(r <= CRITICAL_RATIO);
      }),
    );
  });

  it("joins the choked and the free branch without a step", () => {
    const at = (r: number) => massFlux(1e5, 1e5 * r, 293);
    expect(at(CRITICAL_RATIO + 1e-7) / at(CRITICAL_RATIO - 1e-7)).toBeCloseTo(1, 6);
  });

  it("goes by its series at small drops as the power does, without a step and without losing small differences", () => {
    const power = (r: number) => {
      const x = r ** (1 / 1.4);
      return 1e5 * Math.sqrt((2.8 / (0.4 * 287.05 * 293)) * x * (x - r));
    };
    for (const r of [0.55, 0.7, 0.7999, 0.8001, 0.85, 0.9, 0.95, 0.99, 0.999]) {
      expect(massFlux(1e5, 1e5 * r, 293) / power(r)).toBeCloseTo(1, 9);
    }
    // Incompressible limit: ψ = √(2·ρ·Δp)
    expect(massFlux(1e5 + 1e-3, 1e5, 293) / Math.sqrt((2 * 1e5 * 1e-3) / (287.05 * 293))).toBeCloseTo(1, 6);
  });

  it("doubles its flow with twice the area, and goes with the root of temperature", () => {
    const flow = (d: number, t: number) =>
      orificeFlow({ upstream: 103e3, downstream: 101e3, temperature: t, diameter: d }).massFlow;
    expect(flow(Math.SQRT2 * 1e-3, 293) / flow(1e-3, 293)).toBeCloseTo(2, 9);
    expect(flow(1e-3, 293) / flow(1e-3, 4 * 293)).toBeCloseTo(2, 9);
  });

  it("refuses what is no gas state", () => {
    expect(() => massFlux(-1, 1e5, 293)).toThrow(/not negative/);
    expect(() => massFlux(1e5, 1e5, 0)).toThrow(/above 0 K/);
    expect(() => leakDiameter({ massFlow: -1, upstream: 2e5, downstream: 1e5, temperature: 293 })).toThrow(/cannot be negative/);
    expect(() => leakDiameter({ massFlow: 1, upstream: 1e5, downstream: 1e5, temperature: 293 })).toThrow(/no pressure across/);
    expect(massFlux(0, 0, 293)).toBe(0);
  });
});

describe("air", () => {
  it("is an ideal gas, and standard flow goes there and back", () => {
    expect(STANDARD_DENSITY).toBeCloseTo(1.2041, 4);
    expect(airDensity(2e5, 300)).toBeCloseTo(2e5 / (R_AIR * 300), 12);
    expect(massFlowOfStandard(standardFlow(0.003))).toBeCloseTo(0.003, 15);
    expect(massFlowOf({ value: 1, unit: "kg/h" })).toBeCloseTo(1 / 3600, 12);
    expect(massFlowOf({ value: 60, unit: "L/min" })).toBeCloseTo(1.2041e-3, 6);
    expect(() => massFlowOf({ value: 1, unit: "mm" })).toThrow(/is no flow/);
  });
});

describe("atmosphere", () => {
  it.each([
    [0, 101325],
    [1000, 89874.6],
    [3000, 70108.5],
  ])("at %f m stands at the tabled pressure", (altitude, table) => {
    expect(ambientAtAltitude(altitude) / table).toBeCloseTo(1, 4);
  });
  it("falls with height, and reduces a report to the station", () => {
    expect(stationPressure(absolute(101325), 500)).toBeCloseTo(ambientAtAltitude(500), 6);
    expect(stationPressure(absolute(103000), 0)).toBeCloseTo(103000, 6);
    expect(() => ambientAtAltitude(20000)).toThrow(/between −500 and 11 000 m/);
  });
});

describe("flow ball", () => {
  const at = { pressure: 13 * 249.0889, ambient: 101325, temperature: 293.15 };
  const points = [
    { height: 20, diameter: 0.254e-3 },
    { height: 55, diameter: 0.508e-3 },
    { height: 120, diameter: 1.016e-3 },
  ];
  const curve = calibrateBall(points, at);

  it("passes its own points, rises between them and comes back (property)", () => {
    for (const p of points) {
      const { massFlow } = orificeFlow({
        upstream: at.ambient + at.pressure,
        downstream: at.ambient,
        temperature: 293.15,
        diameter: p.diameter,
      });
      expect(curve.flowAt(p.height).flow / standardFlow(massFlow)).toBeCloseTo(1, 9);
    }
    fc.assert(
      fc.property(fc.double({ min: 0, max: 120, noNaN: true }), fc.double({ min: 0, max: 120, noNaN: true }), (a, b) => {
        const [low, high] = a < b ? [a, b] : [b, a];
        expect(curve.flowAt(high).flow).toBeGreaterThanOrEqual(curve.flowAt(low).flow - 1e-15);
        expect(curve.heightAt(curve.flowAt(a).flow)).toBeCloseTo(a, 3);
      }),
    );
  });

  it("says when it was asked beyond its points, and refuses points that do not rise", () => {
    expect(curve.flowAt(130)).toMatchObject({ extrapolated: true, flow: curve.flowAt(120).flow });
    expect(curve.flowAt(100).extrapolated).toBe(false);
    expect(() => calibrateBall([points[1], { height: 60, diameter: 0.3e-3 }] as typeof points, at)).toThrow(
      /must lift the ball higher/,
    );
    expect(() => calibrateBall([], at)).toThrow(/at least one reference hole/);
  });

  it("reads true at standard density, and by the root of density elsewhere", () => {
    expect(standardFlowOfBall(1e-4, 101325, 293.15)).toBeCloseTo(1e-4, 12);
    expect(standardFlowOfBall(1e-4, 4 * 101325, 293.15)).toBeCloseTo(2e-4, 12);
  });
});

describe("a shut vessel (properties)", () => {
  const vessel = { volume: 0.03, ambient: 101325, wallTemperature: 293.15, gasExcess: 0, drift: 0, wallTime: 25 };
  it("never rises and never falls below ambient while it leaks at one temperature", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-8, max: 1e-6, noNaN: true }),
        fc.double({ min: 200, max: 8000, noNaN: true }),
        (area, start) => {
          const p = pressureDecay({ ...vessel, effectiveArea: area, wallTime: 0.05 }, start, [10, 20, 40, 80]);
          // Within a few pascal of ambient the slope is infinite and the solver hunts by a step of two.
          [start, ...p].reduce((before, here) => {
            expect(here).toBeLessThanOrEqual(Math.max(before + 1e-6, 5));
            expect(here).toBeGreaterThan(-5);
            return here;
          });
        },
      ),
      { numRuns: 30, endOnFailure: true },
    );
  });

  it("falls faster through a larger hole and slower from a larger tank", () => {
    const pressureIn = (area: number, volume: number) =>
      pressureDecay({ ...vessel, volume, effectiveArea: area }, 2500, [30])[0] as number;
    expect(pressureIn(2e-7, 0.03)).toBeLessThan(pressureIn(1e-7, 0.03));
    expect(pressureIn(1e-7, 0.06)).toBeGreaterThan(pressureIn(1e-7, 0.03));
    // Area and volume count by their quotient alone.
    expect(pressureIn(2e-7, 0.06)).toBeCloseTo(pressureIn(1e-7, 0.03), 3);
  });
});

describe("settling", () => {
  it("holds the true end in its interval in at least 9 of 10 noisy approaches", () => {
    const noise = seededNoise(23);
    let held = 0;
    for (let i = 0; i < 60; i++) {
      const [end, rush, tau] = [noise.uniform(1, 9), noise.uniform(1, 6), noise.uniform(3, 12)];
      const times = Array.from({ length: 18 }, (_, k) => 1 + 4 * k);
      const fit = fitSettling(
        times,
        times.map((t) => end + rush * Math.exp(-t / tau) + noise.normal(0.05)),
        6,
        0.1,
      );
      if (fit.low <= end && end <= fit.high) held++;
    }
    expect(held).toBeGreaterThanOrEqual(54);
  });
});

describe("engine", () => {
  it("breathes in proportion to speed, displacement and density", () => {
    const at = { displacement: 1.6e-3, rpm: 3000, efficiency: 0.85, pressure: 1e5, temperature: 300 };
    const base = engineAirflow(at);
    expect(engineAirflow({ ...at, rpm: 6000 }) / base).toBeCloseTo(2, 12);
    expect(engineAirflow({ ...at, pressure: 0.5e5 }) / base).toBeCloseTo(0.5, 12);
    expect(engineAirflow({ ...at, temperature: 600 }) / base).toBeCloseTo(0.5, 12);
  });
});
