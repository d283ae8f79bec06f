import type { Cause } from "../faults";

/**
 * Share of the cars with a stored code or a complaint that have nothing wrong with them any more: a cap that was loose, a plug that
 * was pushed home. Own estimate.
 */
const NOTHING_WRONG = 0.15;

/** Odds from which it is said what ending with "nothing wrong now" takes. */
export const PERHAPS_NOTHING = 0.5;
/** Odds from which "nothing wrong now" may be what a job ends with, once it is proved as well. */
export const NOTHING_FOUND = 0.9;

/**
 * How far the trade's weights are trusted, 0 (each cause alike) to 1 (as the table has it): they are estimates, and a shop's cars
 * differ. A cause that is k times as frequent counts k to this power (the power prior of Ibrahim & Chen 2000).
 */
const TRUST = 0.7;

/** A cause with what has moved it since the table: the shop's own jobs, a repair. */
export type Weighted = Cause & {
  /** What the shop's own proved jobs make of it, and how that is told */
  readonly learned?: { readonly factor: number; readonly says: string };
  /** It was repaired, and the repair was answered by a check */
  readonly repaired?: true;
};

/** A repaired cause is still there so much less often. */
const REPAIRED = 0.1;

/** Each cause's probability before any reading by the table alone, in their order; they add up to 1. */
export function tableShares(causes: readonly Cause[]): number[] {
  const trusted = causes.map(({ trait, prior }) => (trait === "healthy" ? 0 : prior ** TRUST));
  const sum = trusted.reduce((a, b) => a + b, 0);
  const faults = causes.some((c) => c.trait === "healthy") ? 1 - NOTHING_WRONG : 1;
  return causes.map(({ trait }, i) =>
    trait === "healthy" ? (sum > 0 ? NOTHING_WRONG : 1) : (faults * (trusted[i] as number)) / sum,
  );
}

/** Each cause's probability before any reading, with the shop's own jobs and its repairs, in their order; they add up to 1. */
export function priorOdds(causes: readonly Weighted[]): number[] {
  const table = tableShares(causes);
  const moved = causes.map(
    ({ learned, repaired }, i) => (table[i] as number) * (learned?.factor ?? 1) * (repaired ? REPAIRED : 1),
  );
  const sum = moved.reduce((a, b) => a + b, 0);
  return moved.map((share) => share / sum);
}
