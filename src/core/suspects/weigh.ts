import type { Cause } from "./causes";
import { likelihood } from "./likelihoods";

/** An observation with where it comes from. */
export interface Evidence {
  readonly observation: string;
  /** Entry it was read from */
  readonly entry: string;
  /** Joints the check put to the test */
  readonly tested?: readonly string[];
}

export interface Contribution {
  readonly entry: string;
  readonly observation: string;
  /** Factor on the odds against the average suspect: above 1 speaks for, below 1 against */
  readonly factor: number;
  /** What was observed, and why it weighs so */
  readonly says: string;
  readonly reason: string;
}

export interface Suspect {
  readonly cause: Cause;
  /** Probability among the causes listed, 0…1 */
  readonly odds: number;
  readonly because: readonly Contribution[];
}

/**
 * Weighs every cause: prior × likelihood of each observation, normalised (Bayes; log-odds add).
 * One cause is taken to explain the evidence at hand; after a confirmed repair explained evidence is left out and what
 * stays is weighed anew, so a second fault shows. Observations no table knows change nothing.
 */
export function weighSuspects(causes: readonly Cause[], evidence: readonly Evidence[]): Suspect[] {
  const priorSum = causes.reduce((sum, c) => sum + c.prior, 0);
  let weights = causes.map((c) => c.prior / priorSum);
  const because: Contribution[][] = causes.map(() => []);
  for (const { observation, entry, tested } of evidence) {
    const values = causes.map((cause) => likelihood(observation, cause, tested));
    if (values.some((v) => v === undefined)) continue;
    const mean = weights.reduce((sum, w, i) => sum + w * (values[i]?.value ?? 1), 0);
    if (!(mean > 0)) continue;
    weights = weights.map((w, i) => {
      const given = values[i];
      const factor = (given?.value ?? mean) / mean;
      if (given) because[i]?.push({ entry, observation, factor, says: given.says, reason: given.reason });
      return w * factor;
    });
  }
  return (
    causes
      .map((cause, i) => ({
        cause,
        odds: weights[i] as number,
        because: (because[i] as Contribution[]).sort((a, b) => Math.abs(Math.log(b.factor)) - Math.abs(Math.log(a.factor))),
      }))
      // Equal odds differ in their last digits by the order of the evidence: the name decides then.
      .sort((a, b) => Math.round(1e9 * (b.odds - a.odds)) || a.cause.id.localeCompare(b.cause.id))
  );
}

/** "×6 for" / "×4 against" / "hardly counts", for a contribution. */
export function weightInWords(factor: number): string {
  if (factor > 0.8 && factor < 1.25) return "hardly counts";
  const times = factor >= 1 ? factor : 1 / factor;
  return `×${times >= 10 ? Math.round(times) : times.toFixed(1)} ${factor >= 1 ? "for" : "against"}`;
}
