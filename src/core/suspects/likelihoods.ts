import { type Cause, VAPOUR_TRAITS } from "./causes";
import { EVAP_ROWS } from "./tables/evap";
import type { LikelihoodRow } from "./tables/row";
import { RUNNING_ROWS } from "./tables/running";
import { STANDING_ROWS } from "./tables/standing";
import { STORY_ROWS } from "./tables/story";
import { TRIM_ROWS } from "./tables/trims";

export const LIKELIHOOD_ROWS: readonly LikelihoodRow[] = [
  ...STORY_ROWS,
  ...TRIM_ROWS,
  ...RUNNING_ROWS,
  ...STANDING_ROWS,
  ...EVAP_ROWS,
];

const BY_OBSERVATION = new Map(LIKELIHOOD_ROWS.map((row) => [row.observation, row]));

/** An observation as it is called in a sentence. */
export const observationWords = (observation: string): string =>
  BY_OBSERVATION.get(observation)?.says ??
  BY_OBSERVATION.get(`${observation.split(":")[0]}:*`)?.says ??
  observation.replaceAll("-", " ");

export interface Likelihood {
  readonly value: number;
  readonly says: string;
  readonly reason: string;
}

/** Whether a place named by an observation is this cause's. */
export const isAt = (cause: Cause, place: string) => cause.joint === place || cause.id === place || cause.device === place;

/**
 * P(observation | cause) with its reason, from the tables; undefined for an observation no table knows.
 * @param tested joints the check put to the test.
 */
export function likelihood(observation: string, cause: Cause, tested: readonly string[] | undefined): Likelihood | undefined {
  const bankLean = /^lean-fades-bank-([12])$/.exec(observation);
  if (bankLean) {
    const base = likelihood("lean-fades-with-flow", cause, tested)?.value ?? 0.02;
    // What has no bank of its own shows on both: on one alone it must be an exhaust or an unlucky runner.
    const own = cause.bank === undefined ? 0.25 : cause.bank === Number(bankLean[1]) ? 0.95 : 0.02;
    return {
      value: base * own,
      says: `lean at idle on bank ${bankLean[1]} only`,
      reason: "what feeds one bank only shows on that bank",
    };
  }
  const colon = observation.indexOf(":");
  const place = colon > 0 ? observation.slice(colon + 1) : "";
  const row = BY_OBSERVATION.get(observation) ?? BY_OBSERVATION.get(`${observation.slice(0, colon)}:*`);
  if (!row) return undefined;
  const from = (given: LikelihoodRow["given"], reason: string): Likelihood => ({
    // To the engine's own readings a fault of the vapour system is a sound engine, unless a row says otherwise.
    value: given[cause.trait] ?? (VAPOUR_TRAITS.includes(cause.trait) ? given.healthy : undefined) ?? given.other,
    says: row.says,
    reason,
  });
  if (row.own && isAt(cause, place)) return from(row.own, row.ownReason ?? row.reason);
  if (row.tested && cause.joint && tested?.some((id) => id === cause.joint || id === cause.id)) {
    return from(row.tested, row.testedReason ?? row.reason);
  }
  return from(row.given, row.reason);
}
