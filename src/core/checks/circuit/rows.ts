import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a measured circuit. */
export const rows = {
  "circuit-dead:*": {
    says: "a circuit is dead",
    given: { other: 0.008 },
    reason: "another circuit is dead",
    own: { "circuit-dead": 0.93, other: 0.02 },
    ownReason: "the first wrong pin stands in its way",
  },
  "circuit-good:*": {
    says: "a circuit is fed, switched and carries current",
    given: { other: 0.9 },
    reason: "another circuit was measured",
    own: { "circuit-dead": 0.04, other: 0.93 },
    ownReason: "volts and lamp were right at its load",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
