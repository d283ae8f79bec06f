import { columnOf, findSteadyWindows, type ScanLog } from "../../scan-log";
import type { Limits } from "../../shop/limits";
import { fromSi } from "../../units";
import type { AirflowPoint } from "./fields";

export const AIRFLOW_EXTRACTOR = 1;

/** Throttle (percent) from which it counts as wide open. */
const WIDE_OPEN = 85;
/** Without a throttle column: manifold pressure as a share of ambient. */
const NEARLY_AMBIENT = 0.85;

/**
 * Idle and wide-open points of a log: the steady window of lowest speed, and the second of highest air flow (or manifold
 * pressure) with the throttle wide open; without a throttle column, with manifold pressure at 85 % of ambient or more.
 * @param ambient Pa absolute. @returns [] when the log has neither.
 */
export function airflowPoints(log: ScanLog, limits: Limits, ambient: number): AirflowPoint[] {
  const idle = findSteadyWindows(log, limits)
    .filter((w) => w.means.rpm !== undefined && w.means.rpm < 1200)
    .toSorted((a, b) => (a.means.rpm as number) - (b.means.rpm as number))[0];
  const point = (state: AirflowPoint["state"], rpm: number, maf: number | undefined, map: number | undefined): AirflowPoint => ({
    state,
    rpm: Math.round(rpm),
    ...(maf !== undefined && Number.isFinite(maf) ? { maf: fromSi(maf, "g/s") } : {}),
    ...(map !== undefined && Number.isFinite(map) ? { map: fromSi(map, "kPa", "absolute") } : {}),
  });
  const open = widestOpen(log, ambient);
  return [
    ...(idle ? [point("idle", idle.means.rpm as number, idle.means.maf, idle.means.map)] : []),
    ...(open ? [point("wide-open", open.rpm, open.maf, open.map)] : []),
  ];
}

/** Means over the best second of wide open throttle. */
function widestOpen(log: ScanLog, ambient: number): { rpm: number; maf: number; map: number } | undefined {
  const [time, rpm, maf, map, throttle] = (["time", "rpm", "maf", "map", "throttle"] as const).map(
    (id) => columnOf(log, id)?.values,
  );
  const measure = maf ?? rpm;
  if (!time || !rpm || !measure || (!throttle && !map)) return undefined;
  const wide = (i: number) =>
    throttle ? (throttle[i] as number) >= WIDE_OPEN : (map?.[i] as number) >= NEARLY_AMBIENT * ambient;
  let best: { value: number; rows: number[] } | undefined;
  let start = 0;
  for (let i = 0; i < log.rows; i++) {
    if (!wide(i) || !Number.isFinite(measure[i])) {
      start = i + 1;
      continue;
    }
    while ((time[i] as number) - (time[start] as number) > 1) start++;
    const rows = Array.from({ length: i - start + 1 }, (_, k) => start + k);
    if (rows.length < 2) continue;
    const value = rows.reduce((sum, k) => sum + (measure[k] as number), 0) / rows.length;
    if (!best || value > best.value) best = { value, rows };
  }
  if (!best) return undefined;
  const { rows } = best;
  const mean = (values: Float64Array | undefined) =>
    values ? rows.reduce((sum, k) => sum + (values[k] as number), 0) / rows.length : Number.NaN;
  return { rpm: mean(rpm), maf: mean(maf), map: mean(map) };
}
