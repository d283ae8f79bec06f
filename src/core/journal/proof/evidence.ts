import { CHECKS, type CheckContext, type CheckId, type Claim, type Verdict } from "../../checks";
import { simulatedDevice } from "../../checks/fields";
import type { Bodies } from "../entries";
import { judged, verdictKey } from "../judged";
import { isImported } from "../origin";
import type { Line } from "./order";
import type { Taken } from "./touches";

type CheckLine = Line & { readonly body: Bodies["check"] };

/** A check's record as evidence: what it says of each question it put. */
export interface Evidence extends Taken {
  readonly check: CheckId;
  /** The part it is about, where each part owes its own proof */
  readonly part: string | undefined;
  readonly verdict: Verdict;
  readonly claims: readonly Claim[];
  /** Stands as it was last written, in this shop; former wordings, lines taken out and what another shop measured still ask, and answer nothing */
  readonly stands: boolean;
}

const claimsOfRecord = new WeakMap<object, { readonly key: string; readonly claims: readonly Claim[] }>();

function claimsOf({ check, record }: Bodies["check"], verdict: Verdict, context: CheckContext, key: string): readonly Claim[] {
  const known = claimsOfRecord.get(record);
  if (known?.key === key) return known.claims;
  let claims: readonly Claim[];
  try {
    claims = CHECKS[check].claims(record, verdict, context);
  } catch {
    // A record that cannot be judged on this vehicle asks nothing on it.
    claims = [];
  }
  claimsOfRecord.set(record, { key, claims });
  return claims;
}

/** Joints that a record says its own setup takes off, plugs or commands. */
export function setupOf({ check, record }: Bodies["check"]): Set<string> {
  const kind = CHECKS[check];
  return new Set([...(kind.setup?.(record) ?? []), ...(kind.ownCommands?.(record) ?? [])]);
}

/** Read on the bench, or from a simulated device: it puts no question to this car, whatever was seen. */
const elsewhere = ({ check, record }: Bodies["check"], { practice }: CheckContext): boolean =>
  (CHECKS[check].onBench?.(record) ?? false) || (!practice && simulatedDevice(record) !== undefined);

/**
 * Everything that checks say: as they stand, and beside it what former wordings, lines taken out, and the vehicle as it
 * was described when they were taken make of them. Those only ask: taking a failing record out takes no question out.
 * @param verdictOf the verdict that counts of a line as it stands.
 */
export function evidenceOf(
  lines: readonly Line[],
  retracted: readonly Line[],
  context: CheckContext,
  verdictOf: (line: CheckLine) => Verdict,
  contextAt: (line: Line) => CheckContext | undefined,
): Evidence[] {
  const evidence = (line: CheckLine, body: Bodies["check"], verdict: Verdict, within: CheckContext, stands: boolean) => {
    const kind = CHECKS[body.check];
    const place = kind.byPart && kind.place?.(body.record);
    return {
      line,
      check: body.check,
      part: place || undefined,
      verdict,
      setup: setupOf(body),
      claims: elsewhere(body, within) ? [] : claimsOf(body, verdict, within, `${verdictKey(within)} ${verdict.outcome}`),
      stands,
    };
  };
  const isCheck = (line: Line): line is CheckLine => line.kind === "check";
  const all: Evidence[] = [];
  for (const line of lines.filter(isCheck)) {
    all.push(evidence(line, line.body, verdictOf(line), context, !isImported(line)));
    const then = contextAt(line);
    if (then && verdictKey(then) !== verdictKey(context))
      all.push(evidence(line, line.body, judged(line.body, then), then, false));
  }
  for (const line of [...lines, ...retracted].filter(isCheck)) {
    for (const former of line.former as readonly Bodies["check"][])
      all.push(evidence(line, former, judged(former, context), context, false));
  }
  return all;
}
