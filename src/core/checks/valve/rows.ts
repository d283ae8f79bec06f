import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a valve test. */
export const rows = {
  "valve-leaks:*": {
    says: "a valve leaks where it must hold",
    given: { other: 0.01 },
    reason: "another valve leaks",
    own: {
      "circuit-dead": 0.02,
      "valve-stuck": 0.1,
      "vent-blocked": 0.02,
      "purge-blocked": 0.02,
      "egr-blocked": 0.02,
      "actuator-leak": 0.02,
      other: 0.9,
    },
    ownReason: "its seat does not hold",
  },
  "valve-stuck:*": {
    says: "a valve does not switch",
    given: { other: 0.01 },
    reason: "another valve sticks",
    own: {
      "valve-stuck": 0.88,
      "circuit-dead": 0.75,
      "idle-control": 0.7,
      "purge-blocked": 0.85,
      "egr-blocked": 0.55,
      "vent-blocked": 0.8,
      other: 0.04,
    },
    ownReason: "it was fed and did not pass",
  },
  "valve-good": {
    says: "a valve holds and passes as it must",
    given: { other: 0.9 },
    reason: "another valve was tried",
    tested: { "circuit-dead": 0.5, "device-stuck": 0.9, "actuator-leak": 0.85, "egr-blocked": 0.3, other: 0.07 },
    testedReason: "both its states were right",
  },
  "valve-good-warm": {
    says: "a valve holds and passes, warm",
    given: { other: 0.9 },
    reason: "another valve was tried",
    tested: { "circuit-dead": 0.5, "device-stuck": 0.9, "actuator-leak": 0.85, "purge-leak": 0.4, "vent-open": 0.3, other: 0.12 },
    testedReason: "right while warm; a seat can hold warm and leak cold",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
