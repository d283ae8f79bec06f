import type { Rows, Saying } from "../../faults";

/** Likelihood rows of a boost log. Own estimates: shapes are told apart by airflow, members of one are not. */
export const rows = {
  "boost-sound": {
    says: "boost holds the requested value, and no metered air is lost",
    given: {
      "charge-leak": 0.1,
      "boost-lazy": 0.06,
      "boost-over": 0.05,
      "boost-sensor": 0.3,
      restriction: 0.2,
      "exhaust-restriction": 0.2,
      "actuator-leak": 0.45,
      "valve-stuck": 0.45,
      "circuit-dead": 0.45,
      "inside-leak": 0.3,
      healthy: 0.9,
      other: 0.7,
    },
    reason: "what fails under boost would show in it",
  },
  "boost-leak": {
    says: "the MAF sees more under boost than the engine breathes",
    given: {
      "charge-leak": 0.8,
      "manifold-leak": 0.25,
      "branch-leak": 0.1,
      "exhaust-restriction": 0.25,
      "meter-range": 0.03,
      other: 0.012,
    },
    reason: "metered air gets out before the cylinders",
  },
  "boost-short": {
    says: "boost falls short, and the MAF with it",
    given: {
      "boost-lazy": 0.85,
      "actuator-leak": 0.6,
      "valve-stuck": 0.55,
      "circuit-dead": 0.55,
      restriction: 0.6,
      "supply-weak": 0.6,
      "exhaust-restriction": 0.55,
      "inside-leak": 0.4,
      "duct-leak": 0.15,
      "charge-leak": 0.1,
      other: 0.03,
    },
    reason: "less is delivered than requested, and what is pressed in arrives",
  },
  "boost-over": {
    says: "boost goes above the requested value",
    given: {
      "boost-over": 0.85,
      "boost-lazy": 0.06,
      "boost-sensor": 0.2,
      "valve-stuck": 0.12,
      "circuit-dead": 0.1,
      other: 0.008,
    },
    reason: "vanes or gate do not open, or a sensor reads low",
  },
  "boost-sensor": {
    says: "pressure sensors differ with the engine standing",
    given: { "boost-sensor": 0.75, other: 0.012 },
    reason: "nothing moves, so nothing can differ",
  },
  "standing-filter": {
    says: "the filter's pressure sensor shows a difference with the engine standing",
    given: { "filter-sensor": 0.75, other: 0.01 },
    reason: "nothing flows, so nothing can differ: the sensor or its supply is faulty",
  },
  "boost-meter": {
    says: "MAF and VE disagree by the same percentage across the range",
    given: { "meter-low": 0.6, "meter-range": 0.15, "engine-mechanical": 0.35, "duct-leak": 0.1, other: 0.01 },
    reason: "a leak does not change the MAF by one percentage across the range",
  },
  "boost-exhaust": {
    says: "the engine breathes less the more boost it gets",
    given: { "exhaust-restriction": 0.55, "filter-loaded": 0.4, other: 0.015 },
    reason: "what cannot get out keeps the next charge out",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
