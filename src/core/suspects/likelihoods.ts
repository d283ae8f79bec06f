import { CHECKS } from "../checks";
import { APART, type Cause, FAMILIES, type LikelihoodRow } from "../faults";
import { rows as tried } from "./tried";

/** Likelihoods of each observation: rows of codes and symptoms with their family, rows of a check beside its judge. */
export const LIKELIHOOD_ROWS: ReadonlyMap<string, LikelihoodRow> = new Map(
  [...Object.values(FAMILIES), ...Object.values(CHECKS), { rows: tried }].flatMap(({ rows }) => Object.entries(rows)),
);

/** The row of an observation; of one that names a place the row of its kind. */
const rowOf = (observation: string) => LIKELIHOOD_ROWS.get(observation) ?? LIKELIHOOD_ROWS.get(`${observation.split(":")[0]}:*`);

/** An observation as it is called in a sentence. */
export const observationWords = (observation: string): string => rowOf(observation)?.says ?? observation.replaceAll("-", " ");

export interface Likelihood {
  readonly value: number;
  readonly says: string;
  readonly reason: string;
}

/** Whether a place named by an observation is this cause's. */
export const isAt = (cause: Cause, place: string) => cause.joint === place || cause.id === place || cause.device === place;

/** On one bank alone: what has no bank of its own shows on both, so there it must be an unlucky runner or one exhaust. */
const onBank = (cause: Cause, bank: 1 | 2 | undefined) =>
  bank === undefined ? 1 : cause.bank === undefined ? 0.25 : cause.bank === bank ? 0.95 : 0.02;

/**
 * P(observation | cause) with its reason, from the rows; undefined for an observation no row weighs.
 * @param tested joints the check put to the test.
 */
export function likelihood(observation: string, cause: Cause, tested: readonly string[] | undefined): Likelihood | undefined {
  const row = rowOf(observation);
  if (!row) return undefined;
  const from = (given: LikelihoodRow["given"], reason: string): Likelihood => ({
    // To the engine's own readings a fault that stands apart is a sound engine, unless a row says otherwise.
    value:
      (given[cause.trait] ?? (APART.includes(cause.trait) ? given.healthy : undefined) ?? given.other) * onBank(cause, row.bank),
    says: row.says,
    reason,
  });
  const colon = observation.indexOf(":");
  const place = colon > 0 ? observation.slice(colon + 1) : "";
  if (row.own && (row.ofCause ? cause.id === place : isAt(cause, place))) return from(row.own, row.ownReason ?? row.reason);
  if (row.tested && cause.joint && tested?.some((id) => id === cause.joint || id === cause.id)) {
    return from(row.tested, row.testedReason ?? row.reason);
  }
  return from(row.given, row.reason);
}
