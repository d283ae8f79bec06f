import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a probe. */
export const rows = {
  "probe-at:*": {
    says: "the probe reacted at a spot",
    given: { other: 0.012 },
    reason: "it reacted somewhere else",
    own: {
      "manifold-leak": 0.75,
      "branch-leak": 0.78,
      "booster-leak": 0.7,
      "duct-leak": 0.5,
      "crankcase-leak": 0.4,
      "pcv-passes": 0.6,
      "exhaust-air": 0.12,
      "charge-leak": 0.06,
      other: 0.2,
    },
    ownReason: "the engine drew it in right there",
  },
  "probe-quiet": {
    says: "the probe stayed quiet",
    given: { other: 0.85 },
    reason: "that spot was not tapped",
    tested: {
      "manifold-leak": 0.22,
      "branch-leak": 0.2,
      "booster-leak": 0.3,
      "duct-leak": 0.5,
      "crankcase-leak": 0.6,
      "pcv-passes": 0.4,
      other: 0.85,
    },
    testedReason: "it was tapped there and nothing moved; gas may not have been drawn in",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
