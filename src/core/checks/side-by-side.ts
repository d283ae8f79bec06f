/** Reading at one operating point, and how well: its standard deviation, in its own unit. */
export interface PointReading {
  readonly name: string;
  readonly unit: string;
  readonly value: number;
  readonly sd: number;
}

/** An operating point of a record: speed, what the engine was loaded with, how warm it was, and what was read there. */
export interface OperatingPoint {
  /** 1/min */
  readonly rpm: number;
  /** Air flow (kg/s) or pressure (Pa absolute): points are matched by the same one only */
  readonly load?: { readonly of: "flow" | "pressure"; readonly value: number };
  /** K */
  readonly temperature?: number;
  readonly readings: readonly PointReading[];
}

/** A reading before and after at one operating point: the difference with its 95 % interval. */
export interface Difference {
  readonly name: string;
  readonly unit: string;
  readonly before: number;
  readonly after: number;
  readonly change: number;
  readonly low: number;
  readonly high: number;
}
export interface MatchedPoint {
  readonly before: OperatingPoint;
  readonly after: OperatingPoint;
  readonly differences: readonly Difference[];
}

/** Points no farther apart than this are one operating point: speed and load as shares, temperature in K. */
const SPEED = 0.1;
const LOAD = 0.2;
const TEMPERATURE = 15;

/** How far two points lie apart, 1 at the edge of being one; Infinity where they are not. */
function apart(a: OperatingPoint, b: OperatingPoint): number {
  const share = (x: number, y: number, within: number) => Math.abs(x - y) / (within * Math.max(Math.abs(x), Math.abs(y), 1e-12));
  const speed = share(a.rpm, b.rpm, SPEED);
  const load = a.load && b.load && a.load.of === b.load.of ? share(a.load.value, b.load.value, LOAD) : 0;
  const warm =
    a.temperature !== undefined && b.temperature !== undefined ? Math.abs(a.temperature - b.temperature) / TEMPERATURE : 0;
  return Math.max(speed, load, warm) <= 1 ? speed + load + warm : Number.POSITIVE_INFINITY;
}

/**
 * Lays readings after a repair against those before it, matched by operating point: each point is taken once, the nearest pair
 * first. Differences have the interval of both readings together (95 %, normal, independent).
 * @returns matched points by rising speed; points without a partner are left out.
 */
export function sideBySide(before: readonly OperatingPoint[], after: readonly OperatingPoint[]): MatchedPoint[] {
  const pairs = before
    .flatMap((b, i) => after.map((a, k) => ({ i, k, far: apart(b, a) })))
    .filter(({ far }) => Number.isFinite(far))
    .toSorted((x, y) => x.far - y.far);
  const [used, taken] = [new Set<number>(), new Set<number>()];
  const matched: MatchedPoint[] = [];
  for (const { i, k } of pairs) {
    if (used.has(i) || taken.has(k)) continue;
    used.add(i);
    taken.add(k);
    const [b, a] = [before[i] as OperatingPoint, after[k] as OperatingPoint];
    const differences = b.readings.flatMap((was): Difference[] => {
      const is = a.readings.find((r) => r.name === was.name && r.unit === was.unit);
      if (!is) return [];
      const change = is.value - was.value;
      const wide = 1.96 * Math.hypot(is.sd, was.sd);
      return [
        { name: was.name, unit: was.unit, before: was.value, after: is.value, change, low: change - wide, high: change + wide },
      ];
    });
    if (differences.length > 0) matched.push({ before: b, after: a, differences });
  }
  return matched.toSorted((x, y) => x.after.rpm - y.after.rpm);
}
