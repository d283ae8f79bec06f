import { columnOf, type ScanLog } from "./read";

/** Below this speed the engine stands, 1/min. */
const STANDS = 50;
/** Pressures of a run die away within so long, s. */
const DIES_AWAY = 3;

/** Mean of a column's numbers over rows [from, to); undefined where there is none. */
export function meanOver(values: Float64Array | undefined, from: number, to: number): number | undefined {
  const known = values ? Array.from(values.subarray(from, to)).filter(Number.isFinite) : [];
  return known.length > 0 ? known.reduce((a, b) => a + b, 0) / known.length : undefined;
}

/**
 * Rows [from, to) of the longest stretch with the engine standing, once a run before it has died away.
 * @returns undefined where the log has no clock or engine speed, or the engine never stood.
 */
export function standingStretch(log: ScanLog): readonly [number, number] | undefined {
  const time = columnOf(log, "time")?.values;
  const rpm = columnOf(log, "rpm")?.values;
  if (!time || !rpm) return undefined;
  let best: readonly [number, number] | undefined;
  let from: number | undefined;
  const long = ([a, b]: readonly [number, number]) => (time[b - 1] as number) - (time[a] as number);
  const close = (to: number) => {
    if (from === undefined) return;
    let settled = from;
    if (from > 0) while (settled < to && (time[settled] as number) - (time[from] as number) < DIES_AWAY) settled++;
    const stretch = [settled, to] as const;
    if (settled < to && (!best || long(stretch) > long(best))) best = stretch;
    from = undefined;
  };
  for (let i = 0; i < log.rows; i++) {
    const speed = rpm[i] as number;
    // A tool that polls one channel a row leaves the others empty: they stand as they stood.
    if (!Number.isFinite(speed)) continue;
    if (speed >= STANDS) close(i);
    else from ??= i;
  }
  close(log.rows);
  return best;
}

/**
 * Whether the engine was warm while a log was taken: its coolant at or above a temperature in every row with the engine running,
 * or below it in all of them. @param warm K. @returns undefined where it warmed up meanwhile, or no coolant was logged.
 */
export function wasWarm(log: ScanLog, warm: number): boolean | undefined {
  const coolant = columnOf(log, "coolant")?.values;
  const rpm = columnOf(log, "rpm")?.values;
  if (!coolant || !rpm) return undefined;
  const running = Array.from(coolant).filter((kelvin, i) => Number.isFinite(kelvin) && (rpm[i] as number) >= STANDS);
  if (running.length === 0) return undefined;
  if (running.every((kelvin) => kelvin >= warm)) return true;
  return running.every((kelvin) => kelvin < warm) ? false : undefined;
}
