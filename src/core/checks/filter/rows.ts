import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a filter's pressure difference. Own estimates. */
export const rows = {
  "filter-loaded": {
    says: "the filter's pressure difference is too high",
    given: { "filter-loaded": 0.88, "filter-pipe": 0.12, "filter-sensor": 0.12, "exhaust-restriction": 0.1, other: 0.03 },
    reason: "gas meets more soot or ash than the filter should hold",
  },
  "filter-within": {
    says: "the filter's pressure difference is within limits",
    given: { "filter-loaded": 0.05, "filter-pipe": 0.3, "filter-sensor": 0.3, "filter-broken": 0.12, other: 0.9 },
    reason: "it is not restricted",
  },
  "filter-zero-off": {
    says: "the filter's sensor shows a pressure with the engine standing",
    given: { "filter-sensor": 0.75, other: 0.01 },
    reason: "nothing flows, so nothing can differ: the sensor or its supply is faulty",
  },
  "filter-backwards": {
    says: "less pressure before the filter than behind it",
    given: { "filter-pipe": 0.7, "filter-sensor": 0.15, other: 0.005 },
    reason: "its pipes are swapped, or the front one is off",
  },
  "filter-none": {
    says: "next to no pressure difference at a held speed",
    given: { "filter-broken": 0.7, "filter-pipe": 0.2, "filter-sensor": 0.2, other: 0.01 },
    reason: "gas goes past the core, or its pressure does not reach the sensor",
  },
  "filter-pipe:*": {
    says: "a pressure pipe of the filter is bad",
    given: { other: 0.01 },
    reason: "another place was bad",
    own: { "filter-pipe": 0.95, other: 0.02 },
    ownReason: "seen with the eye or blown through",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
