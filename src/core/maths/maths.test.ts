import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { covarianceAt, leastSquares } from "./least-squares";
import { seededNoise } from "./random";
import { stretchEdges, stretchMeans } from "./thin";

const flat = (n: number) => Array.from({ length: n }, () => ({ mean: 0, sd: Infinity }));

type Residuals = (p: readonly number[]) => number[];
const fitOf = (residuals: Residuals, start: number[], steps: number[], prior: { mean: number; sd: number }[]) => {
  const problem = { blocks: [{ residuals }], start, steps, prior };
  const fit = leastSquares(problem);
  return { ...fit, covariance: covarianceAt(problem, fit.parameters) };
};

describe("least squares", () => {
  const x = [0, 1, 2, 3, 4];

  it("gives the line of the normal equations, with their covariance", () => {
    const y = [1.1, 2.9, 5.2, 6.8, 9.1];
    const fit = fitOf(
      (p) => x.map((v, i) => (p[0] as number) + (p[1] as number) * v - (y[i] as number)),
      [0, 0],
      [1e-3, 1e-3],
      flat(2),
    );
    // Sums of the textbook: n = 5, Σx = 10, Σx² = 30, Σy = 25.1, Σxy = 70.1
    expect(fit.parameters[1]).toBeCloseTo((5 * 70.1 - 10 * 25.1) / 50, 6);
    expect(fit.parameters[0]).toBeCloseTo((25.1 * 30 - 10 * 70.1) / 50, 6);
    expect(fit.covariance[0]?.[0]).toBeCloseTo(30 / 50, 4);
    expect(fit.covariance[1]?.[1]).toBeCloseTo(5 / 50, 4);
    expect(fit.covariance[0]?.[1]).toBeCloseTo(-10 / 50, 4);
  });

  it("finds a decay from far off", () => {
    const truth = [3, 5, 0.7] as const;
    const times = Array.from({ length: 20 }, (_, i) => i / 2);
    const model = (p: readonly number[], t: number) => (p[0] as number) + (p[1] as number) * Math.exp(-(p[2] as number) * t);
    const fit = fitOf((p) => times.map((t) => (model(p, t) - model(truth, t)) / 0.01), [1, 1, 0.2], [1e-4, 1e-4, 1e-4], flat(3));
    fit.parameters.forEach((value, i) => {
      expect(value).toBeCloseTo(truth[i] as number, 3);
    });
    expect(fit.cost).toBeLessThan(1e-4);
  });

  it("lets a prior and data of the same weight meet half way", () => {
    const fit = fitOf((p) => [(p[0] as number) - 10], [0], [1e-3], [{ mean: 0, sd: 1 }]);
    expect(fit.parameters[0]).toBeCloseTo(5, 6);
    expect(fit.covariance[0]?.[0]).toBeCloseTo(0.5, 4);
  });

  it("stays put where the data say nothing", () => {
    const fit = fitOf(
      () => [0.3, -0.2],
      [7, 1],
      [1e-3, 1e-3],
      [
        { mean: 7, sd: 2 },
        { mean: 1, sd: 0.5 },
      ],
    );
    expect(fit.parameters).toEqual([7, 1]);
    expect(fit.covariance[0]?.[0]).toBeCloseTo(4, 6);
    expect(fit.covariance[1]?.[1]).toBeCloseTo(0.25, 6);
  });

  it("finds the same in blocks that name their parameters, and from near as from far (property)", () => {
    const number = fc.double({ min: 0.5, max: 3, noNaN: true });
    fc.assert(
      fc.property(number, number, number, (a, b, c) => {
        // Two decays of one time constant, each with a height of its own.
        const y = (height: number, rate: number, t: number) => height * Math.exp(-rate * t);
        const block = (i: 1 | 2, height: number) => ({
          residuals: (p: readonly number[]) =>
            x.map((t) => (y(p[i] as number, p[0] as number, t) - y(height, c, t) - 0.01 * Math.cos(9 * t)) / 0.01),
          parameters: [0, i],
        });
        const blocks = [block(1, a), block(2, b)];
        const problem = { start: [1, 1, 1], steps: [1e-4, 1e-4, 1e-4], prior: flat(3) };
        const apart = leastSquares({ ...problem, blocks });
        const whole = fitOf((p) => blocks.flatMap((o) => o.residuals(p)), problem.start, problem.steps, problem.prior);
        const near = leastSquares({ ...problem, blocks, start: apart.parameters, near: true });
        const covariance = covarianceAt({ ...problem, blocks }, apart.parameters);
        for (const i of [0, 1, 2]) {
          expect(apart.parameters[i]).toBeCloseTo(whole.parameters[i] as number, 3);
          expect(near.parameters[i]).toBeCloseTo(apart.parameters[i] as number, 3);
          expect(covariance[i]?.[i]).toBeCloseTo(whole.covariance[i]?.[i] as number, 6);
        }
      }),
      { numRuns: 60 },
    );
  });

  it("never ends worse than it began (property)", () => {
    fc.assert(
      fc.property(fc.double({ min: -5, max: 5, noNaN: true }), fc.double({ min: -5, max: 5, noNaN: true }), (a, b) => {
        const residuals = (p: readonly number[]) => x.map((v) => Math.sin((p[0] as number) * v) + (p[1] as number) - v / 3);
        const before = residuals([a, b]).reduce((sum, r) => sum + r * r, 0);
        expect(fitOf(residuals, [a, b], [1e-4, 1e-4], flat(2)).cost).toBeLessThanOrEqual(before + 1e-9);
      }),
      { numRuns: 50 },
    );
  });
});

describe("noise", () => {
  it("is the same for the same seed and another for another", () => {
    const [a, b, c] = [seededNoise(4), seededNoise(4), seededNoise(5)];
    const take = (n: ReturnType<typeof seededNoise>) => Array.from({ length: 5 }, () => n.normal());
    const first = take(a);
    expect(take(b)).toEqual(first);
    expect(take(c)).not.toEqual(first);
  });

  it("is normal with the spread asked for, and uniform within its bounds", () => {
    const noise = seededNoise(11);
    const values = Array.from({ length: 20_000 }, () => noise.normal(2));
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    const sd = Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / values.length);
    expect(Math.abs(mean)).toBeLessThan(0.06);
    expect(sd).toBeCloseTo(2, 1);
    expect(values.filter((v) => Math.abs(v) < 3.92).length / values.length).toBeCloseTo(0.95, 2);
    for (let i = 0; i < 1000; i++) {
      const u = noise.uniform(-3, 7);
      expect(u >= -3 && u < 7).toBe(true);
    }
  });
});

describe("stretches of a long series", () => {
  it("cover every value once, none of them empty, short ones first where that is asked (property)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 90 }), fc.integer({ min: 0, max: 5000 }), fc.constantFrom(1, 2), (n, more, power) => {
        const edges = stretchEdges(n + more, n, power);
        expect([edges[0], edges.at(-1), edges.length]).toEqual([0, n + more, n + 1]);
        const sizes = edges.slice(1).map((e, i) => e - (edges[i] as number));
        expect(Math.min(...sizes)).toBeGreaterThan(0);
        if (power === 2) expect(sizes[0]).toBeLessThanOrEqual(sizes.at(-1) as number);
      }),
    );
  });
  it("are told by their means: the whole mean is theirs, weighted", () => {
    const values = Array.from({ length: 500 }, (_, i) => Math.sin(i) + i / 50);
    const edges = stretchEdges(500, 40, 2);
    const means = stretchMeans(values, edges);
    const whole = means.reduce((sum, m, i) => sum + m * ((edges[i + 1] as number) - (edges[i] as number)), 0);
    expect(whole).toBeCloseTo(
      values.reduce((a, b) => a + b, 0),
      9,
    );
  });
});
