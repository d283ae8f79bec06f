import type { Rows, Saying } from "../../faults";

/** Likelihood rows of crankcase pressure. */
export const rows = {
  "crankcase-suction": {
    says: "too much suction in the crankcase",
    given: { "pcv-passes": 0.8, other: 0.02 },
    reason: "manifold vacuum gets past the PCV diaphragm or valve",
  },
  "crankcase-positive": {
    says: "pressure in the crankcase",
    given: { "crankcase-blocked": 0.8, "engine-mechanical": 0.35, "crankcase-leak": 0.25, "branch-leak": 0.05, other: 0.03 },
    reason: "blow-by that the breather cannot carry away, or vacuum lost on the way",
  },
  "crankcase-normal": {
    says: "crankcase pressure in its band",
    given: { "pcv-passes": 0.12, "crankcase-blocked": 0.1, "engine-mechanical": 0.6, "crankcase-leak": 0.6, other: 0.92 },
    reason: "breather and PCV valve do their work",
  },
  "crankcase-sign-right": {
    says: "suction in the crankcase, no band to compare it with",
    given: { "pcv-passes": 0.6, "crankcase-blocked": 0.1, "engine-mechanical": 0.5, other: 0.85 },
    reason: "only the sign could be judged",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
