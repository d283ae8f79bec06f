import fc from "fast-check";
import { expect, it } from "vitest";
import { SparseLu } from "./lu";

it("solves a sparse system that leans on its diagonal, whatever is tied to what, and again after it is filled anew", () => {
  const entry = fc.double({ min: -1, max: 1, noNaN: true });
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 12 }),
      fc.array(fc.tuple(fc.nat(11), fc.nat(11), entry), { maxLength: 40 }),
      fc.array(entry, { minLength: 12, maxLength: 12 }),
      (n, list, right) => {
        const within = list.filter(([i, j]) => i < n && j < n && i !== j);
        const lu = new SparseLu(
          n,
          within.map(([i, j]) => [i, j] as const),
        );
        for (const scale of [1, 3]) {
          const matrix = Array.from({ length: n }, (_, i) => Array.from({ length: n }, (_, j) => (i === j ? 15 * scale : 0)));
          for (const [i, j, v] of within) (matrix[i] as number[])[j] = v * scale;
          lu.a.fill(0);
          lu.a.set(matrix.flat());
          lu.factor();
          const x = Float64Array.from(right.slice(0, n));
          lu.solve(x);
          matrix.forEach((row, i) => {
            expect(row.reduce((sum, v, j) => sum + v * (x[j] as number), 0)).toBeCloseTo(right[i] as number, 10);
          });
        }
      },
    ),
  );
});

it("says where there is nothing to lean on", () => {
  const lu = new SparseLu(2, [[0, 1]]);
  lu.a.set([1, 2, 0, 0]);
  expect(() => lu.factor()).toThrow(/singular/);
});
