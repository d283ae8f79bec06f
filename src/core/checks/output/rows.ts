import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a commanded part. */
export const rows = {
  "output-works:*": {
    says: "a commanded part responded",
    given: { "supply-weak": 0.7, other: 0.9 },
    reason: "another part was commanded",
    own: {
      "valve-stuck": 0.05,
      "circuit-dead": 0.04,
      "device-stuck": 0.06,
      "idle-control": 0.25,
      "actuator-leak": 0.25,
      "egr-blocked": 0.4,
      other: 0.88,
    },
    ownReason: "it did what it was told",
  },
  "output-dead:*": {
    says: "a commanded part did not respond",
    given: { "supply-weak": 0.25, other: 0.02 },
    reason: "another part did not respond",
    own: {
      "valve-stuck": 0.9,
      "circuit-dead": 0.92,
      "device-stuck": 0.9,
      "idle-control": 0.6,
      "actuator-leak": 0.6,
      "air-pump-dead": 0.9,
      "egr-blocked": 0.5,
      "purge-blocked": 0.5,
      other: 0.06,
    },
    ownReason: "it did not do what it was told",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
