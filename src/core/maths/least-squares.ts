/** Bayesian non-linear least squares: residuals and Gaussian priors, both already divided by their σ. */
export interface Fit {
  readonly parameters: number[];
  /** Sum of squared residuals without the priors. */
  readonly cost: number;
  readonly residuals: number[];
  /** False where it was still on its way when the steps ran out: what it gives is no optimum */
  readonly settled: boolean;
}

/** Residuals that some of the parameters bear on; all of them where none are named. */
export interface Block {
  residuals(parameters: readonly number[]): number[];
  readonly parameters?: readonly number[];
}

interface Problem {
  readonly blocks: readonly Block[];
  /** First guess */
  readonly start: readonly number[];
  /** Difference step of each parameter, in its own unit */
  readonly steps: readonly number[];
  /** Mean and sd of each parameter; an infinite sd is a flat prior */
  readonly prior: readonly { readonly mean: number; readonly sd: number }[];
  /** The start is an optimum of nearly the same problem: full steps from the first */
  readonly near?: boolean;
}

/** Steps that a fit may take, and one that starts near its optimum. */
const MOST_STEPS = 25;
const MOST_NEAR = 10;

/**
 * Levenberg–Marquardt (Marquardt 1963) with damping by the ratio of gain and promise (Nielsen 1999), by forward differences;
 * residuals are divided by their σ. Small problems only (≤ 20 parameters). Settled once a step promises less than a
 * millionth of what is left; the best point found where the steps run out before.
 */
export function leastSquares(problem: Problem): Fit {
  const { blocks, start, prior, near = false } = problem;
  const priorCost = (p: readonly number[]) =>
    p.reduce((sum, value, i) => sum + ((value - (prior[i]?.mean ?? 0)) / (prior[i]?.sd ?? Infinity)) ** 2, 0);
  const residuals = (p: readonly number[]) => blocks.map((block) => block.residuals(p));
  let p = [...start];
  let r = residuals(p);
  let total = sumSquares(r) + priorCost(p);
  let damping = near ? 1e-6 : 1e-3;
  let normal = normalEquations(problem, p, r);
  let growth = 2;
  let settled = false;
  for (let step = 0; step < (near ? MOST_NEAR : MOST_STEPS) && !settled; step++) {
    const damped = normal.matrix.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) : v)));
    const move = solve(damped, normal.gradient);
    const next = p.map((value, i) => value - (move[i] ?? 0));
    const nextR = residuals(next);
    const nextTotal = sumSquares(nextR) + priorCost(next);
    const gain = total - nextTotal;
    // What the linear model promised for this step
    const promised = move.reduce(
      (sum, m, i) => sum + m * ((normal.gradient[i] as number) + damping * (normal.matrix[i]?.[i] as number) * m),
      0,
    );
    if (Number.isFinite(nextTotal) && gain >= 0) {
      p = next;
      r = nextR;
      total = nextTotal;
      damping = Math.max(damping * Math.max(1 / 10, 1 - (2 * (gain / promised) - 1) ** 3), 1e-9);
      growth = 2;
      settled = promised < 1e-6 * (1 + total);
      if (!settled) normal = normalEquations(problem, p, r);
    } else {
      damping *= growth;
      growth *= 2;
      // Not even the shortest step gains: this is the bottom, as far as numbers go.
      settled = damping > 1e9;
    }
  }
  return { parameters: p, cost: sumSquares(r), residuals: r.flat(), settled };
}

/** Covariance of the parameters at an optimum (Laplace approximation), by central differences. */
export function covarianceAt(problem: Omit<Problem, "start" | "near">, optimum: readonly number[]): number[][] {
  const residuals = problem.blocks.map((block) => block.residuals(optimum));
  const { matrix } = normalEquations(problem, optimum, residuals, true);
  return optimum.map((_, j) =>
    solve(
      matrix,
      optimum.map((_, i) => (i === j ? 1 : 0)),
    ),
  );
}

function sumSquares(blocks: readonly (readonly number[])[]): number {
  let sum = 0;
  for (const block of blocks) for (const value of block) sum += value * value;
  return sum;
}

function normalEquations(
  { blocks, steps, prior }: Omit<Problem, "start" | "near">,
  p: readonly number[],
  r: readonly (readonly number[])[],
  central = false,
) {
  const n = p.length;
  const matrix = p.map((_, i) => p.map((_, j) => (i === j ? 1 / (prior[i]?.sd ?? Infinity) ** 2 : 0)));
  const gradient = p.map((value, i) => (value - (prior[i]?.mean ?? 0)) / (prior[i]?.sd ?? Infinity) ** 2);
  const all = Array.from({ length: n }, (_, i) => i);
  for (const [b, block] of blocks.entries()) {
    const own = block.parameters ?? all;
    const columns = own.map((i) => {
      const h = steps[i] ?? 1e-6;
      const moved = (by: number) => block.residuals(p.map((v, j) => (i === j ? v + by : v)));
      const [up, down] = [moved(h), central ? moved(-h) : (r[b] as number[])];
      return up.map((u, k) => (u - (down[k] as number)) / (central ? 2 * h : h));
    });
    for (const [a, i] of own.entries()) {
      const column = columns[a] as number[];
      gradient[i] = (gradient[i] as number) + dot(column, r[b] as number[]);
      for (const [c, j] of own.entries())
        (matrix[i] as number[])[j] = ((matrix[i] as number[])[j] as number) + dot(column, columns[c] as number[]);
    }
  }
  return { matrix, gradient };
}

function dot(a: readonly number[], b: readonly number[]): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += (a[k] as number) * (b[k] as number);
  return sum;
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
