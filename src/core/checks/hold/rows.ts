import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a hold test. */
export const rows = {
  "hold-leaks:*": {
    says: "a part did not hold its vacuum",
    given: { other: 0.008 },
    reason: "another part leaks",
    own: { "device-stuck": 0.02, "circuit-dead": 0.02, other: 0.9 },
    ownReason: "it lost its vacuum, still or wiggled",
  },
  "hold-stuck:*": {
    says: "a part holds and does not move",
    given: { "device-stuck": 0.2, "boost-lazy": 0.35, other: 0.01 },
    reason: "another part is stuck",
    own: { "device-stuck": 0.85, "boost-lazy": 0.8, "air-valve-stuck": 0.7, other: 0.03 },
    ownReason: "vacuum is there and it does not follow",
  },
  "hold-good": {
    says: "a part held its vacuum, still and wiggled",
    given: { "boost-lazy": 0.6, other: 0.9 },
    reason: "another part was held",
    tested: { "device-stuck": 0.4, "circuit-dead": 0.9, "valve-stuck": 0.9, other: 0.05 },
    testedReason: "it held, still and wiggled",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
