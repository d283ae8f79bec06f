import type { Trait } from "../causes";

/** Probabilities by trait; `other` for the traits not named. */
export type Given = Partial<Record<Trait, number>> & { readonly other: number };

/** One row of what an observation says: how likely each kind of cause gives it, and why. */
export interface LikelihoodRow {
  /** An observation, or `kind:*` for one that names a place */
  readonly observation: string;
  /** What it is called in a sentence */
  readonly says: string;
  /** P(observation | cause); for one that names a place: a place that is not the cause's */
  readonly given: Given;
  readonly reason: string;
  /** The place it names is the cause's own */
  readonly own?: Given;
  readonly ownReason?: string;
  /** The cause's joint is among those the check put to the test */
  readonly tested?: Given;
  readonly testedReason?: string;
}
