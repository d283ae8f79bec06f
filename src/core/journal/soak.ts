import { CHECKS, type CheckId } from "../checks";
import type { Limits } from "../shop/limits";
import { formatNumber } from "../units";
import type { JobState } from "./state";

/**
 * Why a check that wants a soaked tank would be spoilt now: the car was driven within the soak. Undefined where it was
 * not, or where the check does not care.
 * @param now ms since 1970.
 */
export function soakDoubt(
  check: CheckId,
  { drives }: Pick<JobState, "drives">,
  { evapSoak }: Pick<Limits, "evapSoak">,
  now: number,
): string | undefined {
  if (!CHECKS[check].soaked) return undefined;
  const ended = Math.max(...drives.map((d) => Date.parse(d.at) + 60_000 * d.minutes));
  const since = (now - ended) / 1000;
  if (!(since < evapSoak.value)) return undefined;
  const ago = since < 5400 ? `${formatNumber(Math.max(0, since) / 60, 0)} min` : `${formatNumber(since / 3600, 1)} h`;
  return `driven ${ago} ago: warm fuel makes vapour, and its pressure hides a leak. Let it soak ${formatNumber(evapSoak.value / 3600, 0)} h (${evapSoak.source}), or until tank and bay are alike`;
}
