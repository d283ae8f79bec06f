import type { Rows, Saying } from "../../faults";

/** Likelihood rows of pressure before the catalyst. Own estimates. */
export const rows = {
  "back-high": {
    says: "too much pressure before the catalyst",
    given: { "exhaust-restriction": 0.9, "filter-loaded": 0.6, other: 0.02 },
    reason: "exhaust gas cannot get out",
  },
  "back-normal": {
    says: "no more pressure before the catalyst than there should be",
    given: { "exhaust-restriction": 0.06, "filter-loaded": 0.3, other: 0.95 },
    reason: "the exhaust is not restricted",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
