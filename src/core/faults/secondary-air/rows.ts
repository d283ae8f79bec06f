import type { Rows } from "../row";

/** Likelihood rows of secondary air's codes and symptoms. Own estimates. */
export const rows = {
  "code:air-flow": {
    says: "a code for too little secondary air",
    given: {
      "air-leak": 0.6,
      "air-pump-dead": 0.6,
      "air-valve-stuck": 0.6,
      "air-ports": 0.6,
      "circuit-dead": 0.3,
      "actuator-leak": 0.3,
      "valve-stuck": 0.25,
      "air-valve-back": 0.25,
      other: 0.005,
    },
    reason: "the sensor did not go lean while the pump was asked to run",
  },
  "code:air-circuit": {
    says: "a secondary-air circuit code is stored",
    given: { "circuit-dead": 0.6, "valve-stuck": 0.2, "air-pump-dead": 0.15, other: 0.004 },
    reason: "the ECU saw no current where it switches",
  },
  "code:air-open": {
    says: "a code for a secondary-air valve that stays open",
    given: { "air-valve-back": 0.7, "air-valve-stuck": 0.1, other: 0.005 },
    reason: "air or exhaust passes while it should be shut",
  },
  "symptom:pump-howl": {
    says: "a howl or rattle for a minute after a cold start",
    given: { "air-pump-dead": 0.5, "air-leak": 0.3, "air-valve-back": 0.3, other: 0.02 },
    reason: "the pump runs rough, or blows where it should not",
  },
} as const satisfies Rows;
