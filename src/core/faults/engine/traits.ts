/** Minutes to confirm a suspect by hand, by trait. */
export const CONFIRM_MINUTES = {
  // Leaks by where the air gets in
  "manifold-leak": 35,
  "branch-leak": 6,
  "booster-leak": 8,
  "actuator-leak": 8,
  "crankcase-leak": 10,
  "pcv-passes": 10,
  "duct-leak": 6,
  "charge-leak": 12,
  "purge-leak": 8,
  "inside-leak": 25,
  "exhaust-air": 25,
  // Blockages
  restriction: 6,
  "exhaust-restriction": 30,
  "ports-coked": 25,
  "crankcase-blocked": 10,
  // Stuck valves and dead circuits
  "valve-stuck": 10,
  "circuit-dead": 10,
  "device-stuck": 15,
  "idle-control": 15,
  // Lying meters
  "meter-low": 12,
  "meter-range": 12,
  "sensor-bias": 15,
  // Fuel and engine
  "fuel-pressure": 15,
  "fuel-supply": 15,
  "engine-mechanical": 45,
} as const;
