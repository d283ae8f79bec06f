import type { Rows, Saying } from "../../faults";

/** Likelihood rows of the airflow check. */
export const rows = {
  "airflow-restricted": {
    says: "full throttle does not fill the manifold",
    given: { restriction: 0.55, "exhaust-restriction": 0.06, other: 0.015 },
    reason: "only a restriction before the manifold keeps its pressure down at full throttle",
  },
  "airflow-reads-low": {
    says: "the meter reads less than the manifold takes",
    given: { "meter-low": 0.6, "meter-range": 0.6, "duct-leak": 0.5, "exhaust-restriction": 0.3, other: 0.025 },
    reason: "the manifold is full and the meter does not say so",
  },
  "airflow-idle-low": {
    says: "the meter reads low at idle",
    given: { "meter-low": 0.4, "manifold-leak": 0.3, "branch-leak": 0.3, "duct-leak": 0.3, "booster-leak": 0.3, other: 0.08 },
    reason: "unmetered air or a meter that under-reads",
  },
  "airflow-normal": {
    says: "the engine breathes as it should",
    given: {
      restriction: 0.35,
      "meter-low": 0.25,
      "meter-range": 0.2,
      "duct-leak": 0.8,
      "exhaust-restriction": 0.6,
      "charge-leak": 0.8,
      other: 0.85,
    },
    reason: "at full throttle a small leak does not show",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
