import { holeOfLoss } from "../gas/hold";
import { formatNumber, fromSi, type Quantity, toSi } from "../units";
import type { Measure } from "./verdict";

/** Share of what must be caught below which a hole is far below it. */
const FAR_BELOW = 0.5;
/** Where a test records no conditions of its own: sea level, a bay's air. Either shifts a hole by a few percent. */
const AMBIENT = 101325;
const TEMPERATURE = 293.15;

/** A hole with the interval of the loss it was reckoned from, m. */
export interface TrappedHole {
  readonly diameter: number;
  readonly low: number;
  readonly high: number;
}

/**
 * The hole that a shut-in gas space lost its pressure or vacuum through (`holeOfLoss`).
 * @param start Pa gauge, negative for a vacuum; @param lost shares of it that were gone after `seconds`.
 */
export function trappedHole(
  volume: Quantity,
  start: number,
  seconds: number,
  lost: { readonly share: number; readonly low: number; readonly high: number },
): TrappedHole {
  const of = (share: number) =>
    holeOfLoss({
      volume: toSi(volume),
      start: AMBIENT + start,
      end: AMBIENT + start * (1 - Math.min(1, Math.max(0, share))),
      seconds,
      ambient: AMBIENT,
      temperature: TEMPERATURE,
    });
  return { diameter: of(lost.share), low: of(lost.low), high: of(lost.high) };
}

/** Share of a shut-in gas space that must be left: what ran half empty was not watched, and its hole is only a least. */
const LEFT = 0.5;

/** Whether a loss weeps far below what must be caught: through a hole that small, and seen doing so, not found empty. */
export const weepsFarBelow = (hole: TrappedHole, lost: { readonly high: number }, caught: number): boolean =>
  lost.high <= 1 - LEFT && hole.high <= FAR_BELOW * caught;

/** It in a line. */
export const weepsLike = (name: string, hole: TrappedHole): string =>
  `${name} weeps like a ${formatNumber(1000 * hole.diameter, 3)} mm hole: far below what set this code`;

/** Such a hole among the measures of a verdict. */
export const trappedMeasure = (hole: TrappedHole, limit: Pick<Measure, "limit" | "limitSource"> = {}): Measure => ({
  name: "Loss as one sharp-edged hole (Cd 0.61)",
  value: fromSi(hole.diameter, "mm"),
  low: 1000 * hole.low,
  high: 1000 * hole.high,
  ...limit,
});
