import type { Rows, Saying } from "../../faults";

/** Likelihood rows of secondary air, made to run by hand. Own estimates. */
export const rows = {
  "air-arrives": {
    says: "secondary air arrives in the exhaust",
    given: {
      "air-pump-dead": 0.03,
      "air-ports": 0.06,
      "air-valve-stuck": 0.05,
      "air-leak": 0.1,
      "air-valve-back": 0.1,
      healthy: 0.9,
      other: 0.6,
    },
    reason: "pump, hose, valve and ports let it through",
  },
  "air-pump-dead": {
    says: "the secondary-air pump does not run",
    given: { "air-pump-dead": 0.9, "circuit-dead": 0.5, other: 0.01 },
    reason: "it was fed and stood still",
  },
  "air-blocked:*": {
    says: "the pump runs and no air arrives in the exhaust",
    given: { "air-leak": 0.06, "actuator-leak": 0.3, other: 0.02 },
    reason: "another bank's was tried",
    own: { "air-valve-stuck": 0.9, "air-ports": 0.85, "air-leak": 0.08, other: 0.03 },
    ownReason: "valve or ports keep it out: carbon",
  },
  "air-back:*": {
    says: "exhaust comes back through the shut switching valve",
    given: { other: 0.01 },
    reason: "another valve was felt",
    own: { "air-valve-back": 0.92, "air-valve-stuck": 0.1, other: 0.02 },
    ownReason: "pulses and heat where the shut valve should keep them",
  },
  "air-escapes:*": {
    says: "air bubbles out before it gets to the exhaust",
    given: { other: 0.01 },
    reason: "it came out somewhere else",
    own: { "air-leak": 0.93, other: 0.03 },
    ownReason: "soap bubbles right there",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
