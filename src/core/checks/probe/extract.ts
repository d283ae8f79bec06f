import { columnOf, type ScanLog } from "../../scan-log";
import type { ProbeSeries } from "./fields";

/** Version of this extraction; goes into the record with the log's hash. */
export const PROBE_EXTRACTOR = 1;

/** Span that is kept of a log around each tap, s before and after it. */
const BEFORE = 12;
const AFTER = 12;
/** Closest rows that are kept, s */
const SPACING = 0.15;

/**
 * The part of a log that a probe needs: rows from 12 s before each tap to 12 s after it, thinned to 0.15 s.
 * @param offset s added to a tap's time to get the log's.
 * @returns undefined when the log has no clock, or neither trim nor engine speed.
 */
export function probeSeries(log: ScanLog, taps: readonly number[], total: "product" | "sum"): ProbeSeries | undefined {
  const time = columnOf(log, "time")?.values;
  const rpm = columnOf(log, "rpm")?.values;
  const banks = ([1, 2] as const).flatMap((bank) => {
    const short = columnOf(log, `short-trim-${bank}`)?.values;
    return short ? [{ short, long: columnOf(log, `long-trim-${bank}`)?.values }] : [];
  });
  if (!time || (!rpm && banks.length === 0)) return undefined;
  const trimAt = (i: number) => {
    const each = banks.map(({ short, long }) => {
      const s = (short[i] as number) / 100;
      const l = long && Number.isFinite(long[i]) ? (long[i] as number) / 100 : 0;
      return total === "sum" ? s + l : (1 + s) * (1 + l) - 1;
    });
    return (100 * each.reduce((a, b) => a + b, 0)) / each.length;
  };
  const other = (id: "lambda-1" | "throttle" | "loop") => columnOf(log, id)?.values;
  const columns: [keyof ProbeSeries, ((i: number) => number) | undefined][] = [
    ["trim", banks.length > 0 ? trimAt : undefined],
    ["rpm", rpm && ((i) => rpm[i] as number)],
    ...(
      [
        ["lambda", other("lambda-1")],
        ["throttle", other("throttle")],
        ["loop", other("loop")],
      ] as const
    ).map(([key, values]): [keyof ProbeSeries, ((i: number) => number) | undefined] => [
      key,
      values && ((i) => values[i] as number),
    ]),
  ];
  const present = columns.filter((c): c is [keyof ProbeSeries, (i: number) => number] => c[1] !== undefined);
  const out: Record<string, number[]> = { time: [], ...Object.fromEntries(present.map(([key]) => [key, []])) };
  // Tools that poll one channel a row leave the others empty: the last value stands for them.
  const last = present.map(() => Number.NaN);
  let kept = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < log.rows; i++) {
    const t = time[i] as number;
    present.forEach(([, read], c) => {
      const value = read(i);
      if (Number.isFinite(value)) last[c] = value;
    });
    if (t - kept < SPACING || last.some((v) => !Number.isFinite(v)) || !taps.some((at) => t >= at - BEFORE && t <= at + AFTER))
      continue;
    kept = t;
    out.time?.push(Math.round(t * 1000) / 1000);
    for (const [c, [key]] of present.entries()) out[key]?.push(Math.round((last[c] as number) * 1e4) / 1e4);
  }
  return out as unknown as ProbeSeries;
}
