/** One way to do a check on a vehicle, with what it costs and what it can say. */
export interface Candidate<Seen extends string = string> {
  readonly place?: string;
  readonly name: string;
  readonly minutes: number;
  /** Factor below 1 for what it takes apart or risks: what comes off goes back on and is checked again, so its minutes count for more */
  readonly penalty: number;
  readonly outcomes: readonly Seen[];
  readonly tested?: readonly string[];
  /** Says something only while the engine runs lean */
  readonly whenLean?: true;
  /** Joints that it takes off or tightens: evidence, as long as nothing has been read there */
  readonly touches?: readonly string[];
  readonly why: string;
}

/** Factor on a check that takes something off the car: what comes off goes back on, and is untested until re-checked. */
export const TAKEN_APART = 0.85;
