import { type ChannelId, columnOf, meanOver, type ScanLog } from "../../scan-log";
import type { GasPoint, GasRecord } from "./fields";

/** Version of what is taken from an analyser's file here; kept with every record that rests on it. */
export const GAS_EXTRACTOR = 1;

/** Engine speeds that count as idle and as about 2500, 1/min. */
const IDLES = 1200;
const RAISED = [1900, 3200] as const;
/** Gas takes so long through hose and cell: what was read before is of the state before, s. */
const ARRIVES = 10;
/** Less carbon dioxide is air: the probe was out of the pipe, percent. */
const OUT = 1;

/** Readings by state; `unplaced` where the file has no engine speed to tell which state it is of. */
export type GasTrace = Pick<GasRecord, "idle" | "raised"> & { readonly unplaced?: GasPoint };

const GASES = { co: "gas-co", co2: "gas-co2", o2: "gas-o2", hc: "gas-hc", no: "gas-no" } as const satisfies Record<
  string,
  ChannelId
>;

/**
 * Means of an analyser's file over the longest stretch at idle and at about 2500 1/min, without what came before the gas was there;
 * without engine speed, over all that is exhaust. The analyser's own λ is none of the ECU's and is not taken.
 * @returns undefined where a gas of the four is missing, or no stretch is long enough for the gas to arrive.
 */
export function gasTrace(log: ScanLog): GasTrace | undefined {
  const columns = Object.fromEntries(Object.entries(GASES).map(([gas, id]) => [gas, columnOf(log, id)?.values])) as {
    [G in keyof typeof GASES]: Float64Array | undefined;
  };
  const { co, co2, o2, hc } = columns;
  if (!co || !co2 || !o2 || !hc) return undefined;
  const time = columnOf(log, "time")?.values;
  const rpm = columnOf(log, "rpm")?.values;
  const clock = (i: number) => (time ? (time[i] as number) : i);
  /** The longest stretch of exhaust in this state, from when its gas has arrived. */
  const read = (fits: (i: number) => boolean): GasPoint | undefined => {
    let best: readonly [number, number] | undefined;
    let from: number | undefined;
    for (let i = 0; i <= log.rows; i++) {
      const within = i < log.rows && fits(i);
      if (within) from ??= i;
      if (within || from === undefined) continue;
      let arrived = from;
      while (arrived < i && clock(arrived) - clock(from) < ARRIVES) arrived++;
      if (arrived < i && (!best || i - arrived > best[1] - best[0])) best = [arrived, i];
      from = undefined;
    }
    if (!best) return undefined;
    const stretch = best;
    const gases = Object.entries(columns).map(([gas, values]) => [gas, meanOver(values, ...stretch)] as const);
    if (gases.some(([gas, value]) => gas !== "no" && value === undefined)) return undefined;
    return Object.fromEntries(
      gases.flatMap(([gas, value]) => (value === undefined ? [] : [[gas, round(value)]])),
    ) as unknown as GasPoint;
  };
  const exhaust = (i: number) => (co2[i] as number) > OUT;
  if (!rpm) {
    const unplaced = read(exhaust);
    return unplaced && { unplaced };
  }
  const idle = read((i) => exhaust(i) && (rpm[i] as number) > 300 && (rpm[i] as number) < IDLES);
  const raised = read((i) => exhaust(i) && (rpm[i] as number) >= RAISED[0] && (rpm[i] as number) <= RAISED[1]);
  return idle || raised ? { ...(idle ? { idle } : {}), ...(raised ? { raised } : {}) } : undefined;
}

/** No analyser shows more. */
const round = (x: number) => Number(x.toPrecision(4));
