import { describe, expect, it } from "vitest";
import { layoutOf } from "@/core/vehicle";
import { CARS, repaired } from "./cars";
import { recordDrive } from "./drive";
import { type HiddenEngine, standsAt } from "./engine";
import { simulateSmoke } from "./smoke";

const engine: HiddenEngine = CARS.petrel.engine;

describe("hidden engines", () => {
  it("balance their air: what is metered and let in is what burns", () => {
    for (const driving of [{}, { foot: 2500 }, { road: { rpm: 2200, map: 62e3 } }]) {
      const [leaky, tight] = [standsAt(engine, driving), standsAt(repaired(engine), driving)];
      expect(Math.abs(tight.meter / tight.air - 1)).toBeLessThan(0.01);
      expect(leaky.meter).toBeLessThan(0.99 * leaky.air);
      // The closed loop adds fuel for exactly the air it did not meter, over what fuelling is off by itself.
      const unmetered = leaky.air / leaky.meter - 1;
      expect(Math.abs((1 + (leaky.trims[0] as number)) / (1 + unmetered) - 1)).toBeLessThan(0.01);
    }
  });

  it("show a manifold hole at idle most, and a charge hole only under boost", () => {
    expect(standsAt(engine).trims[0]).toBeGreaterThan(0.1);
    expect(standsAt(engine, { road: { rpm: 3600 } }).trims[0]).toBeLessThan(0.03);
    const turbo: HiddenEngine = CARS.merle.engine;
    expect(Math.abs(standsAt(turbo).trims[0] as number)).toBeLessThan(0.08);
    expect(standsAt(turbo, { road: { rpm: 3200, map: 155e3 } }).trims[0]).toBeLessThan(-0.05);
  });

  it("show a hole of one bank on that bank alone", () => {
    const [one, two] = standsAt(CARS.heron.engine).trims;
    expect(Math.abs(one as number)).toBeLessThan(0.02);
    expect(two).toBeGreaterThan(0.15);
  });
});

describe("recorded drives", () => {
  it("rise in time, hold their points and learn slowly", () => {
    const rows = recordDrive(engine, 3);
    rows.reduce((before, row) => {
      expect(row.seconds).toBeGreaterThan(before.seconds);
      return row;
    });
    const idle = rows.filter((r) => r.seconds > 10 && r.seconds < 38);
    const long = idle.map((r) => r.trims[0]?.long as number);
    expect(Math.max(...long) - Math.min(...long)).toBeLessThan(2);
    const short = idle.map((r) => r.trims[0]?.short as number);
    expect(Math.max(...short) - Math.min(...short)).toBeGreaterThan(1);
    expect(recordDrive(engine, 3)).toEqual(rows);
  });
});

describe("simulated smoke", () => {
  const story = {
    seed: 4,
    entry: "air-meter",
    blocked: ["tailpipe"],
    heldOpen: ["throttle"],
    arrivals: [],
    seen: [],
    seconds: 96,
  };
  const layout = layoutOf(CARS.petrel.facts);
  const end = (hidden: HiddenEngine, change = {}) =>
    simulateSmoke(hidden, layout, { ...story, ...change }).samples.at(-1) as readonly number[];

  it("settles higher with a hole than without, never above what the machine gives", () => {
    const [, leaky] = end(engine);
    const [, tight] = end(repaired(engine));
    expect(leaky).toBeGreaterThan((tight as number) + 2);
    expect(leaky).toBeLessThanOrEqual(12.5);
  });

  it("falls to nothing once the heater has timed out", () => {
    const [, flow, pressure] = end(engine, { heaterOnAt: -260, seconds: 121 });
    expect(flow).toBeLessThan(0.3);
    expect(pressure).toBeLessThan(0.5);
  });
});
