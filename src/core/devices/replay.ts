import { type ChannelId, columnOf, type ScanLog } from "../scan-log";
import type { Every, LiveRow, ScanTool } from "./device";

/** How often the stand-in hands on what has come due, ms. */
const TICK = 200;

/**
 * A recorded log played as a live scan tool, row by row at the pace it was recorded, or a multiple of it. Simulated: it reads no car.
 * @param log with a clock; @param every the clock it runs by. Throws RangeError for a log without one, or a pace that is none.
 */
export function replayed(log: ScanLog, name: string, every: Every, pace = 1): ScanTool {
  const time = columnOf(log, "time")?.values;
  if (!time) throw new RangeError("This log has no clock: it cannot be played");
  if (!(pace > 0 && pace <= 100)) throw new RangeError("It is played at its own pace, or up to a hundred times faster");
  const columns = log.columns.flatMap((c) =>
    c.channel && c.channel !== "time" ? [{ channel: c.channel, values: c.values }] : [],
  );
  const channels: ChannelId[] = columns.map((c) => c.channel);
  const rowAt = (i: number): LiveRow => ({
    at: time[i] as number,
    values: Object.fromEntries(
      columns.flatMap(({ channel, values }) => (Number.isFinite(values[i]) ? [[channel, values[i] as number]] : [])),
    ),
  });
  return {
    name: `Replay of ${name}`,
    simulated: true,
    channels,
    start(listener) {
      let next = 0;
      let played = 0;
      let over = false;
      const stop = every(TICK, () => {
        if (over) return;
        played += (TICK / 1000) * pace;
        for (; next < log.rows && (time[next] as number) <= played; next++) listener.row(rowAt(next));
        if (next < log.rows) return;
        over = true;
        stop();
        listener.ended("The log is played to its end");
      });
      return () => {
        over = true;
        stop();
      };
    },
  };
}
