/** The value below which a share of the others lies. */
export const quantile = (values: readonly number[], share: number) =>
  values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] as number;
