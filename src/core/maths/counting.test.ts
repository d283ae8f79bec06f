import { describe, expect, it } from "vitest";
import { medianOf, shareOf } from "./counting";
import { seededNoise } from "./random";

describe("a share that was counted", () => {
  // Newcombe 1998, Stat. Med. 17, table I, method 3.
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])("%d of %d is between %f and %f", (k, n, low, high) => {
    const found = shareOf(k, n);
    expect(found.share).toBeCloseTo(k / n, 12);
    expect(found.low).toBeCloseTo(low, 4);
    expect(found.high).toBeCloseTo(high, 4);
  });
  it("of none is no share", () => {
    for (const [k, n] of [
      [0, 0],
      [3, 2],
      [-1, 4],
      [Number.NaN, 3],
    ] as const)
      expect(() => shareOf(k, n)).toThrow(RangeError);
  });
});

describe("the middle of some values", () => {
  it("has the ranks of the binomial distribution", () => {
    const upTo = (n: number) => Array.from({ length: n }, (_, i) => i + 1);
    // Conover 1999, table A3: 6 values have the first and the last, 20 the sixth from each end.
    expect(medianOf(upTo(6))).toEqual({ middle: 3.5, low: 1, high: 6 });
    expect(medianOf(upTo(9).toReversed())).toEqual({ middle: 5, low: 2, high: 8 });
    expect(medianOf(upTo(20))).toEqual({ middle: 10.5, low: 6, high: 15 });
    expect(medianOf(upTo(5))).toBeUndefined();
  });
  it("holds the truth at least 95 times in 100, however skewed they are", () => {
    const noise = seededNoise(3);
    let held = 0;
    for (let i = 0; i < 2000; i++) {
      const found = medianOf(Array.from({ length: 11 }, () => -Math.log(1 - noise.uniform())));
      if (found && found.low <= Math.LN2 && Math.LN2 <= found.high) held++;
    }
    expect(held / 2000).toBeGreaterThan(0.95);
  });
});
