import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a branch shut off. */
export const rows = {
  "pinch-recovers": {
    says: "the reading recovered with a branch shut off",
    given: { other: 0.02 },
    reason: "it is not behind what was shut off",
    tested: { "circuit-dead": 0.02, "purge-blocked": 0.02, other: 0.9 },
    testedReason: "it lies behind what was shut off",
  },
  "pinch-partly": {
    says: "the reading recovered in part with a branch shut off",
    given: { other: 0.15 },
    reason: "a second opening stays elsewhere",
    tested: { "circuit-dead": 0.1, "purge-blocked": 0.1, other: 0.5 },
    testedReason: "a part of it lies behind what was shut off",
  },
  "pinch-no-change": {
    says: "nothing changed with a branch shut off",
    given: { other: 0.9 },
    reason: "it is not behind what was shut off",
    tested: { "circuit-dead": 0.9, "purge-blocked": 0.9, other: 0.06 },
    testedReason: "what was behind it was shut off and nothing changed",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
