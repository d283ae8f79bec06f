import { columnOf, findSteadyWindows, meanOver, type ScanLog, type SteadyWindow, standingStretch } from "../../scan-log";
import type { Limits } from "../../shop/settings";
import { displayed } from "../../units";
import { egrFlows } from "../egr-state";
import type { FilterRecord, FilterRunning } from "./fields";

/** Version of what is taken from a log here; kept with every record that rests on it. */
export const FILTER_EXTRACTOR = 1;

/** An engine idles below this speed, and a speed is held without load above the other, 1/min. */
const IDLES = 1200;
const HELD = 1800;
/** A car that rolls faster is driven: its engine is loaded, km/h. */
const ROLLS = 3;

export type FilterTrace = Pick<FilterRecord, "keyOn" | "idle" | "held"> & { readonly egr?: "shut" | "open" };

/**
 * Pressure difference with the key on, at the longest steady idle, and at the longest steady raised speed of a car that stands.
 * @returns undefined where the log has no pressure difference, no clock, or nothing steady.
 */
export function filterTrace(log: ScanLog, limits: Limits): FilterTrace | undefined {
  const pressure = columnOf(log, "filter-pressure")?.values;
  if (!pressure) return undefined;
  const windows = findSteadyWindows(log, limits).filter(
    ({ means }) => means["filter-pressure"] !== undefined && !((means.speed ?? 0) > ROLLS),
  );
  const longest = (fits: (rpm: number) => boolean) =>
    windows.filter((w) => fits(w.means.rpm as number)).toSorted((a, b) => b.to - b.from - (a.to - a.from))[0];
  const idle = longest((rpm) => rpm < IDLES);
  const held = longest((rpm) => rpm >= HELD);
  if (!idle && !held) return undefined;
  const stands = standingStretch(log);
  const zero = stands && meanOver(pressure, ...stands);
  const egr = [idle, held].flatMap((w) => w?.means.egr ?? []);
  return {
    ...(zero === undefined ? {} : { keyOn: displayed(zero, "hPa", 1, "gauge") }),
    ...(idle ? { idle: running(idle) } : {}),
    ...(held ? { held: running(held) } : {}),
    ...(egr.length > 0 ? { egr: egr.some(egrFlows) ? ("open" as const) : ("shut" as const) } : {}),
  };
}

function running({ means }: SteadyWindow): FilterRunning {
  const temperature = means["exhaust-temperature"];
  return {
    rpm: Math.round(means.rpm as number),
    pressure: displayed(means["filter-pressure"] as number, "hPa", 1, "gauge"),
    ...(means.maf === undefined ? {} : { maf: displayed(means.maf, "g/s", 2) }),
    ...(temperature === undefined ? {} : { exhaustTemperature: displayed(temperature, "°C", 0) }),
  };
}
