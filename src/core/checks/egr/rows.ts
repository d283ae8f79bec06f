import type { Rows, Saying } from "../../faults";

/** Likelihoods of an EGR valve's responses when commanded, and of its seat by smoke. Own estimates. */
export const rows = {
  "egr-passes:*": {
    says: "smoke comes through the shut EGR valve",
    given: { other: 0.01 },
    reason: "another valve was tried",
    own: { "inside-leak": 0.92, "egr-blocked": 0.05, other: 0.02 },
    ownReason: "its seat does not hold",
  },
  "egr-no-answer:*": {
    says: "nothing changes when the EGR valve is commanded",
    given: { "actuator-leak": 0.5, "valve-stuck": 0.3, "circuit-dead": 0.08, other: 0.012 },
    reason: "another valve was commanded",
    own: { "egr-blocked": 0.88, "valve-stuck": 0.7, "circuit-dead": 0.6, "actuator-leak": 0.6, "inside-leak": 0.12, other: 0.03 },
    ownReason: "stuck, not moved, or its passage blocked with soot",
  },
  "egr-cooler": {
    says: "the EGR cooler loses coolant",
    given: { "egr-cooler-leak": 0.9, other: 0.01 },
    reason: "it was put under pressure by itself",
  },
  "egr-answers": {
    says: "the EGR valve responds to its command and its seat holds",
    given: { "actuator-leak": 0.45, "valve-stuck": 0.6, other: 0.9 },
    reason: "another valve was commanded",
    tested: {
      "inside-leak": 0.08,
      "egr-blocked": 0.05,
      "valve-stuck": 0.1,
      "circuit-dead": 0.1,
      "egr-cooler-leak": 0.6,
      other: 0.9,
    },
    testedReason: "both were tried at it",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
