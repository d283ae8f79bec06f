import { describe, expect, it } from "vitest";
import { seededNoise } from "../maths/random";
import { type LevelRead, levelOf } from "./level";

const KIND = { sd: 0.09, own: false } as const;
const OWN = { sd: 0.02, own: true } as const;
/** Odds of meter or breathing at the odds that stand before anything is read. */
const odds = (read: LevelRead, before = 0.1) => {
  const weight = before * Math.exp(levelOf(read).evidence);
  return weight / (weight + 1 - before);
};

describe("meter against breathing", () => {
  it("says nothing of a tenth beside others of its kind, and of two fifths what they are", () => {
    expect(odds({ by: -0.1, ...KIND })).toBeLessThan(0.3);
    expect(odds({ by: -0.38, ...KIND })).toBeGreaterThan(0.8);
  });
  it("names a tenth beside the engine's own, which of the two only by its trims", () => {
    expect(odds({ by: -0.1, ...OWN })).toBeGreaterThan(0.9);
    expect(levelOf({ by: -0.1, ...OWN }).meter).toBeCloseTo(0.65, 2);
    expect(levelOf({ by: -0.1, trim: 0.11, ...OWN }).meter).toBeGreaterThan(0.9);
    expect(levelOf({ by: -0.1, trim: 0, ...OWN }).meter).toBeLessThan(0.1);
    expect(levelOf({ by: 0.1, trim: -0.09, ...OWN }).meter).toBeGreaterThan(0.9);
  });
  it("leaves a trim whose level is as it was to the fuel: pressure and injectors move no air", () => {
    expect(odds({ by: 0, trim: 0.12, ...OWN })).toBeLessThan(0.1);
    expect(odds({ by: 0.01, trim: -0.15, ...OWN })).toBeLessThan(0.1);
  });
  it("holds at any reading, however far out", () => {
    for (const by of [-0.99, -0.5, 0, 2, 50])
      for (const trim of [undefined, -0.6, 0, 0.6]) {
        const level = levelOf({ by, ...(trim === undefined ? {} : { trim }), ...OWN });
        expect(Number.isFinite(level.evidence)).toBe(true);
        expect(level.meter).toBeGreaterThanOrEqual(0);
        expect(level.meter).toBeLessThanOrEqual(1);
      }
  });
  it("says of sound cars no oftener that one is off than its odds are worth (property)", () => {
    const noise = seededNoise(31);
    let named = 0;
    for (let car = 0; car < 2000; car++) {
      // A sound car's gain, breathing and injectors, multiplied as they are in it.
      const [gain, breathing, fuel] = [1 + noise.normal(0.02), 1 + noise.normal(0.05), 1 + noise.normal(0.02)];
      if (odds({ by: gain * breathing - 1, trim: fuel / gain - 1, ...KIND }) > 0.7) named++;
    }
    expect(named).toBe(0);
  });
});
