import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { CHECK_IDS, CHECKS } from ".";
import * as good from "./records.fixture";
import { type OperatingPoint, sideBySide } from "./side-by-side";

const at = (rpm: number, value: number, more: Partial<OperatingPoint> = {}): OperatingPoint => ({
  rpm,
  readings: [{ name: "trim", unit: "%", value, sd: 1 }],
  ...more,
});
const flow = (value: number) => ({ load: { of: "flow" as const, value } });

describe("two logs side by side", () => {
  it("are matched by speed, load and temperature, and by nothing that only one of them has", () => {
    const before = [at(750, 17, flow(2.6)), at(2500, 4, flow(9))];
    const after = [at(2450, 0.4, flow(9.4)), at(760, 0.8, flow(2.9))];
    const matched = sideBySide(before, after);
    expect(matched.map((m) => [m.before.rpm, m.after.rpm])).toEqual([
      [750, 760],
      [2500, 2450],
    ]);
    expect(matched[0]?.differences[0]).toMatchObject({ before: 17, after: 0.8, change: -16.2 });
    expect(sideBySide(before, [at(760, 0.8, flow(9))])).toEqual([]);
    expect(sideBySide([at(750, 17, { temperature: 293 })], [at(750, 1, { temperature: 330 })])).toEqual([]);
    // One logged flow and the other pressure: they are one point by their speed alone.
    expect(sideBySide([at(750, 17, flow(2.6))], [at(750, 1, { load: { of: "pressure", value: 33e3 } })])).toHaveLength(1);
  });

  it("take each point once, and give the interval of both readings together (property)", () => {
    const points = fc.array(
      fc.record({ rpm: fc.integer({ min: 600, max: 5000 }), value: fc.double({ min: -25, max: 25, noNaN: true }) }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(points, points, (a, b) => {
        const [before, after] = [a.map((p) => at(p.rpm, p.value)), b.map((p) => at(p.rpm, p.value))];
        const matched = sideBySide(before, after);
        expect(new Set(matched.map((m) => m.before)).size).toBe(matched.length);
        expect(new Set(matched.map((m) => m.after)).size).toBe(matched.length);
        for (const { differences } of matched)
          for (const d of differences) {
            expect(d.high - d.low).toBeCloseTo(2 * 1.96 * Math.SQRT2, 9);
            expect(d.change).toBeCloseTo(d.after - d.before, 12);
          }
        // The same log against itself changed nothing.
        for (const { differences } of sideBySide(before, before)) expect(differences[0]?.low).toBeLessThanOrEqual(0);
      }),
    );
  });

  it("are there for every check that reads at operating points", () => {
    const kinds = CHECK_IDS.filter((id) => CHECKS[id].points);
    expect(kinds.toSorted()).toEqual(["boost", "trims"]);
    expect(CHECKS.boost.points?.(good.boost).length).toBe(good.boost.points.length);
    expect(CHECKS.trims.points?.(good.survey({}))[0]?.readings[0]).toMatchObject({ name: "total trim", unit: "%" });
  });
});
