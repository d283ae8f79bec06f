import type { Rows, Saying } from "../../faults";

/** Likelihood rows of the gases at the tail; where air came in they say only with the ECU's own reading beside them. Own estimates. */
export const rows = {
  "gas-good": {
    says: "exhaust gases as they should be",
    given: {
      "manifold-leak": 0.75,
      "branch-leak": 0.75,
      "exhaust-air": 0.15,
      "fuel-pressure": 0.75,
      "meter-low": 0.75,
      "engine-mechanical": 0.5,
      healthy: 0.9,
      other: 0.8,
    },
    reason: "closed loop mends much that is wrong; what it cannot mend shows here",
  },
  "gas-air-behind": {
    says: "excess air at the tail while the ECU holds its own at one",
    given: { "exhaust-air": 0.5, "sensor-bias": 0.12, other: 0.03 },
    reason: "air comes in behind the sensor, or before it and fools it",
  },
  "gas-lean-mixture": {
    says: "a lean mixture, by gases and the ECU's own sensor",
    given: {
      "manifold-leak": 0.35,
      "branch-leak": 0.35,
      "booster-leak": 0.35,
      "duct-leak": 0.3,
      "meter-low": 0.4,
      "meter-range": 0.3,
      "fuel-pressure": 0.5,
      "fuel-supply": 0.5,
      "exhaust-air": 0.05,
      other: 0.08,
    },
    reason: "the engine gets it with its mixture",
  },
  "gas-lean": {
    says: "excess air at the tail, its origin open",
    given: { "exhaust-air": 0.5, "manifold-leak": 0.3, "branch-leak": 0.3, "fuel-pressure": 0.35, "meter-low": 0.3, other: 0.08 },
    reason: "a lean mixture and good exhaust thinned with air read alike",
  },
  "gas-rich": {
    says: "too little air at the tail",
    given: { "purge-leak": 0.4, "charge-leak": 0.15, "fuel-pressure": 0.1, restriction: 0.1, other: 0.04 },
    reason: "only the mixture can do that",
  },
  "gas-misfire": {
    says: "fuel and air unburnt at the tail",
    given: { "engine-mechanical": 0.5, "exhaust-air": 0.4, "manifold-leak": 0.15, "ports-coked": 0.1, other: 0.05 },
    reason: "a cylinder that does not burn its charge, or air at the sensor that makes the ECU enrich",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
