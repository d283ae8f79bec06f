import type { ChannelId } from "./channels";
import { columnOf, type ScanLog } from "./read";

/** One drawn moment of a log: time in s and each channel's value; SI and percent. */
export type DrawnRow = { readonly time: number } & Partial<Record<ChannelId, number>>;

/**
 * Thins a stretch of a log for drawing: per bucket the rows where the first channel is lowest and highest, so that spikes
 * stay visible. Never used for fitting.
 * @param width how many points may be drawn; @param from s; @param to s.
 */
export function decimate(log: ScanLog, ids: readonly ChannelId[], from: number, to: number, width: number): DrawnRow[] {
  const time = columnOf(log, "time")?.values;
  const columns = ids.flatMap((id) => {
    const values = columnOf(log, id)?.values;
    return values ? [{ id, values }] : [];
  });
  const lead = columns[0];
  if (!time || !lead) return [];
  let first = 0;
  while (first < log.rows && (time[first] as number) < from) first++;
  let last = log.rows;
  while (last > first && (time[last - 1] as number) > to) last--;
  const bucket = Math.max(1, Math.ceil((last - first) / Math.max(1, width / 2)));
  const rows = new Set<number>();
  for (let start = first; start < last; start += bucket) {
    let low = -1;
    let high = -1;
    for (let i = start; i < Math.min(last, start + bucket); i++) {
      const v = lead.values[i] as number;
      if (!Number.isFinite(v)) continue;
      if (low < 0 || v < (lead.values[low] as number)) low = i;
      if (high < 0 || v > (lead.values[high] as number)) high = i;
    }
    if (low >= 0) rows.add(Math.min(low, high)).add(Math.max(low, high));
  }
  return [...rows].map((i) => ({
    time: time[i] as number,
    ...Object.fromEntries(columns.flatMap(({ id, values }) => (Number.isFinite(values[i]) ? [[id, values[i]]] : []))),
  }));
}
