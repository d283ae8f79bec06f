import type { Rows } from "../row";

/** Likelihood rows of boost codes. Own estimates. */
export const rows = {
  "code:low-boost": {
    says: "a low-boost code is stored",
    given: {
      "charge-leak": 0.6,
      "boost-lazy": 0.6,
      "actuator-leak": 0.5,
      "supply-weak": 0.45,
      "valve-stuck": 0.45,
      "circuit-dead": 0.35,
      "inside-leak": 0.4,
      restriction: 0.25,
      "exhaust-restriction": 0.25,
      "duct-leak": 0.2,
      "boost-sensor": 0.2,
      other: 0.04,
    },
    reason: "boost requested and not delivered",
  },
  "code:over-boost": {
    says: "a code for too much boost is stored",
    given: { "boost-over": 0.7, "boost-sensor": 0.2, "boost-lazy": 0.2, "valve-stuck": 0.15, other: 0.01 },
    reason: "more delivered than requested: vanes or gate do not open",
  },
  "code:boost-circuit": {
    says: "a boost solenoid circuit code is stored",
    given: { "circuit-dead": 0.65, "valve-stuck": 0.12, other: 0.005 },
    reason: "the ECU saw no current where it switches",
  },
  "code:boost-actuator": {
    says: "a boost actuator code is stored",
    given: { "boost-lazy": 0.6, "boost-over": 0.4, "actuator-leak": 0.3, "supply-weak": 0.25, other: 0.01 },
    reason: "it does not stand where it is asked to",
  },
  "code:boost-sensor": {
    says: "a boost sensor code is stored",
    given: { "boost-sensor": 0.7, "charge-leak": 0.05, other: 0.006 },
    reason: "its signal does not fit the others",
  },
} as const satisfies Rows;
