import type { CheckContext } from "../checks";
import { formatNumber, formatQuantity, toSi, ZERO_CELSIUS } from "../units";
import type { ReadinessFacts } from "./entries";

/** An enabling condition of the monitor: met, to be met by waiting until a time, or to be put right by somebody. */
export interface EnablingCondition {
  readonly id: "fuel" | "outside" | "soak" | "codes";
  readonly says: string;
  readonly state: "met" | "waits" | "wrong";
  /** ms since 1970 when waiting meets it */
  readonly from?: number;
}

export interface Readiness extends ReadinessFacts {
  readonly conditions: readonly EnablingCondition[];
  /** ms since 1970 from which the monitor can run; undefined while a condition must be put right first */
  readonly readyFrom?: number;
  /** Conditions that must stay so until then */
  readonly aslong: string;
}

const HOUR = 3600;

/**
 * Turns the enabling conditions of the EVAP monitor into a plan with its time (SAE J1979 readiness; conditions by
 * maker's data or the shop's limits). Pure: the clock is given, ms since 1970.
 */
export function planReadiness(
  facts: ReadinessFacts,
  { limits }: Pick<CheckContext, "limits">,
  job: { readonly cleared: boolean },
  now: number,
): Readiness {
  const { evapFuelLow, evapFuelHigh, evapColdest, evapHottest, evapSoak } = limits;
  const percent = (share: number) => formatNumber(100 * share, 0);
  const degrees = (kelvin: number) => formatNumber(kelvin - ZERO_CELSIUS, 0);
  const fuelRange = `between ${percent(evapFuelLow.value)} and ${percent(evapFuelHigh.value)} %`;
  const airRange = `between ${degrees(evapColdest.value)} and ${degrees(evapHottest.value)} °C`;
  const fuelFits = facts.fuelLevel >= 100 * evapFuelLow.value && facts.fuelLevel <= 100 * evapFuelHigh.value;
  const air = toSi(facts.outside);
  const airFits = air >= evapColdest.value && air <= evapHottest.value;
  const soaked = Date.parse(facts.parkedAt) + 1000 * evapSoak.value;
  const conditions: EnablingCondition[] = [
    {
      id: "codes",
      says: job.cleared
        ? "Codes cleared after the repair"
        : "Clear the codes after the repair: a stored code keeps some monitors from running",
      state: job.cleared ? "met" : "wrong",
    },
    {
      id: "fuel",
      says: `Fuel ${formatNumber(facts.fuelLevel, 0)} %, ${fuelRange} wanted (${evapFuelLow.source})${fuelFits ? "" : facts.fuelLevel < 100 * evapFuelLow.value ? ": fill some up, then let it soak anew" : ": drive it down"}`,
      state: fuelFits ? "met" : "wrong",
    },
    {
      id: "outside",
      says: `Air ${formatQuantity(facts.outside)} at the start, ${airRange} wanted (${evapColdest.source})`,
      state: airFits ? "met" : "wrong",
    },
    {
      id: "soak",
      says: `Engine off for ${formatNumber(evapSoak.value / HOUR, 1)} h before a cold start (${evapSoak.source}): nobody drives it, nobody fills it`,
      state: now >= soaked ? "met" : "waits",
      from: soaked,
    },
  ];
  const wrong = conditions.some((c) => c.state === "wrong");
  return {
    ...facts,
    conditions,
    ...(wrong ? {} : { readyFrom: soaked }),
    aslong: `if the tank stays ${fuelRange} and the air ${airRange}`,
  };
}
