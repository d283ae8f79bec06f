import type { Atom, CheckId, Claim } from "../../checks";
import type { Layout } from "../../vehicle";
import type { Bodies } from "../entries";
import type { Evidence } from "./evidence";
import type { Line } from "./order";
import type { Taken, Touch } from "./touches";

/** The check that answers what is owed: where it is made, and the failing record whose set-up it takes again. */
export interface ProofStep {
  readonly check: CheckId;
  readonly place?: string;
  /** Entry of the failing record */
  readonly again?: string;
}

/** Why an atom is not answered, worst first. */
export type Missing = "still-bad" | "late-bad" | "order-unknown" | "touched" | "elsewhere" | "not-sure" | "void" | "never";

/** Something that must be shown good before the job may close. */
export interface Obligation extends Atom {
  readonly words: string;
  /** The places alone, as an order names them */
  readonly about?: string;
  /** The check that asked, with its part; none where a code, the complaint or something taken off asks */
  readonly askedBy?: Asker;
  /** Where a code asks: the check that answers it */
  readonly answeredBy?: CheckId;
  /** Checks that can answer it, the one to take next first; none once it is answered */
  readonly ways: readonly ProofStep[];
  /** Undefined once it is answered */
  readonly missing?: Missing;
  /** The touch, the verdict or the reason behind it */
  readonly because?: string;
  /** The check whose verdict or reason that is, where it is one's */
  readonly saidBy?: CheckId;
  /** Where the order cannot be told: the failing record */
  readonly unordered?: string;
}

export interface ProofFacts {
  readonly evidence: readonly Evidence[];
  readonly touches: readonly Touch[];
  readonly orders: readonly (Line & { readonly body: Bodies["order"] })[];
  readonly joints: ReadonlySet<string>;
  readonly layout: Layout | undefined;
  readonly banks: 1 | 2 | undefined;
  /** Entries of checks that were set aside with a reason */
  readonly aside: ReadonlySet<string>;
  readonly lastWork: Line | undefined;
}

/** A check that failed: its kind, the part it was about, and the entry of its last record. */
export interface Asker {
  readonly check: CheckId;
  readonly part?: string;
  readonly entry?: string;
}

/** One thing that must be shown, before it is looked for: what asks, and the readings that said it was bad. */
export interface Requirement {
  readonly claim: Claim;
  readonly by?: Asker;
  /** Where a code asks: the check that answers it */
  readonly answeredBy?: CheckId;
  readonly bads: readonly Taken[];
}
