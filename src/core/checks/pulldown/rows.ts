import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a pull-down trace. */
export const rows = {
  "pulldown-creeps": {
    says: "vacuum comes in with everything shut",
    given: { "purge-leak": 0.85, "tank-sensor": 0.03, other: 0.006 },
    reason: "only purge ties the tank to the manifold",
  },
  "pulldown-none": {
    says: "no pull-down with the vent commanded shut",
    given: {
      "vent-open": 0.85,
      "purge-blocked": 0.85,
      "circuit-dead": 0.8,
      "vapour-leak": 0.15,
      "tank-sensor": 0.35,
      other: 0.02,
    },
    reason: "nothing was pulled, or it came in as fast",
  },
  "pulldown-none-plugged": {
    says: "no pull-down with the vent plugged by hand",
    given: {
      "purge-blocked": 0.85,
      "vapour-leak": 0.15,
      "circuit-dead": 0.4,
      "tank-sensor": 0.35,
      "vent-open": 0.01,
      other: 0.02,
    },
    reason: "the vent was out of it",
  },
  "pulldown-loses": {
    says: "it pulled down and did not hold",
    given: { "vapour-leak": 0.88, "vent-open": 0.25, "purge-leak": 0.03, "purge-blocked": 0.02, other: 0.05 },
    reason: "air comes in after purge was shut",
  },
  "pulldown-no-relief": {
    says: "it pulled down, held, and did not relieve",
    given: { "vent-blocked": 0.8, other: 0.01 },
    reason: "air cannot come in by the vent",
  },
  "pulldown-good": {
    says: "it pulled down, held and relieved",
    given: {
      "vapour-leak": 0.25,
      "vent-open": 0.03,
      "vent-blocked": 0.06,
      "purge-blocked": 0.03,
      "purge-leak": 0.2,
      "circuit-dead": 0.1,
      "tank-sensor": 0.25,
      other: 0.9,
    },
    reason: "every part did its work; a small leak hardly shows in it",
  },
  "pulldown-good-plugged": {
    says: "it pulled down and held with the vent plugged by hand",
    given: {
      "vapour-leak": 0.2,
      "vent-open": 0.85,
      "vent-blocked": 0.1,
      "purge-blocked": 0.03,
      "purge-leak": 0.2,
      "tank-sensor": 0.25,
      other: 0.85,
    },
    reason: "what the plug took the place of is the vent's own shutting",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
