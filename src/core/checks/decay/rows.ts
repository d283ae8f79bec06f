import type { Rows, Saying } from "../../faults";

/** Likelihood rows of pressure decay. */
export const rows = {
  "decay-leaks": {
    says: "pressure fell like a leak that must be caught",
    given: { "vapour-leak": 0.3, "vent-open": 0.5, "purge-leak": 0.8, other: 0.03 },
    reason: "it lies outside what was held",
    tested: { "vapour-leak": 0.85, other: 0.05 },
    testedReason: "it was part of what lost its pressure",
  },
  "decay-tight": {
    says: "pressure held",
    given: { "vent-open": 0.8, "purge-leak": 0.12, other: 0.85 },
    reason: "it was not part of what was held, or would not show",
    tested: { "vapour-leak": 0.06, other: 0.85 },
    testedReason: "it was held under pressure and lost none",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
