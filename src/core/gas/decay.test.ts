import { describe, expect, it } from "vitest";
import { seededNoise } from "../maths/random";
import { type DecayTest, fitDecay } from "./decay";
import { simulateTank } from "./simulated-tank.fixture";

const noise = seededNoise(7);

function testOf(truth: Parameters<typeof simulateTank>[0], scatter: number, more: Partial<DecayTest> = {}): DecayTest {
  const run = simulateTank(truth);
  return {
    times: run.times,
    pressures: run.pressures.map((p) => p + noise.normal(scatter)),
    volume: truth.volume,
    ambient: truth.ambient,
    temperature: truth.temperature,
    held: truth.held,
    ...more,
  };
}

const tank = {
  volume: 0.03,
  diameter: 0.5e-3,
  wallTime: 25,
  held: 90,
  drift: 0,
  pressure: 2491,
  ambient: 101325,
  temperature: 293.15,
  duration: 150,
  every: 2,
};

/** A tank of air into which a share of another gas was pressed: volume flow through a hole by its density (Torricelli), isothermal. */
function otherGas(diameter: number, molar: number, share: number): DecayTest {
  const { volume, ambient, temperature } = tank;
  const density = (ambient * ((1 - share) * 0.0289652 + share * molar)) / (8.314462 * temperature);
  const [times, pressures]: [number[], number[]] = [[], []];
  let pressure = 2491;
  for (let t = 0; t <= 150; t += 0.01) {
    if (Math.round(t * 100) % 400 === 0) {
      times.push(t);
      pressures.push(pressure + noise.normal(1));
    }
    const outflow = 0.61 * (Math.PI / 4) * diameter ** 2 * Math.sqrt((2 * pressure) / density);
    pressure -= ((ambient + pressure) * outflow * 0.01) / volume;
  }
  return { times, pressures, volume, ambient, temperature, held: 180, required: 0.508e-3 };
}

describe("a gas that is no air", () => {
  const CARBON_DIOXIDE = 0.0440095;
  it.each([0, 0.5, 1])("holds the hole in its interval and lets none pass, whatever the share of CO₂ in it (%f)", (share) => {
    for (const diameter of [0.3e-3, 0.508e-3, 0.52e-3, 0.56e-3, 0.8e-3]) {
      const fit = fitDecay({ ...otherGas(diameter, CARBON_DIOXIDE, share), gas: "carbon-dioxide" });
      expect(fit.low).toBeLessThanOrEqual(diameter);
      expect(fit.high).toBeGreaterThanOrEqual(diameter);
      if (diameter >= 0.508e-3) expect(fit.outcome).not.toBe("pass");
      if (diameter < 0.4e-3) expect(fit.outcome).toBe("pass");
      if (diameter > 0.7e-3) expect(fit.outcome).toBe("fail");
    }
  });
  it("reads a hole too small as air that is CO₂, and the same by a reference hole", () => {
    const run = otherGas(0.56e-3, CARBON_DIOXIDE, 1);
    expect(fitDecay(run).diameter).toBeLessThan(0.53e-3);
    const open = otherGas(Math.hypot(0.56e-3, 0.508e-3), CARBON_DIOXIDE, 1);
    const reference = { times: open.times, pressures: open.pressures, diameter: 0.508e-3 };
    const [as, said] = [fitDecay({ ...run, reference }), fitDecay({ ...run, reference, gas: "carbon-dioxide" })];
    expect(said.diameter).toBe(as.diameter);
    expect(said.diameter / 0.56e-3).toBeCloseTo(1, 1);
  });
  it("hardly differs with nitrogen", () => {
    const run = otherGas(0.6e-3, 0.0280134, 1);
    const [as, said] = [fitDecay(run), fitDecay({ ...run, gas: "nitrogen" })];
    expect(said.diameter / as.diameter).toBeGreaterThan(0.99);
    expect(said.diameter).toBeLessThan(as.diameter);
  });
});

describe("pressure decay", () => {
  it("recovers the hole within 10 % on clean samples, whatever the wall time constant", () => {
    for (const wallTime of [15, 25, 40]) {
      for (const diameter of [0.254e-3, 0.508e-3, 0.8e-3]) {
        const fit = fitDecay(testOf({ ...tank, wallTime, diameter }, 0));
        expect(Math.abs(fit.diameter / diameter - 1), `τ ${wallTime} s, ${diameter * 1e3} mm`).toBeLessThan(0.1);
      }
    }
  });

  it("frees itself from the stated volume by a reference hole", () => {
    for (const scale of [0.6, 1.5]) {
      const reference = { diameter: 0.508e-3, ...simulateTank({ ...tank, extraHole: 0.508e-3 }) };
      const fit = fitDecay(testOf(tank, 0, { volume: tank.volume * scale, reference }));
      expect(Math.abs(fit.diameter / tank.diameter - 1)).toBeLessThan(0.1);
    }
  });

  it("holds the truth in its interval in at least 9 of 10 noisy tanks", () => {
    let held = 0;
    const tanks = 30;
    for (let i = 0; i < tanks; i++) {
      const truth = {
        ...tank,
        diameter: noise.uniform(0.25e-3, 0.7e-3),
        wallTime: noise.uniform(15, 40),
        drift: noise.uniform(-0.3, 0.3),
      };
      const fit = fitDecay(testOf(truth, noise.uniform(2, 8)));
      if (fit.low <= truth.diameter && truth.diameter <= fit.high) held++;
    }
    expect(held / tanks).toBeGreaterThanOrEqual(0.9);
  });

  it("does not claim a leak of a tight tank and could have seen the required size", () => {
    const fit = fitDecay(testOf({ ...tank, diameter: 0 }, 4, { required: 0.508e-3 }));
    expect(fit.low).toBe(0);
    expect(fit.smallestVisible).toBeLessThan(0.508e-3);
    expect(fit.outcome).toBe("pass");
  });

  it("judges against the required size only when it may", () => {
    const big = { ...tank, diameter: 0.8e-3 };
    expect(fitDecay(testOf(big, 3, { required: 0.508e-3 })).outcome).toBe("fail");
    expect(fitDecay(testOf(big, 3)).outcome).toBe("unsure");
    expect(fitDecay(testOf({ ...big, held: 20 }, 3, { required: 0.508e-3 })).reasons[0]).toMatch(/held only 20 s/);
    expect(fitDecay({ ...testOf(tank, 3, { required: 0.5e-3 }) }).outcome).toBe("unsure");
  });

  it("is void when the pressure rises", () => {
    const fit = fitDecay(testOf({ ...tank, diameter: 0, drift: 1.5 }, 2, { required: 0.5e-3 }));
    expect(fit.outcome).toBe("void");
    expect(fit.reasons[0]).toMatch(/rose/);
  });

  it("refuses samples it cannot fit", () => {
    const base = testOf(tank, 0);
    expect(() => fitDecay({ ...base, times: [0, 1, 2], pressures: [3, 2, 1] })).toThrow(/at least 4/);
    expect(() => fitDecay({ ...base, times: [0, 2, 1, 3], pressures: [4, 3, 2, 1] })).toThrow(/rise in time/);
    expect(() => fitDecay({ ...base, times: [0, 1, 2, 3], pressures: [-4, 3, 2, 1] })).toThrow(/not positive/);
  });
});
