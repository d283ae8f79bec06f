import type { CheckId } from "../../checks";
import { entriesFor, type Layout } from "../../vehicle";
import type { Obligation } from "./obligations";

/** The check that answers what is owed: where it is made, and the failing record whose set-up it takes again. */
export interface ProofStep {
  readonly check: CheckId;
  readonly place?: string;
  /** Entry of the failing record */
  readonly again?: string;
}

/** What to do next about questions of one kind that are not answered yet. */
export function stepFor(group: readonly [Obligation, ...Obligation[]], layout: Layout | undefined): ProofStep {
  const [{ askedBy, answeredBy }] = group;
  if (askedBy) {
    const { check, part, entry } = askedBy;
    return { check, ...(part ? { place: part } : {}), ...(entry ? { again: entry } : {}) };
  }
  // What came off is looked at; what a code asks for is answered by its own check, from the way in that gets furthest.
  if (!answeredBy) return { check: "look" };
  const places = group.map((o) => o.place);
  const [entry] = answeredBy === "evap-smoke" && layout ? entriesFor(layout, "evap", places) : [];
  return { check: answeredBy, ...(entry ? { place: entry.id } : {}) };
}
