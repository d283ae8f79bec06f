import { expect, it } from "vitest";
import { boostOutside } from "./boost-trial";
import { decayOutside } from "./decay-trial";
import { pulldownOutside } from "./pulldown-trial";
import { trimsOutside } from "./trims-trial";

// Marks of the bench on a few dozen cases: bounds are looser by what so few can say.
it("boost from a log holds on engines of other hands", () => {
  const marks = boostOutside(14, 11);
  expect(marks.named6).toBeGreaterThanOrEqual(0.85);
  expect(marks.pulls).toBeGreaterThanOrEqual(0.75);
  expect(marks.covered).toBeGreaterThanOrEqual(0.85);
  expect(marks.soundLeaking).toBeLessThanOrEqual(0.05);
  expect(marks.soundPasses).toBeGreaterThanOrEqual(0.6);
  expect(marks.meterLeak).toBeLessThanOrEqual(0.05);
  expect(marks.lazyNamed).toBeGreaterThanOrEqual(0.7);
});

it("trims give no hole to a sound engine, and their intervals hold with a curved meter too", () => {
  const marks = trimsOutside("gain and curve", 20, 11);
  expect(marks.soundHoles).toBeLessThanOrEqual(0.04);
  expect(marks.flatShared).toBe(0);
  expect(marks.covered).toBeGreaterThanOrEqual(0.8);
  expect(marks.shared).toBeGreaterThanOrEqual(0.8);
});

it.each(["rigid", "soft walls", "creep", "drift"] as const)("a decay's interval holds in a tank of %s", (world) => {
  const marks = decayOutside(world, 25, 11);
  expect(marks.covered).toBeGreaterThanOrEqual(0.82);
  expect(marks.byReference).toBeGreaterThanOrEqual(0.88);
  expect(marks.wrongPass).toBe(0);
});

it.each([1, 4, 6])("a tight system is not called leaking by a reading every %d s, and no hole passes", (spacing) => {
  const marks = pulldownOutside(spacing, 40, 11);
  expect(marks.tightFails).toBeLessThanOrEqual(0.02);
  expect(marks.holesPass).toBe(0);
});
