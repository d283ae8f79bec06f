import type { Rows, Saying } from "../../faults";

/** Likelihood rows of eyes, hands, ears and nose. */
export const rows = {
  "look-found:*": {
    says: "found by eye and hand",
    given: { other: 0.02 },
    reason: "the eye found another place",
    own: {
      "manifold-leak": 0.2,
      "pcv-passes": 0.1,
      "purge-leak": 0.03,
      "inside-leak": 0.03,
      "circuit-dead": 0.15,
      "vapour-leak": 0.25,
      "actuator-leak": 0.15,
      restriction: 0.75,
      "filter-pipe": 0.75,
      other: 0.42,
    },
    ownReason: "the eye found this place",
  },
  "look-fine:*": {
    says: "nothing seen there by eye",
    given: { other: 0.98 },
    reason: "another place than the fault's was looked at",
    own: {
      "manifold-leak": 0.8,
      "pcv-passes": 0.9,
      "purge-leak": 0.97,
      "inside-leak": 0.97,
      "circuit-dead": 0.85,
      "vapour-leak": 0.75,
      "actuator-leak": 0.85,
      restriction: 0.25,
      "filter-pipe": 0.25,
      other: 0.58,
    },
    ownReason: "the eye passed over this place and saw nothing",
  },
  "look-clean": {
    says: "nothing found by eye",
    given: {
      "manifold-leak": 0.75,
      "pcv-passes": 0.8,
      "branch-leak": 0.52,
      "booster-leak": 0.52,
      "duct-leak": 0.5,
      "charge-leak": 0.52,
      "crankcase-leak": 0.55,
      "actuator-leak": 0.85,
      "exhaust-air": 0.55,
      restriction: 0.3,
      "filter-pipe": 0.3,
      other: 0.9,
    },
    reason: "hoses and ducts show to the eye more often than gaskets and valves",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
