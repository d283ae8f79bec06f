import { AT_LARGE, CHECK_IDS, CHECKS, type CheckId, type Claim } from "../../checks";
import { inSentence } from "../../sentence";
import { type Bodies, zeroedAll } from "../entries";
import { settle } from "./obligations";
import { isAfter, type Line, linesOf } from "./order";
import type { Obligation, ProofFacts } from "./requirement";

/** Resets an ECU may be told of a part, and whether it may by now. */
export interface ResetState {
  readonly check: CheckId;
  readonly name: string;
  /** Why it must not be told yet; undefined where it may */
  readonly locked?: string;
  /** When it was told last, ISO 8601, and what it showed since */
  readonly told?: { readonly at: string; readonly learned: string };
  /** Why what stays in the part, a filter's ash, must not be set to zero; undefined where it may, or where nothing stays */
  readonly stays?: string;
  /** It was all the same */
  readonly zeroedAll?: true;
}

/**
 * Resets allowed on the ECU of this car: that a part is as new, only once its readings are within limits since the last work on
 * it, or a new one is in. Told too early, its model is wrong, and a filter can overheat.
 */
export function resetsOf(lines: readonly Line[], facts: ProofFacts): ResetState[] {
  const of = <K extends keyof Bodies>(kind: K) => linesOf(lines, kind);
  const undone = new Set(of("undone").map((u) => u.body.repair));
  return CHECK_IDS.flatMap((check): ResetState[] => {
    const { resets, name: called } = CHECKS[check];
    const at = resets?.places.filter((place) => facts.joints.has(place)) ?? [];
    if (!resets || at.length === 0) return [];
    const claim: Claim = { ...resets.atom, says: "open", words: inSentence(called), rests: [...resets.places, AT_LARGE] };
    const [owed] = settle([{ claim, by: { check }, bads: [] }], facts);
    const work = of("repair").filter((r) => r.body.places?.some((place) => resets.places.includes(place)) && !undone.has(r.id));
    const last = work.at(-1);
    const renewed = last?.body.method === "renewed" && last.body.parts.length > 0 && last.body.permanence === "permanent";
    const told = of("reset").findLast((r) => r.body.check === check);
    const clean = last?.body.method === "cleaned" && (last.body.cleanProof ?? "none") !== "none";
    const stays =
      resets.stays === undefined || renewed || clean
        ? undefined
        : `${resets.stays} goes with a new part alone, or with one cleaned off the car and weighed or measured: regeneration burns soot only`;
    const locked =
      renewed && facts.touches.every((t) => t.began.id !== last.id || t.ended)
        ? undefined
        : owed?.missing === undefined
          ? undefined
          : lockedBy(owed, inSentence(called), last !== undefined);
    // What was told once holds for what was done before it; work since asks anew.
    const spent = told && last && !isAfter(told, last) ? undefined : told;
    return [
      {
        check,
        name: resets.name,
        ...(locked ? { locked } : {}),
        ...(stays ? { stays } : {}),
        ...(stays && spent && zeroedAll(spent.body) ? { zeroedAll: true as const } : {}),
        ...(spent ? { told: { at: new Date(spent.own.from).toISOString(), learned: spent.body.learned } } : {}),
      },
    ];
  });
}

function lockedBy({ missing, because }: Pick<Obligation, "missing" | "because">, called: string, worked: boolean): string {
  const since = worked ? " since the last work on it" : "";
  if (missing === "still-bad") return `the ${called} is out of its limits${since}: told now, the ECU would let it overheat`;
  if (missing === "never") return `the ${called} has not been read within its limits${since}: read it first`;
  return `the ${called} was read, and it does not count${since}${because ? ` (${because})` : ""}: read it again`;
}
