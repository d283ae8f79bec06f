/** Bayesian non-linear least squares: residuals and Gaussian priors, both already divided by their σ. */
export interface Fit {
  readonly parameters: number[];
  /** Covariance of the parameters at the optimum (Laplace approximation). */
  readonly covariance: number[][];
  /** Sum of squared residuals without the priors. */
  readonly cost: number;
  readonly residuals: number[];
}

/**
 * Levenberg–Marquardt (Marquardt 1963) with a central-difference Jacobian.
 * @param residuals weighted data residuals at the parameters (dimensionless).
 * @param start first guess; @param steps difference step of each parameter, in its own unit.
 * @param prior mean and sd of each parameter; an infinite sd is a flat prior.
 * Small problems only (≤ 20 parameters); returns the best point found after at most 60 steps.
 */
export function leastSquares(
  residuals: (parameters: readonly number[]) => number[],
  start: readonly number[],
  steps: readonly number[],
  prior: readonly { mean: number; sd: number }[],
): Fit {
  const n = start.length;
  const priorCost = (p: readonly number[]) =>
    p.reduce((sum, value, i) => sum + ((value - (prior[i]?.mean ?? 0)) / (prior[i]?.sd ?? Infinity)) ** 2, 0);
  const sumSquares = (r: readonly number[]) => r.reduce((sum, value) => sum + value * value, 0);
  let p = [...start];
  let r = residuals(p);
  let total = sumSquares(r) + priorCost(p);
  let damping = 1e-3;
  let normal = normalEquations(residuals, p, r, steps, prior);
  for (let iteration = 0; iteration < 60; iteration++) {
    const damped = normal.matrix.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) : v)));
    const step = solve(damped, normal.gradient);
    const next = p.map((value, i) => value - (step[i] ?? 0));
    const nextR = residuals(next);
    const nextTotal = sumSquares(nextR) + priorCost(next);
    if (Number.isFinite(nextTotal) && nextTotal <= total) {
      const gain = total - nextTotal;
      p = next;
      r = nextR;
      total = nextTotal;
      damping = Math.max(damping / 10, 1e-9);
      normal = normalEquations(residuals, p, r, steps, prior);
      if (gain < 1e-6 * (1 + total) && damping < 1e-5) break;
    } else {
      damping *= 10;
      if (damping > 1e9) break;
    }
  }
  const covariance = Array.from({ length: n }, (_, j) =>
    solve(
      normal.matrix,
      Array.from({ length: n }, (_, i) => (i === j ? 1 : 0)),
    ),
  );
  return { parameters: p, covariance, cost: sumSquares(r), residuals: r };
}

function normalEquations(
  residuals: (p: readonly number[]) => number[],
  p: readonly number[],
  r: readonly number[],
  steps: readonly number[],
  prior: readonly { mean: number; sd: number }[],
) {
  const n = p.length;
  const columns = p.map((value, i) => {
    const h = steps[i] ?? 1e-6;
    const up = residuals(p.map((v, j) => (i === j ? value + h : v)));
    const down = residuals(p.map((v, j) => (i === j ? value - h : v)));
    return up.map((u, k) => (u - (down[k] ?? 0)) / (2 * h));
  });
  const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, v, k) => sum + v * (b[k] ?? 0), 0);
  const matrix = Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (_, j) => {
      const weight = i === j ? 1 / (prior[i]?.sd ?? Infinity) ** 2 : 0;
      return dot(columns[i] ?? [], columns[j] ?? []) + weight;
    }),
  );
  const gradient = p.map(
    (value, i) => dot(columns[i] ?? [], r) + (value - (prior[i]?.mean ?? 0)) / (prior[i]?.sd ?? Infinity) ** 2,
  );
  return { matrix, gradient };
}

/** Solves a small symmetric system by Gaussian elimination on rows scaled to unit diagonal. */
function solve(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const n = right.length;
  const scale = matrix.map((row, i) => Math.sqrt(Math.abs(row[i] ?? 0)) || 1);
  const a = matrix.map((row, i) => [
    ...row.map((v, j) => v / ((scale[i] as number) * (scale[j] as number))),
    (right[i] as number) / (scale[i] as number),
  ]);
  for (let col = 0; col < n; col++) {
    let pivot = col;
    for (let row = col + 1; row < n; row++) {
      if (Math.abs(a[row]?.[col] ?? 0) > Math.abs(a[pivot]?.[col] ?? 0)) pivot = row;
    }
    [a[col], a[pivot]] = [a[pivot] as number[], a[col] as number[]];
    const head = a[col] as number[];
    const diagonal = head[col] || 1e-300;
    for (let row = col + 1; row < n; row++) {
      const line = a[row] as number[];
      const factor = (line[col] as number) / diagonal;
      for (let k = col; k <= n; k++) line[k] = (line[k] as number) - factor * (head[k] as number);
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let row = n - 1; row >= 0; row--) {
    const line = a[row] as number[];
    let sum = line[n] as number;
    for (let k = row + 1; k < n; k++) sum -= (line[k] as number) * (x[k] as number);
    x[row] = sum / (line[row] || 1e-300);
  }
  return x.map((v, i) => v / (scale[i] as number));
}
