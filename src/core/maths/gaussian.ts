/** Lower Cholesky factor of a symmetric positive matrix, row by row. Throws RangeError where it is not positive. */
export function cholesky(matrix: readonly (readonly number[])[]): number[][] {
  const n = matrix.length;
  const lower: number[][] = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++) {
    const row = lower[i] as number[];
    for (let j = 0; j <= i; j++) {
      const other = lower[j] as number[];
      let sum = (matrix[i] as readonly number[])[j] as number;
      for (let k = 0; k < j; k++) sum -= (row[k] as number) * (other[k] as number);
      if (i === j && !(sum > 0)) throw new RangeError("The matrix is not positive");
      row[j] = i === j ? Math.sqrt(sum) : sum / (other[j] as number);
    }
  }
  return lower;
}

/** L⁻¹·b by forward substitution: products of two such are those of b with the inverse of the matrix. */
export function whiten(lower: readonly (readonly number[])[], b: readonly number[]): number[] {
  const x: number[] = [];
  for (let i = 0; i < b.length; i++) {
    const row = lower[i] as readonly number[];
    let sum = b[i] as number;
    for (let k = 0; k < i; k++) sum -= (row[k] as number) * (x[k] as number);
    x.push(sum / (row[i] as number));
  }
  return x;
}

export const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, value, i) => sum + value * (b[i] as number), 0);

/** Standard normal distribution function, to 1.2e−7 (Abramowitz & Stegun 1964, 7.1.26). */
export function normalBelow(z: number): number {
  const t = 1 / (1 + (0.3275911 * Math.abs(z)) / Math.SQRT2);
  const poly = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const half = 0.5 * poly * Math.exp((-z * z) / 2);
  return z > 0 ? 1 - half : half;
}
