import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a vacuum chain. */
export const rows = {
  "chain-broken:*": {
    says: "the vacuum chain is broken at a link",
    given: { "actuator-leak": 0.03, "valve-stuck": 0.02, "circuit-dead": 0.02, "device-stuck": 0.03, other: 0.004 },
    reason: "it is broken at another link",
    own: { other: 0.9 },
    ownReason: "the first broken link is this one",
  },
  "chain-good": {
    says: "the vacuum chain works from end to end",
    given: { other: 0.95 },
    reason: "it does not lie in the chain",
    tested: { other: 0.05 },
    testedReason: "every link worked",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
