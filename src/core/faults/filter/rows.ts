import type { Rows } from "../row";

/** Likelihood rows of the filter's codes and symptoms. Own estimates. */
export const rows = {
  "code:filter-full": {
    says: "a code for a filter that is full",
    given: { "filter-loaded": 0.7, "filter-sensor": 0.15, "filter-pipe": 0.12, "charge-leak": 0.06, other: 0.01 },
    reason: "pressure or model passed what the ECU allows",
  },
  "code:filter-through": {
    says: "a code for a filter whose efficiency is too low",
    given: { "filter-broken": 0.6, "filter-pipe": 0.4, "filter-sensor": 0.25, other: 0.005 },
    reason: "less pressure than any core makes",
  },
  "code:filter-sensor": {
    says: "a filter pressure sensor code is stored",
    given: { "filter-sensor": 0.65, "filter-pipe": 0.2, other: 0.01 },
    reason: "its signal left its range",
  },
  "symptom:regenerates-often": {
    says: "it regenerates often",
    given: { "filter-loaded": 0.45, "filter-sensor": 0.2, "filter-pipe": 0.12, "charge-leak": 0.15, other: 0.03 },
    reason: "soot comes faster than it burns, or the ECU thinks so",
  },
  "symptom:oil-rises": {
    says: "the oil level rises",
    given: { "filter-loaded": 0.25, "filter-sensor": 0.12, other: 0.02 },
    reason: "regenerations that do not end put fuel into the oil",
  },
} as const satisfies Rows;
