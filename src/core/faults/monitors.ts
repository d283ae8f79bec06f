import { isForVapourMonitor } from "./codes";
import { mixtureBanks } from "./engine/mixture";
import { FAMILIES } from "./families";

/** Monitors of a car that run by themselves, and answer the codes they set. */
export type MonitorId = "evap" | "mixture" | "misfire" | "egr" | "secondary-air" | "boost" | "filter";
const OF_FAMILY = ["evap", "egr", "secondary-air", "boost", "filter"] as const;

const isMisfire = (code: string): boolean => /^P03(0[0-9]|1[0-2])$/.test(code.toUpperCase());

/** The monitor that sets a code; undefined for one of a wire or a signal, and for what no family knows. */
export function monitorOf(code: string): MonitorId | undefined {
  if (isMisfire(code)) return "misfire";
  if (mixtureBanks(code, 2).length > 0) return "mixture";
  const of = OF_FAMILY.find((family) => FAMILIES[family].codes.some((c) => c.code === code.toUpperCase()));
  return of === "evap" && !isForVapourMonitor(code) ? undefined : of;
}
