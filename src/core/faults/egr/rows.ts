import type { Rows } from "../row";

/** Likelihood rows of EGR codes. Own estimates. */
export const rows = {
  "code:egr-flow": {
    says: "an EGR code is stored",
    given: {
      "egr-blocked": 0.5,
      "inside-leak": 0.4,
      "valve-stuck": 0.35,
      "actuator-leak": 0.3,
      "circuit-dead": 0.2,
      other: 0.008,
    },
    reason: "flow or position was not as commanded",
  },
  "code:egr-little": {
    says: "a code for too little EGR flow",
    given: {
      "egr-blocked": 0.7,
      "valve-stuck": 0.4,
      "actuator-leak": 0.35,
      "circuit-dead": 0.25,
      "inside-leak": 0.05,
      other: 0.006,
    },
    reason: "opened, it did not take fresh air away",
  },
  "code:egr-much": {
    says: "a code for too much EGR flow",
    given: { "inside-leak": 0.75, "valve-stuck": 0.12, "egr-blocked": 0.05, other: 0.006 },
    reason: "shut, it let exhaust through",
  },
  "code:egr-circuit": {
    says: "an EGR circuit code is stored",
    given: { "circuit-dead": 0.7, "egr-blocked": 0.1, other: 0.005 },
    reason: "the ECU saw no current, or no position",
  },
  "code:egr-cooler": {
    says: "an EGR cooler code is stored",
    given: { "egr-cooler-leak": 0.5, "egr-blocked": 0.2, other: 0.006 },
    reason: "what comes out of it is too hot",
  },
} as const satisfies Rows;
