import type { Rows, Saying } from "../../faults";

/** Likelihood rows of the gauge. */
export const rows = {
  "vacuum-low": {
    says: "steady and low intake vacuum",
    given: {
      "manifold-leak": 0.35,
      "branch-leak": 0.35,
      "booster-leak": 0.35,
      "crankcase-leak": 0.2,
      "pcv-passes": 0.3,
      "purge-leak": 0.15,
      "inside-leak": 0.4,
      "exhaust-restriction": 0.35,
      "engine-mechanical": 0.5,
      other: 0.04,
    },
    reason: "air gets in, or the engine pumps badly",
  },
  "vacuum-fine-idle-high": {
    says: "fine vacuum at too high an idle",
    given: {
      "manifold-leak": 0.3,
      "branch-leak": 0.35,
      "booster-leak": 0.35,
      "pcv-passes": 0.3,
      "crankcase-leak": 0.2,
      "purge-leak": 0.12,
      "idle-control": 0.6,
      other: 0.03,
    },
    reason: "air past the throttle raises speed and vacuum together",
  },
  "vacuum-normal": {
    says: "vacuum as it should be",
    given: {
      "manifold-leak": 0.7,
      "branch-leak": 0.7,
      "booster-leak": 0.7,
      "crankcase-leak": 0.8,
      "pcv-passes": 0.7,
      "inside-leak": 0.6,
      "purge-leak": 0.75,
      "idle-control": 0.2,
      "exhaust-restriction": 0.15,
      "engine-mechanical": 0.35,
      other: 0.85,
    },
    reason: "a small hole hardly moves the needle; a big one does",
  },
  "vacuum-slow-return": {
    says: "vacuum that comes back slowly after a snap",
    given: { "exhaust-restriction": 0.5, other: 0.015 },
    reason: "the exhaust lets gas out slowly",
  },
  "vacuum-flick": {
    says: "a needle that flicks at regular beats",
    given: { "engine-mechanical": 0.3, other: 0.012 },
    reason: "one cylinder does not seal or fire",
  },
  "vacuum-flutter": {
    says: "a needle that flutters",
    given: { "engine-mechanical": 0.12, "manifold-leak": 0.05, other: 0.015 },
    reason: "worn guides, or a leak at one runner",
  },
  "vacuum-drifts": {
    says: "a needle that drifts",
    given: { "idle-control": 0.25, "purge-leak": 0.12, other: 0.04 },
    reason: "idle control or mixture hunts",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
