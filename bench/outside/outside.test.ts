import { expect, it } from "vitest";
import { boostOutside, levelOutside } from "./boost-trial";
import { decayOutside } from "./decay-trial";
import { pulldownOutside } from "./pulldown-trial";
import { trimsOutside } from "./trims-trial";

// Marks of the bench on a few dozen cases: bounds are looser by what so few can say.
it("boost from a log holds on engines of other hands", () => {
  const marks = boostOutside(12, 11);
  expect(marks.named6).toBeGreaterThanOrEqual(0.85);
  expect(marks.pulls).toBeGreaterThanOrEqual(0.75);
  expect(marks.covered).toBeGreaterThanOrEqual(0.85);
  expect(marks.soundLeaking).toBeLessThanOrEqual(0.05);
  expect(marks.soundPasses).toBeGreaterThanOrEqual(0.6);
  expect(marks.lazyNamed).toBeGreaterThanOrEqual(0.7);
});

it("a meter that is off by a tenth is told from a leak, and from the engine, beside what the engine breathed when it was sound", () => {
  const marks = levelOutside(8, 11);
  expect(marks.read).toBeGreaterThanOrEqual(0.75);
  expect(marks.breathingRead).toBeGreaterThanOrEqual(0.75);
  expect(marks.meterOnly).toBeGreaterThanOrEqual(0.5);
  expect(marks.leakNamed).toBeGreaterThanOrEqual(0.85);
  expect(marks).toMatchObject({ wrongOne: 0, asLeak: 0, soundOff: 0 });
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
