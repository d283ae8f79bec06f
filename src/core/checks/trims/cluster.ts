/** Where the engine runs, as one bank sees it. SI. */
export interface OperatingPoint {
  /** Indicated metered flow of this bank, kg/s */
  readonly flow: number;
  /** Manifold pressure, Pa absolute */
  readonly map: number;
  /** Charge pipe pressure, Pa absolute; unknown when absent */
  readonly charge?: number;
}

/** One steady point as one bank sees it. SI. */
export interface BankPoint extends OperatingPoint {
  /** Total trim, fraction */
  readonly trim: number;
  /** sd of the window's own mean trim, fraction; 0 when not known */
  readonly scatter: number;
  /** +1 or −1 when the ECU stood at that end of its range: the truth lies at or beyond. */
  readonly saturated: -1 | 0 | 1;
}

/** Points of nearly one airflow taken together: `count` readings of one value, each with the same noise. */
export interface Cluster extends BankPoint {
  readonly count: number;
}

/** Relative width of the airflow within which points say the same; it widens until no more clusters are left than are fitted. */
const SAME_FLOW = 0.04;
const MOST_FITTED = 24;
/** Trims this near each other stand at one stop, fraction. */
const AT_ONE_STOP = 0.01;

/**
 * Thins many points of nearly one airflow to their mean. Under Gaussian noise a mean of n with sd/√n says what the n say;
 * n points at one stop say "at least" n times, and do not average with what stands free.
 */
export function clustered(points: readonly BankPoint[], width = SAME_FLOW): Cluster[] {
  const clusters: BankPoint[][] = [];
  for (const p of points.toSorted((a, b) => a.flow - b.flow || a.map - b.map || a.trim - b.trim)) {
    const last = clusters.at(-1);
    const first = last?.[0];
    const together = first?.saturated === p.saturated && (p.saturated === 0 || Math.abs(first.trim - p.trim) < AT_ONE_STOP);
    const alike = first && together && p.flow <= first.flow * (1 + width);
    if (last && alike && Math.abs(first.map - p.map) <= width * first.map) last.push(p);
    else clusters.push([p]);
  }
  if (clusters.length > MOST_FITTED && width < 1) return clustered(points, 1.5 * width);
  return clusters.map((group): Cluster => {
    const mean = (of: (p: BankPoint) => number) => group.reduce((sum, p) => sum + of(p), 0) / group.length;
    const charges = group.filter((p) => p.charge !== undefined);
    return {
      flow: mean((p) => p.flow),
      map: mean((p) => p.map),
      ...(charges.length > 0 ? { charge: charges.reduce((sum, p) => sum + (p.charge as number), 0) / charges.length } : {}),
      trim: mean((p) => p.trim),
      scatter: Math.sqrt(mean((p) => p.scatter ** 2)),
      saturated: (group[0] as BankPoint).saturated,
      count: group.length,
    };
  });
}
