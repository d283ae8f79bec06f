import type { Rows } from "../row";

/** Likelihood rows of the vapour system's codes and symptoms. */
export const rows = {
  "code:evap": {
    says: "an EVAP code is stored",
    given: {
      "vapour-leak": 0.3,
      "vent-open": 0.3,
      "purge-leak": 0.25,
      "purge-blocked": 0.25,
      "vent-blocked": 0.2,
      "circuit-dead": 0.1,
      "tank-sensor": 0.2,
      other: 0.01,
    },
    reason: "the monitor failed without saying how",
  },
  "code:evap-gross": {
    says: "a gross-leak code is stored",
    given: {
      "vapour-leak": 0.35,
      "vent-open": 0.6,
      "purge-blocked": 0.35,
      "purge-leak": 0.05,
      "circuit-dead": 0.12,
      "tank-sensor": 0.12,
      other: 0.005,
    },
    reason: "no vacuum could be built: wide open, or nothing pulled",
  },
  "code:evap-small": {
    says: "a small-leak code is stored",
    given: { "vapour-leak": 0.55, "vent-open": 0.12, "purge-leak": 0.12, "tank-sensor": 0.06, other: 0.005 },
    reason: "vacuum was built and lost",
  },
  "code:evap-very-small": {
    says: "a very-small-leak code is stored",
    given: { "vapour-leak": 0.5, "vent-open": 0.06, "purge-leak": 0.1, "tank-sensor": 0.04, healthy: 0.04, other: 0.004 },
    reason: "vacuum was lost slowly: a pinhole, a seal, or fuel that steamed",
  },
  "code:purge": {
    says: "a purge-flow code is stored",
    given: { "purge-leak": 0.5, "purge-blocked": 0.5, "tank-sensor": 0.1, "circuit-dead": 0.1, other: 0.02 },
    reason: "purge flow was not as commanded",
  },
  "code:purge-high": {
    says: "a code for purge flow when not commanded",
    given: { "purge-leak": 0.7, "tank-sensor": 0.08, "vent-blocked": 0.08, other: 0.01 },
    reason: "vacuum came into the tank with purge shut",
  },
  "code:purge-low": {
    says: "a code for purge flow too low",
    given: {
      "purge-blocked": 0.7,
      "circuit-dead": 0.12,
      "vapour-leak": 0.05,
      "vent-open": 0.1,
      "tank-sensor": 0.08,
      other: 0.01,
    },
    reason: "purge was open and the tank did not follow",
  },
  "code:vent": {
    says: "a vent code is stored",
    given: { "vent-open": 0.45, "vent-blocked": 0.5, "circuit-dead": 0.15, "tank-sensor": 0.08, other: 0.006 },
    reason: "the vent did not open or shut as commanded",
  },
  "code:vent-circuit": {
    says: "a vent circuit code is stored",
    given: { "circuit-dead": 0.6, "vent-open": 0.1, "vent-blocked": 0.08, other: 0.003 },
    reason: "the ECU saw no current where it switches the vent",
  },
  "code:purge-circuit": {
    says: "a purge circuit code is stored",
    given: { "circuit-dead": 0.6, "purge-blocked": 0.08, other: 0.003 },
    reason: "the ECU saw no current where it switches purge",
  },
  "code:tank-sensor": {
    says: "a tank-pressure sensor code is stored",
    given: { "tank-sensor": 0.7, "vent-blocked": 0.12, other: 0.006 },
    reason: "its signal left its range; a blocked vent can push it there",
  },
  "symptom:nozzle-clicks": {
    says: "the pump nozzle keeps clicking off",
    given: { "vent-blocked": 0.75, other: 0.02 },
    reason: "air cannot get out of the tank while fuel goes in",
  },
  "symptom:fuel-smell": {
    says: "a smell of fuel",
    given: { "vapour-leak": 0.35, "vent-open": 0.12, "vent-blocked": 0.12, "fuel-pressure": 0.1, other: 0.04 },
    reason: "vapour gets out",
  },
  "symptom:hard-start-filled": {
    says: "hard to start after filling up",
    given: { "purge-leak": 0.45, "vent-blocked": 0.12, other: 0.01 },
    reason: "purge that leaks feeds vapour while cranking",
  },
  "symptom:cap-whoosh": {
    says: "a rush of air on opening the cap",
    given: { "vent-blocked": 0.4, "purge-leak": 0.25, "vent-open": 0.02, "vapour-leak": 0.02, other: 0.08 },
    reason: "the tank holds pressure or vacuum: it is tight, and does not breathe",
  },
} as const satisfies Rows;
