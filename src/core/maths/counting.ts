/** Half a standard normal distribution's 95 %. */
const Z = 1.959964;

export interface Interval {
  readonly low: number;
  readonly high: number;
}

/**
 * A share that was counted, with its 95 % interval (Wilson 1927, J. Am. Stat. Assoc. 22): never beyond 0…1, and wide where little was
 * counted. @param k how often of n; n ≥ 1, 0 ≤ k ≤ n, else RangeError.
 */
export function shareOf(k: number, n: number): Interval & { readonly share: number } {
  if (!(n >= 1 && k >= 0 && k <= n)) throw new RangeError("A share is of one or more, and no more than all of them");
  const share = k / n;
  const centre = (share + (Z * Z) / (2 * n)) / (1 + (Z * Z) / n);
  const half = (Z / (1 + (Z * Z) / n)) * Math.sqrt((share * (1 - share)) / n + (Z * Z) / (4 * n * n));
  return { share, low: k === 0 ? 0 : centre - half, high: k === n ? 1 : centre + half };
}

/**
 * The middle of some values, in their unit, with an interval that holds the true middle with at least 95 %, whatever they are spread
 * like: order statistics, by the binomial distribution (Thompson 1936, Ann. Math. Stat. 7). Undefined for fewer than six: no pair of
 * them is so sure.
 */
export function medianOf(values: readonly number[]): (Interval & { readonly middle: number }) | undefined {
  const n = values.length;
  if (n < 6) return undefined;
  const sorted = values.toSorted((a, b) => a - b);
  // The largest k with P(fewer than k of n below the middle) at most 2.5 %.
  let below = 0.5 ** n;
  let term = below;
  let k = 0;
  while (below <= 0.025) {
    k++;
    term *= (n - k + 1) / k;
    below += term;
  }
  const at = (i: number) => sorted[i] as number;
  return { middle: (at((n - 1) >> 1) + at(n >> 1)) / 2, low: at(k - 1), high: at(n - k) };
}
