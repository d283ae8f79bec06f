import type { TrimPoint } from "../checks/trims/fields";
import type { Limits } from "../shop/settings";
import { fromSi, type Quantity } from "../units";
import type { ChannelId } from "./channels";
import { columnOf, type ScanLog } from "./read";

/** A stretch of a log in which engine speed and airflow hold still, warm and in closed loop. */
export interface SteadyWindow {
  /** s */
  readonly from: number;
  readonly to: number;
  /** First row and row after the last */
  readonly rows: readonly [number, number];
  /** Means over the window, SI and percent */
  readonly means: Readonly<Partial<Record<ChannelId, number>>>;
  /** sd of the mean total trim of each bank, percent */
  readonly scatter: readonly number[];
}

/** A reading older than this no longer speaks for the row, s. */
const HOLD = 2;
/** A break in the log longer than this ends a window, s. */
const LONGEST_GAP = 3;

/**
 * Steady windows: RPM within ± steadyRpm and MAF within ± steadyMaf of their middle for at least steadyTime, coolant warm
 * and loop closed where the log has them. Longest runs from the left, not overlapping; O(rows).
 * @returns [] when the log has no time or no engine speed.
 */
export function findSteadyWindows(log: ScanLog, limits: Limits): SteadyWindow[] {
  const time = columnOf(log, "time")?.values;
  const rpm = held(log, "rpm", time);
  if (!time || !rpm) return [];
  const maf = held(log, "maf", time);
  const coolant = held(log, "coolant", time);
  const loop = held(log, "loop", time);
  const fits = (i: number) =>
    Number.isFinite(rpm[i]) &&
    (rpm[i] as number) > 300 &&
    (!maf || Number.isFinite(maf[i])) &&
    (!coolant || !((coolant[i] as number) < limits.warmCoolant.value)) &&
    loop?.[i] !== 0;

  const windows: SteadyWindow[] = [];
  const speed = new RangeTracker(rpm);
  const flow = maf ? new RangeTracker(maf) : undefined;
  let start = 0;
  const close = (end: number) => {
    if (end - start >= 3 && (time[end - 1] as number) - (time[start] as number) >= limits.steadyTime.value) {
      windows.push(summarise(log, time, start, end));
      return true;
    }
    return false;
  };
  const restart = (at: number) => {
    start = at;
    speed.clear();
    flow?.clear();
  };
  const steady = () => {
    if (speed.range() > 2 * limits.steadyRpm.value) return false;
    return !flow || flow.range() <= 2 * limits.steadyMaf.value * flow.middle();
  };
  for (let i = 0; i < log.rows; i++) {
    const gap = i > start && (time[i] as number) - (time[i - 1] as number) > LONGEST_GAP;
    if (!fits(i) || gap) {
      close(i);
      restart(fits(i) ? i : i + 1);
      if (!fits(i)) continue;
    }
    speed.add(i);
    flow?.add(i);
    if (steady()) continue;
    if (close(i)) {
      restart(i);
      speed.add(i);
      flow?.add(i);
    }
    while (!steady()) {
      start++;
      speed.dropBefore(start);
      flow?.dropBefore(start);
    }
  }
  close(log.rows);
  return windows;
}

/** A channel with each value held over short gaps: tools that poll one channel a row leave the others empty. */
function held(log: ScanLog, id: ChannelId, time: Float64Array | undefined): Float64Array | undefined {
  const column = columnOf(log, id);
  if (!column || !time) return undefined;
  const out = new Float64Array(column.values);
  let last = Number.NaN;
  let at = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < out.length; i++) {
    if (Number.isFinite(out[i])) {
      last = out[i] as number;
      at = time[i] as number;
    } else if ((time[i] as number) - at <= HOLD) out[i] = last;
  }
  return out;
}

/** Running minimum and maximum over a sliding range of rows (monotonic queues). */
class RangeTracker {
  private readonly lows: number[] = [];
  private readonly highs: number[] = [];
  private lowHead = 0;
  private highHead = 0;
  constructor(private readonly values: Float64Array) {}

  add(i: number): void {
    const v = this.values[i] as number;
    while (this.lows.length > this.lowHead && (this.values[this.lows.at(-1) as number] as number) >= v) this.lows.pop();
    while (this.highs.length > this.highHead && (this.values[this.highs.at(-1) as number] as number) <= v) this.highs.pop();
    this.lows.push(i);
    this.highs.push(i);
  }
  dropBefore(start: number): void {
    while (this.lowHead < this.lows.length && (this.lows[this.lowHead] as number) < start) this.lowHead++;
    while (this.highHead < this.highs.length && (this.highs[this.highHead] as number) < start) this.highHead++;
  }
  clear(): void {
    this.lows.length = 0;
    this.highs.length = 0;
    this.lowHead = 0;
    this.highHead = 0;
  }
  private low = () => this.values[this.lows[this.lowHead] as number] as number;
  private high = () => this.values[this.highs[this.highHead] as number] as number;
  range = () => (this.lows.length > this.lowHead ? this.high() - this.low() : 0);
  middle = () => (this.high() + this.low()) / 2;
}

const MEANS: readonly ChannelId[] = [
  "rpm",
  "maf",
  "map",
  "charge",
  "barometer",
  "coolant",
  "intake-temperature",
  "short-trim-1",
  "long-trim-1",
  "short-trim-2",
  "long-trim-2",
  "total-trim-1",
  "total-trim-2",
  "loop",
  "speed",
  "egr",
  "exhaust-temperature",
  "filter-pressure",
];

function summarise(log: ScanLog, time: Float64Array, start: number, end: number): SteadyWindow {
  const means: Partial<Record<ChannelId, number>> = {};
  for (const id of MEANS) {
    const values = columnOf(log, id)?.values;
    if (!values) continue;
    let sum = 0;
    let count = 0;
    for (let i = start; i < end; i++) {
      if (Number.isFinite(values[i])) {
        sum += values[i] as number;
        count++;
      }
    }
    if (count > 0) means[id] = sum / count;
  }
  const from = time[start] as number;
  const to = time[end - 1] as number;
  return {
    from,
    to,
    rows: [start, end],
    means,
    scatter: ([1, 2] as const).map((bank) => scatterOf(log, bank, start, end, to - from)),
  };
}

/** sd of the window's mean short-term trim; neighbours in time are one reading, so a second counts once. */
function scatterOf(log: ScanLog, bank: 1 | 2, start: number, end: number, seconds: number): number {
  const values = (columnOf(log, `short-trim-${bank}`) ?? columnOf(log, `total-trim-${bank}`))?.values;
  if (!values) return 0;
  let sum = 0;
  let square = 0;
  let count = 0;
  for (let i = start; i < end; i++) {
    const v = values[i] as number;
    if (!Number.isFinite(v)) continue;
    sum += v;
    square += v * v;
    count++;
  }
  if (count < 2) return 0;
  const variance = Math.max(0, square / count - (sum / count) ** 2);
  return Math.sqrt(variance / Math.max(1, Math.min(count, seconds)));
}

/**
 * The survey points of a log: windows at the same operating point (RPM within 120, flow within 10 %) are one point,
 * weighted by their time. Windows without air flow or short-term trim give none.
 */
export function surveyPoints(windows: readonly SteadyWindow[]): TrimPoint[] {
  const groups: SteadyWindow[][] = [];
  for (const window of windows) {
    const trimmed = window.means["short-trim-1"] ?? window.means["total-trim-1"];
    if (window.means.maf === undefined || trimmed === undefined) continue;
    const group = groups.find(([first]) => first && samePoint(first, window));
    if (group) group.push(window);
    else groups.push([window]);
  }
  return groups
    .map((group): TrimPoint => {
      const seconds = group.map((w) => w.to - w.from);
      const total = seconds.reduce((a, b) => a + b, 0);
      const mean = (id: ChannelId): number | undefined => {
        const have = group.filter((w) => w.means[id] !== undefined);
        if (have.length === 0) return undefined;
        const weight = have.reduce((sum, w) => sum + (w.to - w.from), 0);
        return have.reduce((sum, w) => sum + (w.means[id] as number) * (w.to - w.from), 0) / weight;
      };
      const quantity = (id: ChannelId, unit: Quantity["unit"], kind?: Quantity["kind"]) => {
        const si = mean(id);
        return si === undefined ? undefined : fromSi(si, unit, kind);
      };
      const scatter = (bank: number) =>
        Math.sqrt(group.reduce((sum, w, i) => sum + ((w.scatter[bank] ?? 0) * (seconds[i] as number)) ** 2, 0)) / total;
      const map = quantity("map", "kPa", "absolute");
      const charge = quantity("charge", "kPa", "absolute");
      const coolant = quantity("coolant", "°C");
      const loop = mean("loop");
      const banks = ([1, 2] as const).flatMap((bank) => {
        const total = mean(`total-trim-${bank}`);
        // A tool that gives the total alone: it is known, however it is made up.
        if (total !== undefined) return [{ short: total, long: 0, scatter: scatter(bank - 1) }];
        const short = mean(`short-trim-${bank}`);
        const long = mean(`long-trim-${bank}`);
        return short === undefined ? [] : [{ short, ...(long === undefined ? {} : { long }), scatter: scatter(bank - 1) }];
      });
      return {
        rpm: mean("rpm") as number,
        maf: quantity("maf", "g/s") as Quantity,
        ...(map ? { map } : {}),
        ...(charge ? { chargePressure: charge } : {}),
        ...(coolant ? { coolant } : {}),
        ...(loop === undefined ? {} : { closedLoop: loop > 0.5 }),
        window: { from: (group[0] as SteadyWindow).from, to: (group[0] as SteadyWindow).to },
        banks,
      };
    })
    .sort((a, b) => a.maf.value - b.maf.value)
    .slice(0, 400);
}

const samePoint = (a: SteadyWindow, b: SteadyWindow) =>
  Math.abs((a.means.rpm ?? 0) - (b.means.rpm ?? 0)) <= 120 &&
  Math.abs((a.means.maf ?? 0) - (b.means.maf ?? 0)) <= 0.1 * (a.means.maf ?? 0);
