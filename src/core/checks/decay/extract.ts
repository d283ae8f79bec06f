import { columnOf, type ScanLog } from "../../scan-log";

/** Version of what is taken from a log here; kept with every record that rests on it. */
export const TANK_EXTRACTOR = 1;

/** Most points of a trace: a reading every second of a long test, and more than any phase needs. */
const MOST_POINTS = 600;

/**
 * Tank pressure over a log's clock: [s, Pa gauge], thinned to means of at most 600 equal stretches.
 * @returns [] when the log has no clock or no tank pressure.
 */
export function tankTrace(log: ScanLog): [number, number][] {
  const time = columnOf(log, "time")?.values;
  const pressure = columnOf(log, "tank-pressure")?.values;
  if (!time || !pressure) return [];
  const known = Array.from({ length: log.rows }, (_, i) => i).filter(
    (i) => Number.isFinite(time[i]) && Number.isFinite(pressure[i]),
  );
  const size = Math.max(1, Math.ceil(known.length / MOST_POINTS));
  const points: [number, number][] = [];
  for (let i = 0; i < known.length; i += size) {
    const part = known.slice(i, i + size);
    const mean = (values: Float64Array) => part.reduce((sum, k) => sum + (values[k] as number), 0) / part.length;
    const at = mean(time);
    if (points.length === 0 || at > (points.at(-1) as [number, number])[0]) points.push([at, mean(pressure)]);
  }
  return points;
}
