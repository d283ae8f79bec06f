import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { layoutOf } from "@/core/vehicle";
import { CARS, repaired } from "./cars";
import { recordDrive } from "./drive";
import { breathing, type HiddenEngine, seenAt } from "./engine";
import { simulateSmoke } from "./smoke";

const engine = CARS.petrel.engine as HiddenEngine;
const at = (rpm: number, map: number, charge = engine.ambient) => ({ rpm, map, charge, coolant: 363 });

describe("hidden engines", () => {
  it("balance their air: what is metered, let in and lost is what the engine breathes (property)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 700, max: 5000, noNaN: true }),
        fc.double({ min: 25e3, max: 95e3, noNaN: true }),
        (rpm, map) => {
          const sound = repaired(engine);
          const [leaky, tight] = [seenAt(engine, at(rpm, map)), seenAt(sound, at(rpm, map))];
          expect(tight.maf).toBeCloseTo(breathing(sound, at(rpm, map)), 12);
          expect(leaky.maf).toBeLessThan(tight.maf);
          // The closed loop adds fuel for exactly the air it did not meter.
          const fuelled = leaky.maf * (1 + (leaky.trims[0] as number)) - tight.maf * (1 + (tight.trims[0] as number));
          expect(Math.abs(fuelled)).toBeLessThan(1e-9);
        },
      ),
    );
  });

  it("show a manifold hole at idle most, and a charge hole only under boost", () => {
    const idle = seenAt(engine, at(720, 33e3)).trims[0] as number;
    const pull = seenAt(engine, at(3600, 94e3)).trims[0] as number;
    expect(idle).toBeGreaterThan(0.1);
    expect(pull).toBeLessThan(0.03);
    const turbo = CARS.merle.engine as HiddenEngine;
    expect(Math.abs(seenAt(turbo, at(720, 33e3)).trims[0] as number)).toBeLessThan(0.02);
    expect(seenAt(turbo, at(3200, 155e3, 158e3)).trims[0]).toBeLessThan(-0.05);
  });

  it("show a hole of one bank on that bank alone", () => {
    const [one, two] = seenAt(CARS.heron.engine as HiddenEngine, at(700, 33e3)).trims;
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
    expect(Math.max(...long) - Math.min(...long)).toBeLessThan(1);
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
