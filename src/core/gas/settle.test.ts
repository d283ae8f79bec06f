import { describe, expect, it } from "vitest";
import { seededNoise } from "../maths/random";
import { fitSettling } from "./settle";

const every = (seconds: number, n: number) => Array.from({ length: n }, (_, i) => 1 + i * seconds);

describe("a scale that stands still", () => {
  // As people write it down: a few readings, most of them alike, the rush before them in one or two.
  it.each([
    [
      "a gauge at 11.2 after two readings of the rush",
      [1, 10, 20, 30, 45, 60, 75, 90],
      [2, 8.4, 11.2, 11.2, 11.2, 11.2, 11.2, 11.2],
      0.26,
    ],
    ["a ball at 2.2 for a minute", [1, 5, 15, 30, 45, 60, 75, 90], [12, 7, 3, 2.2, 2.2, 2.2, 2.2, 2.2], 0.24],
    ["a gauge at 2.0 that came up slowly first", [1, 20, 40, 60, 80, 100, 120], [0.4, 1.2, 1.7, 2, 2, 2, 2], 0.26],
    ["a ball at 2.1 after one that hunted", [1, 10, 20, 40, 60, 80, 100], [12, 1.4, 2.6, 2.1, 2.1, 2.1, 2.1], 0.24],
  ] as const)("is read where it stands: %s", (_, times, values, resolution) => {
    const settled = fitSettling(times, values, 6, resolution);
    const last = values.at(-1) as number;
    expect(settled.settled).toBe(true);
    expect(settled.value).toBeCloseTo(last, 2);
    expect(settled.low).toBeLessThanOrEqual(last);
    expect(settled.high).toBeGreaterThanOrEqual(last);
  });

  it("is read no further than it was read, however it came there", () => {
    for (let seed = 0; seed < 300; seed++) {
      const noise = seededNoise(seed);
      const n = 4 + Math.floor(noise.uniform(0, 30));
      const times = every(noise.uniform(2, 15), n);
      const values = times.map(() => 0);
      let at = noise.uniform(0, 13);
      for (let i = 0; i < n; i++) {
        at = Math.max(0, at + noise.normal(noise.uniform() < 0.3 ? 1 : 0.05));
        values[i] = Math.round(at * 10) / 10;
      }
      const settled = fitSettling(times, values, noise.uniform(2, 40), 0.26);
      if (!settled.settled) continue;
      expect(settled.value, `seed ${seed}`).toBeGreaterThanOrEqual(Math.min(...values) - 1e-9);
      expect(settled.value, `seed ${seed}`).toBeLessThanOrEqual(Math.max(...values) + 1e-9);
      expect(settled.low, `seed ${seed}`).toBeGreaterThanOrEqual(Math.min(...values) - 0.26);
      expect(settled.high, `seed ${seed}`).toBeLessThanOrEqual(Math.max(...values) + 0.26);
    }
  });

  it("is not called still while it goes on falling by less than the scale shows at once", () => {
    const times = every(5, 24);
    const settled = fitSettling(
      times,
      times.map((t) => 1 + 8 * Math.exp(-t / 60)),
      20,
      0.24,
    );
    expect(settled.settled).toBe(false);
  });
});
