import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { coldStarts, comesBackAfter, comesBackAtRandom } from "./comeback";
import { seededNoise } from "./random";

describe("a fault that comes back at random", () => {
  it.each([
    [1, 19],
    [3, 5.143],
    [5, 4.103],
  ])("with %d recorded needs %f times their mean", (n, times) => {
    const { needed } = comesBackAtRandom({ recorded: Array.from({ length: n }, () => 40), clean: 0 });
    expect(needed / 40).toBeCloseTo(times, 2);
  });
  it("is (1 + x/T)^-n to the last digits, and enough just there", () => {
    const recorded = [12, 30, 51];
    for (const clean of [0, 1, 77.5, 1e4]) {
      const { chanceIfNotFixed } = comesBackAtRandom({ recorded, unfinished: 7, clean });
      expect(Math.abs(chanceIfNotFixed - (1 + clean / 100) ** -3)).toBeLessThan(1e-9);
    }
    const { needed } = comesBackAtRandom({ recorded, clean: 0 });
    expect(comesBackAtRandom({ recorded, clean: needed }).enough).toBe(true);
    expect(comesBackAtRandom({ recorded, clean: 0.999 * needed }).enough).toBe(false);
    // The stretch that was under way when it was repaired is exposure as well: more is asked for, not less.
    expect(comesBackAtRandom({ recorded, unfinished: 50, clean: 0 }).needed).toBeGreaterThan(needed);
  });
  it("lets one unrepaired fault in twenty by, whatever its mean", () => {
    const noise = seededNoise(5);
    const interval = (mean: number) => -mean * Math.log(1 - noise.uniform());
    let by = 0;
    for (let i = 0; i < 10_000; i++) {
      const mean = 10 ** noise.uniform(0, 3);
      const recorded = Array.from({ length: 1 + (i % 5) }, () => interval(mean));
      if (interval(mean) > comesBackAtRandom({ recorded, clean: 0 }).needed) by++;
    }
    expect(by / 10_000).toBeGreaterThan(0.043);
    expect(by / 10_000).toBeLessThan(0.057);
  });
});

describe("a fault that sets in after so much", () => {
  it.each([
    [1, 19],
    [2, 5],
    [3, 3],
    [4, 3],
    [5, 2],
  ])("with %d onsets needs %d runs past the longest", (n, runs) => {
    const recorded = Array.from({ length: n }, (_, i) => 10 + i);
    const clean = Array.from({ length: runs }, () => 100);
    expect(comesBackAfter({ recorded, clean: [] }).needed).toBe(runs);
    expect(comesBackAfter({ recorded, clean }).enough).toBe(true);
    expect(comesBackAfter({ recorded, clean: clean.slice(1) }).enough).toBe(false);
  });
  it("counts no run that stopped short, and adds none up", () => {
    const { counted, chanceIfNotFixed, enough } = comesBackAfter({ recorded: [20, 30], clean: [29, 30, 12, 31] });
    expect([counted, enough]).toEqual([1, false]);
    expect(chanceIfNotFixed).toBeCloseTo((2 * 1) / 6, 12);
    expect(comesBackAfter({ recorded: [20, 30], clean: Array.from({ length: 500 }, () => 29) }).chanceIfNotFixed).toBe(1);
  });
  it("keeps its word over histories of any onset, run past where it set in", () => {
    const noise = seededNoise(6);
    let by = 0;
    for (let i = 0; i < 10_000; i++) {
      const onset = () => Math.exp(3 + 0.7 * noise.normal(1));
      const recorded = Array.from({ length: 2 + (i % 4) }, onset);
      const { needed, past } = comesBackAfter({ recorded, clean: [] });
      // Unrepaired, a run is clean past the longest only where its own onset lies beyond.
      if (Array.from({ length: needed }, onset).every((at) => at > past)) by++;
    }
    expect(by / 10_000).toBeLessThan(0.055);
  });
});

describe("cold starts", () => {
  it("leave what the closed forms leave", () => {
    expect(coldStarts({ share: 0.25 }, 4).chanceIfNotFixed).toBeCloseTo(0.75 ** 4, 12);
    expect(coldStarts({ share: 0.25 }, 0).needed).toBe(11);
    const [came, of, clean] = [3, 8, 6];
    const closed = Array.from({ length: clean }, (_, i) => (of - came + 0.5 + i) / (of + 1 + i)).reduce((a, b) => a * b);
    expect(Math.abs(coldStarts({ came, of }, clean).chanceIfNotFixed - closed)).toBeLessThan(1e-12);
    const { needed } = coldStarts({ came, of }, 0);
    expect(coldStarts({ came, of }, needed).enough).toBe(true);
    expect(coldStarts({ came, of }, needed - 1).enough).toBe(false);
    // What was seen ten times over tells more than its share alone seen once.
    expect(coldStarts({ came: 30, of: 80 }, 0).needed).toBeLessThan(coldStarts({ came: 3, of: 8 }, 0).needed);
  });
  it("refuse what nothing can be counted on", () => {
    expect(() => coldStarts({ came: 0, of: 8 }, 3)).toThrow(/nothing to count on/);
    expect(() => coldStarts({ came: 9, of: 8 }, 3)).toThrow(RangeError);
    expect(() => coldStarts({ share: 1 }, 3)).toThrow(RangeError);
    expect(() => coldStarts({ share: 0.2 }, 1.5)).toThrow(/counted/);
    expect(() => comesBackAtRandom({ recorded: [], clean: 3 })).toThrow(/at least one/);
    expect(() => comesBackAtRandom({ recorded: [0], clean: 3 })).toThrow(RangeError);
    expect(() => comesBackAfter({ recorded: [Number.NaN], clean: [] })).toThrow(RangeError);
  });
  it("never ask for less as less is clean, nor end at nothing", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 0, max: 300 }),
        (came, more, clean) => {
          const { chanceIfNotFixed, needed, enough } = coldStarts({ came, of: came + more }, clean);
          expect(chanceIfNotFixed).toBeGreaterThan(0);
          expect(chanceIfNotFixed).toBeLessThanOrEqual(1);
          expect(needed).toBeGreaterThan(0);
          expect(enough).toBe(clean >= needed);
        },
      ),
    );
  });
});
