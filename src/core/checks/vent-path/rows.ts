import type { Rows, Saying } from "../../faults";

/** Likelihood rows of the blown-through vent path. */
export const rows = {
  "vent-blocked:*": {
    says: "the vent path is blocked at a part",
    given: { "vent-blocked": 0.04, other: 0.01 },
    reason: "it is blocked at another part",
    own: { "vent-blocked": 0.92, "vapour-leak": 0.01, "vent-open": 0.01, other: 0.02 },
    ownReason: "back pressure stood right there",
  },
  "vent-free": {
    says: "the vent path breathes freely",
    given: { other: 0.9 },
    reason: "it does not lie in the vent path",
    tested: { "vent-blocked": 0.05, other: 0.9 },
    testedReason: "it was blown through",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
