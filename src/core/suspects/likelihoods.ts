import type { Cause, Trait } from "./causes";

/** One row of what an observation says: how likely each trait gives it, and why. */
export interface LikelihoodRow {
  readonly observation: string;
  /** What it is called in a sentence */
  readonly says: string;
  /** P(observation | trait); `other` for the traits not named */
  readonly given: Partial<Record<Trait, number>> & { readonly other: number };
  readonly reason: string;
}

/** The trim survey's rows are outcomes of one check: over them each trait's likelihoods add up to about 1. */
export const TRIM_ROWS: readonly LikelihoodRow[] = [
  {
    observation: "lean-fades-with-flow",
    says: "lean at idle, fading with airflow",
    given: {
      "manifold-leak": 0.78,
      "branch-leak": 0.78,
      "booster-leak": 0.78,
      "crankcase-leak": 0.6,
      "purge-leak": 0.55,
      "exhaust-air": 0.58,
      "inside-leak": 0.08,
      "duct-leak": 0.04,
      other: 0.015,
    },
    reason: "a fixed hole passes the same air while the engine breathes more, so its share fades",
  },
  {
    observation: "lean-constant",
    says: "lean by the same share at every flow",
    given: { "meter-low": 0.8, "fuel-pressure": 0.6, "duct-leak": 0.7, "crankcase-leak": 0.06, "exhaust-air": 0.05, other: 0.02 },
    reason: "a duct's suction grows with flow squared, so its leak keeps its share, as a meter error does",
  },
  {
    observation: "lean-grows-with-flow",
    says: "lean growing with airflow",
    given: { "fuel-supply": 0.8, "meter-range": 0.8, "meter-low": 0.06, "fuel-pressure": 0.2, other: 0.01 },
    reason: "what runs out at high demand shows at high flow only",
  },
  {
    observation: "rich-under-boost",
    says: "quiet at idle, rich under boost",
    given: { "charge-leak": 0.75, "inside-leak": 0.1, other: 0.01 },
    reason: "metered air is lost between compressor and throttle",
  },
  {
    observation: "trims-normal",
    says: "trims near zero everywhere",
    given: {
      healthy: 0.9,
      "charge-leak": 0.12,
      "inside-leak": 0.6,
      "manifold-leak": 0.05,
      "branch-leak": 0.05,
      "booster-leak": 0.05,
      "crankcase-leak": 0.15,
      "purge-leak": 0.25,
      "exhaust-air": 0.15,
      other: 0.04,
    },
    reason: "closed loop had nothing to correct",
  },
  {
    observation: "rich-constant",
    says: "rich by the same share at every flow",
    given: { "fuel-pressure": 0.05, other: 0.01 },
    reason: "too much fuel or a meter that over-reads: no leak does this",
  },
  {
    observation: "trims-unclear",
    says: "trims that fit no single shape",
    given: { other: 0.1 },
    reason: "more points are needed; it speaks for nobody",
  },
];

/** Codes and symptoms: what the Story and the Scan say before any check. */
export const STORY_ROWS: readonly LikelihoodRow[] = [
  {
    observation: "code:lean",
    says: "a lean code is stored",
    given: { healthy: 0.1, "charge-leak": 0.2, "inside-leak": 0.15, other: 0.6 },
    reason: "the ECU's own correction reached its limit",
  },
  {
    observation: "code:one-bank-lean",
    says: "a lean code on one bank only",
    given: {
      "manifold-leak": 0.3,
      "exhaust-air": 0.3,
      "meter-low": 0.03,
      "duct-leak": 0.03,
      "meter-range": 0.05,
      "fuel-supply": 0.05,
      healthy: 0.05,
      other: 0.1,
    },
    reason: "a meter or duct feeds both banks alike",
  },
  {
    observation: "code:low-boost",
    says: "a low-boost code is stored",
    given: { "charge-leak": 0.6, "inside-leak": 0.4, other: 0.04 },
    reason: "boost asked for and not delivered",
  },
  {
    observation: "code:air-meter",
    says: "an air-meter code is stored",
    given: { "meter-low": 0.5, "meter-range": 0.45, "duct-leak": 0.25, "charge-leak": 0.2, other: 0.05 },
    reason: "metered air does not fit the engine's breathing",
  },
  {
    observation: "code:purge",
    says: "a purge-flow code is stored",
    given: { "purge-leak": 0.5, other: 0.04 },
    reason: "the purge monitor saw flow where none was asked",
  },
  {
    observation: "code:idle-high",
    says: "idle above its target",
    given: {
      "manifold-leak": 0.35,
      "branch-leak": 0.4,
      "booster-leak": 0.4,
      "crankcase-leak": 0.3,
      "purge-leak": 0.15,
      other: 0.04,
    },
    reason: "air past the throttle raises the idle",
  },
  {
    observation: "symptom:hiss-idle",
    says: "a hiss at idle",
    given: { "manifold-leak": 0.3, "branch-leak": 0.45, "booster-leak": 0.45, "crankcase-leak": 0.25, other: 0.05 },
    reason: "manifold vacuum whistles through a hole",
  },
  {
    observation: "symptom:hiss-load",
    says: "a hiss under load",
    given: { "charge-leak": 0.55, other: 0.04 },
    reason: "boost escapes where only load puts pressure",
  },
  {
    observation: "symptom:rough-idle",
    says: "a rough or hunting idle",
    given: {
      "manifold-leak": 0.45,
      "branch-leak": 0.4,
      "booster-leak": 0.4,
      "crankcase-leak": 0.4,
      "purge-leak": 0.4,
      "inside-leak": 0.4,
      other: 0.2,
    },
    reason: "unmetered air upsets the idle mixture most",
  },
  {
    observation: "symptom:low-power",
    says: "weak under load or limp mode",
    given: { "charge-leak": 0.6, "fuel-supply": 0.6, "meter-range": 0.4, "inside-leak": 0.3, other: 0.12 },
    reason: "what fails at high flow is felt under load",
  },
  {
    observation: "symptom:cold-worse",
    says: "worse when cold",
    given: { "manifold-leak": 0.4, "exhaust-air": 0.35, other: 0.2 },
    reason: "gaskets and manifolds close up as they warm",
  },
  {
    observation: "symptom:brake-hard",
    says: "a hard brake pedal",
    given: { "booster-leak": 0.4, other: 0.02 },
    reason: "the booster loses its vacuum",
  },
  {
    observation: "symptom:oil-smell",
    says: "oil smell or oil mist",
    given: { "crankcase-leak": 0.35, "charge-leak": 0.25, other: 0.08 },
    reason: "crankcase gas gets out, or charge air carries oil",
  },
  {
    observation: "symptom:ticking-cold",
    says: "a ticking when cold",
    given: { "exhaust-air": 0.5, other: 0.04 },
    reason: "exhaust pulses at a joint before the sensor",
  },
];

export const LIKELIHOOD_ROWS = [...TRIM_ROWS, ...STORY_ROWS];

/** P(smoke is seen at its own joint | this joint leaks and the fill reaches it). */
const SMOKE_SHOWS = 0.88;
/** P(smoke is seen at a joint that is not the cause): a second leak or a harmless weep. */
const SMOKE_ELSEWHERE = 0.015;
const LOOK_SHOWS = 0.35;
const LOOK_ELSEWHERE = 0.03;

const INSIDE: Partial<Record<Trait, number>> = { "inside-leak": 0.7, "crankcase-leak": 0.15, "purge-leak": 0.25 };
const OUTSIDE_TRAITS: readonly Trait[] = [
  "manifold-leak",
  "branch-leak",
  "booster-leak",
  "crankcase-leak",
  "duct-leak",
  "charge-leak",
];

export interface Likelihood {
  readonly value: number;
  readonly says: string;
  readonly reason: string;
}

/**
 * P(observation | cause) with its reason; undefined for an observation no table knows.
 * @param reached joints the smoke run put to the test, for smoke observations.
 */
export function likelihood(observation: string, cause: Cause, reached: readonly string[] | undefined): Likelihood | undefined {
  const [kind, place] = observation.split(":");
  if (kind === "smoke-at" && place) {
    const own = cause.joint === place;
    return {
      value: own ? SMOKE_SHOWS : SMOKE_ELSEWHERE,
      says: "smoke was seen at a joint",
      reason: own ? "smoke came out right there" : "smoke came out somewhere else",
    };
  }
  if (kind === "look-found" && place) {
    const own = cause.joint === place;
    return {
      value: own ? LOOK_SHOWS : LOOK_ELSEWHERE,
      says: "found by eye and hand",
      reason: own ? "the eye found this place" : "the eye found another place",
    };
  }
  if (kind === "look-clean") {
    return {
      value: cause.joint ? 1 - LOOK_SHOWS : 0.9,
      says: "nothing found by eye",
      reason: "about one leak in three shows to the eye",
    };
  }
  if (kind === "smoke-none-outside") {
    const tested = cause.joint !== undefined && (reached?.includes(cause.joint) ?? false) && OUTSIDE_TRAITS.includes(cause.trait);
    return {
      value: tested ? 1 - SMOKE_SHOWS : 0.9,
      says: "smoke inside and none outside",
      reason: tested ? "smoke was there and did not come out" : "this run could not show it",
    };
  }
  if (kind === "smoke-inside-path") {
    return {
      value: INSIDE[cause.trait] ?? 0.05,
      says: "ball high with no smoke outside",
      reason: "something passes the smoke inside",
    };
  }
  const bankLean = /^lean-fades-bank-([12])$/.exec(observation);
  if (bankLean) {
    const base = TRIM_ROWS[0]?.given;
    const trait = base?.[cause.trait] ?? base?.other ?? 0.02;
    const own = cause.bank === undefined ? 0.25 : cause.bank === Number(bankLean[1]) ? 0.95 : 0.02;
    return {
      value: trait * own,
      says: `lean at idle on bank ${bankLean[1]} only`,
      reason: "what feeds one bank only shows on that bank",
    };
  }
  const row = LIKELIHOOD_ROWS.find((r) => r.observation === observation);
  if (!row) return undefined;
  return { value: row.given[cause.trait] ?? row.given.other, says: row.says, reason: row.reason };
}
