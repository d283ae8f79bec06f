import type { Trait } from "./trait";

export interface Cause {
  readonly id: string;
  readonly name: string;
  readonly trait: Trait;
  /** Joint on the air map, where it is one place; the cause exists where the joint does */
  readonly joint?: string;
  /** Joint that a check of the device works on, where the cause itself is no joint: a solenoid's circuit */
  readonly device?: string;
  /** Relative weight before any reading: how often the trade meets it on a car of its family's codes and symptoms */
  readonly prior: number;
  /** Sees one bank only */
  readonly bank?: 1 | 2;
  /** The part costs less than testing it */
  readonly cheap?: true;
  /** Named since practice cases have codes: it stands last in its list, and no code draws it, so that each stays the same car */
  readonly uncoded?: true;
}

type More = Partial<Pick<Cause, "device" | "bank" | "cheap" | "uncoded">>;

/** The cause that a joint is known by. */
export const at = (joint: string, name: string, trait: Trait, prior: number, more: More = {}): Cause => ({
  id: joint,
  name,
  trait,
  joint,
  prior,
  ...more,
});

/** Another cause at the same joint. */
export const named = (id: string, joint: string, name: string, trait: Trait, prior: number, more: More = {}): Cause => ({
  ...at(joint, name, trait, prior, more),
  id,
});
