import type { Trait } from "./trait";

/** Probabilities by trait; `other` for the traits not named. */
export type Given = Partial<Record<Trait, number>> & { readonly other: number };

/** Likelihood row of an observation: how likely each kind of cause gives it, and why. */
export interface LikelihoodRow {
  /** Its name in a sentence */
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
  /** Seen on this bank and not on the other: what sees one bank only has it there, what has no bank shows on both */
  readonly bank?: 1 | 2;
  /** What it names is one cause, not a place: another cause at the same joint is another */
  readonly ofCause?: true;
}

/** Rows by their observation; `kind:*` for one that names a place. */
export type Rows = Readonly<Record<string, LikelihoodRow>>;

/** The observations that rows weigh: a judge can say no other. */
export type Saying<R extends Rows> = keyof R extends infer Key
  ? Key extends `${infer Kind}:*`
    ? `${Kind}:${string}`
    : Key
  : never;
