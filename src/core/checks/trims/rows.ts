import type { LikelihoodRow, Rows, Saying } from "../../faults";

const FADES: LikelihoodRow = {
  says: "lean at idle, fading with airflow",
  given: {
    "manifold-leak": 0.78,
    "branch-leak": 0.78,
    "booster-leak": 0.78,
    "crankcase-leak": 0.6,
    "purge-leak": 0.5,
    "pcv-passes": 0.6,
    "actuator-leak": 0.35,
    "exhaust-air": 0.58,
    "idle-control": 0.05,
    "inside-leak": 0.08,
    "duct-leak": 0.04,
    other: 0.015,
  },
  reason: "a fixed hole passes the same air while the engine breathes more, so its share fades",
};
const onBank = (bank: 1 | 2): LikelihoodRow => ({
  ...FADES,
  says: `lean at idle on bank ${bank} only`,
  reason: "what feeds one bank only shows on that bank",
  bank,
});

/** Likelihood rows of a survey: outcomes of one check, over which each trait's likelihoods add up to about 1. */
export const rows = {
  "lean-fades-with-flow": FADES,
  "lean-fades-bank-1": onBank(1),
  "lean-fades-bank-2": onBank(2),
  "lean-constant": {
    says: "lean by the same share at every flow",
    given: {
      "meter-low": 0.8,
      "fuel-pressure": 0.6,
      "duct-leak": 0.7,
      "sensor-bias": 0.75,
      "crankcase-leak": 0.06,
      "pcv-passes": 0.06,
      "exhaust-air": 0.05,
      other: 0.02,
    },
    reason: "a duct's suction grows with flow squared, so its leak keeps its share, as a meter error does",
  },
  "lean-grows-with-flow": {
    says: "lean growing with airflow",
    given: { "fuel-supply": 0.8, "meter-range": 0.8, "meter-low": 0.06, "fuel-pressure": 0.2, other: 0.01 },
    reason: "what runs out at high demand shows at high flow only",
  },
  "rich-under-boost": {
    says: "quiet at idle, rich under boost",
    given: { "charge-leak": 0.55, "inside-leak": 0.1, other: 0.01 },
    reason: "metered air is lost between compressor and throttle",
  },
  "trims-normal": {
    says: "trims near zero everywhere",
    given: {
      healthy: 0.9,
      "charge-leak": 0.12,
      "inside-leak": 0.6,
      "manifold-leak": 0.05,
      "branch-leak": 0.05,
      "booster-leak": 0.05,
      "crankcase-leak": 0.15,
      "pcv-passes": 0.15,
      "actuator-leak": 0.5,
      "purge-leak": 0.23,
      restriction: 0.75,
      "exhaust-restriction": 0.72,
      "ports-coked": 0.75,
      "crankcase-blocked": 0.75,
      "valve-stuck": 0.8,
      "circuit-dead": 0.8,
      "device-stuck": 0.8,
      "idle-control": 0.7,
      "engine-mechanical": 0.75,
      "exhaust-air": 0.15,
      "boost-over": 0.7,
      "boost-lazy": 0.8,
      "boost-sensor": 0.8,
      "supply-weak": 0.8,
      "egr-blocked": 0.75,
      other: 0.04,
    },
    reason: "closed loop had nothing to correct",
  },
  "rich-constant": {
    says: "rich by the same share at every flow",
    given: { "fuel-pressure": 0.05, other: 0.01 },
    reason: "too much fuel or a meter that over-reads: no leak does this",
  },
  "rich-fades-with-flow": {
    says: "rich at idle, fading with airflow",
    given: { "purge-leak": 0.12, "fuel-pressure": 0.05, other: 0.004 },
    reason: "fuel or vapour that comes in at a fixed rate weighs most while the engine breathes least",
  },
  "rich-grows-with-flow": {
    says: "rich growing with airflow",
    given: { "meter-range": 0.05, "meter-low": 0.02, other: 0.004 },
    reason: "a meter that over-reads does so most where the flow is high",
  },
  "trims-unclear": {
    says: "trims that fit no single shape",
    given: { "charge-leak": 0.3, other: 0.1 },
    reason: "more points are needed; it points to nothing",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
