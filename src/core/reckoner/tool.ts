import type { CheckId } from "../checks";
import type { Draft, Form } from "../form";
import type { Quantity } from "../units";

/** Something that was reckoned: with its interval where it has one, in the unit of its value. */
export interface Reckoned {
  readonly name: string;
  readonly value: Quantity | { readonly value: number; readonly unit?: string };
  readonly low?: number;
  readonly high?: number;
}

/** Result of a tool. */
export interface Answer {
  readonly rows: readonly Reckoned[];
  /** Its meaning, and what limits it */
  readonly notes?: readonly string[];
  /** A fall that was read, and the one that was fitted to it: s, and the unit they were read in */
  readonly fall?: {
    readonly unit: string;
    readonly read: readonly (readonly [seconds: number, value: number])[];
    readonly fitted: readonly (readonly [seconds: number, value: number])[];
  };
}

/** A letter of a formula, what it stands for, and its unit. */
export type Letter = readonly [letter: string, meaning: string, unit: string];

/** One reckoning outside any job: what it asks, the equation it goes by, and what comes of it. */
export interface Tool<Body extends object = object> {
  readonly id: string;
  readonly name: string;
  readonly aim: string;
  readonly form: Form<object, undefined>;
  readonly formula: string;
  readonly symbols: readonly Letter[];
  /** Where the equation is published */
  readonly source: string;
  /** Range of validity */
  readonly valid: string;
  /** Throws RangeError for what the physics excludes. */
  reckon(body: Body): Answer;
  /** The check in a job that takes the same readings, and how they are laid into its form */
  readonly into?: { readonly check: CheckId; readonly draft: (body: Body) => Draft };
}
