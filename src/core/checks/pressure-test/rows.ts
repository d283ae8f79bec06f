import type { Rows, Saying } from "../../faults";

/** Likelihood rows of air under pressure, joint by joint. Own estimates: soap and the ear miss what a shroud hides. */
export const rows = {
  "escape-at:*": {
    says: "air escaped at a joint under pressure",
    given: { other: 0.012 },
    reason: "it escaped somewhere else",
    own: {
      "charge-leak": 0.94,
      "manifold-leak": 0.7,
      "branch-leak": 0.8,
      "booster-leak": 0.7,
      "crankcase-leak": 0.6,
      "duct-leak": 0.8,
      "exhaust-air": 0.5,
      "actuator-leak": 0.5,
      other: 0.02,
    },
    ownReason: "air came out right there",
  },
  "escape-none": {
    says: "no joint leaked under pressure",
    given: { other: 0.85 },
    reason: "this test could not show it",
    tested: {
      "charge-leak": 0.05,
      "manifold-leak": 0.25,
      "branch-leak": 0.15,
      "booster-leak": 0.25,
      "crankcase-leak": 0.3,
      "duct-leak": 0.15,
      "exhaust-air": 0.4,
      "actuator-leak": 0.4,
      other: 0.85,
    },
    testedReason: "it stood under pressure and did not leak",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
