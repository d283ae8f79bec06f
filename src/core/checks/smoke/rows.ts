import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a smoke run, and what several say together. */
export const rows = {
  "smoke-at:*": {
    says: "smoke was seen at a joint",
    given: { other: 0.012 },
    reason: "smoke came out somewhere else",
    own: {
      "manifold-leak": 0.78,
      "branch-leak": 0.9,
      "booster-leak": 0.85,
      "crankcase-leak": 0.85,
      "pcv-passes": 0.4,
      "duct-leak": 0.92,
      "charge-leak": 0.85,
      "exhaust-air": 0.8,
      "actuator-leak": 0.7,
      "vapour-leak": 0.88,
      "air-leak": 0.8,
      "egr-cooler-leak": 0.5,
      other: 0.02,
    },
    ownReason: "smoke came out right there",
  },
  "smoke-none-outside": {
    says: "smoke inside and none outside",
    given: { other: 0.85 },
    reason: "this run could not show it",
    tested: {
      "manifold-leak": 0.2,
      "branch-leak": 0.08,
      "booster-leak": 0.12,
      "crankcase-leak": 0.12,
      "pcv-passes": 0.4,
      "duct-leak": 0.06,
      "charge-leak": 0.15,
      "exhaust-air": 0.2,
      "actuator-leak": 0.3,
      "vapour-leak": 0.15,
      "air-leak": 0.2,
      "egr-cooler-leak": 0.3,
      "purge-leak": 0.3,
      other: 0.85,
    },
    testedReason: "smoke was there and did not come out",
  },
  "smoke-inside-path": {
    says: "ball high with no smoke outside",
    given: {
      "inside-leak": 0.6,
      "egr-cooler-leak": 0.35,
      "pcv-passes": 0.25,
      "crankcase-leak": 0.1,
      "purge-leak": 0.4,
      "vent-open": 0.4,
      "vapour-leak": 0.12,
      other: 0.04,
    },
    reason: "something passes the smoke inside",
  },
  "section-within": {
    says: "the smoked sections read together",
    given: { "inside-leak": 0.4, healthy: 0.4, other: 0.1 },
    reason: "the comparison of the runs points elsewhere",
    tested: { other: 0.85 },
    testedReason: "the opening that moved or stayed lies in this part",
  },
} as const satisfies Rows;
/** Observation of one run. */
export type Seen = Exclude<Saying<typeof rows>, Together>;
/** Combined observation of several runs. */
type Together = "section-within";
