import type { Rows, Saying } from "../../faults";

/** Likelihoods of what is seen in a passage. */
export const rows = {
  "ports-blocked:*": {
    says: "a passage is blocked",
    given: { other: 0.015 },
    reason: "another passage is blocked",
    own: {
      "ports-coked": 0.92,
      "air-ports": 0.92,
      "egr-blocked": 0.85,
      "air-valve-stuck": 0.1,
      restriction: 0.9,
      "exhaust-restriction": 0.8,
      "inside-leak": 0.25,
      other: 0.05,
    },
    ownReason: "seen through the borescope",
  },
  "ports-open": {
    says: "a passage is open from both sides",
    given: { other: 0.93 },
    reason: "another passage was looked into",
    tested: {
      "ports-coked": 0.04,
      "air-ports": 0.04,
      "egr-blocked": 0.1,
      restriction: 0.05,
      "exhaust-restriction": 0.12,
      other: 0.9,
    },
    testedReason: "it was seen open",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
