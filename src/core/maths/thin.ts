/**
 * Means of the stretches of a long series that lie between edges; the last edge is the series' length.
 * @param edges rising indices, the first 0.
 */
export const stretchMeans = (values: readonly number[], edges: readonly number[]): number[] =>
  edges.slice(1).map((end, i) => {
    const start = edges[i] as number;
    let sum = 0;
    for (let k = start; k < end; k++) sum += values[k] as number;
    return sum / (end - start);
  });

/** Edges of so many stretches of a series, of equal length, or short ones first where `power` is above 1. */
export const stretchEdges = (length: number, stretches: number, power = 1): number[] =>
  Array.from({ length: stretches + 1 }, (_, i) => Math.max(i, Math.floor(length * (i / stretches) ** power)));
