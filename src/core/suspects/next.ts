import { type Candidate, CHECK_IDS, CHECKS, type CheckContext, type CheckId, jointName } from "../checks";
import { type Cause, CONFIRM_MINUTES, type Family } from "../faults";
import { inSentence } from "../sentence";
import type { Layout } from "../vehicle";
import { isAt, likelihood } from "./likelihoods";
import type { Suspect } from "./weigh";

export interface NextCheck {
  readonly check: CheckId;
  /** The place it is done at, where the check has one: smoke entry, part, branch */
  readonly place?: string;
  readonly name: string;
  /** Expected information, bits */
  readonly bits: number;
  readonly minutes: number;
  /** Bits per minute after the penalty for dismantling and risk */
  readonly score: number;
  readonly why: string;
  /** Why it beats the next in the list; on the first only */
  readonly beats?: string;
  /** Obstacle that has to change before it can be done; such checks come last */
  readonly notNow?: string;
}

/** A check whose observation already counts. */
export interface Done {
  readonly check: CheckId;
  readonly place?: string;
  /** Joints it put to the test */
  readonly tested?: readonly string[];
}

/** Checks that can be met now. */
export interface Now {
  readonly engine?: EngineNow;
  /** Names of commands that still stand */
  readonly standing: readonly string[];
  /** The last survey says that it runs rich */
  readonly rich?: boolean;
}
export const ENGINE_NOW = ["cold", "warm", "hot-exhaust", "does-not-run"] as const;
export type EngineNow = (typeof ENGINE_NOW)[number];

/** Warming the engine up, and letting its exhaust cool until smoke may go in, minutes. */
const WARM_UP = 8;
const COOL_DOWN = 15;
/** Putting one tool away and fetching the next, minutes: many small checks are not free. */
const CHANGEOVER = 6;
/** Factor on what the shop's house method begins with, on a lean code. */
const HOUSE_FIRST = 1.2;
/** Factor on what costs nothing but a reading: live data come before what is taken apart. */
const FREE = 1.15;
/** Information that is left to learn from doing the same again. */
const REPEATED = 0.08;
/** A way to do a check, with the kind of check that it is. */
export interface PossibleCheck extends Candidate {
  readonly check: CheckId;
}

/** Every check that this vehicle allows, of the families a job is weighed over. */
export const candidatesOf = (context: CheckContext, families: readonly Family[] = ["engine"]): PossibleCheck[] =>
  CHECK_IDS.filter((check) => (CHECKS[check].families ?? ["engine"]).some((f) => families.includes(f))).flatMap((check) =>
    CHECKS[check].candidates(context, families).map((c) => ({ ...c, check })),
  );

/** Outcome probabilities of a candidate for each cause, each row adding up to 1; made once for a vehicle. */
interface Model {
  readonly candidates: readonly PossibleCheck[];
  readonly causes: readonly string[];
  readonly rows: readonly (readonly Float64Array[])[];
}
const models = new WeakMap<Layout, { key: string; model: Model }>();

function modelOf(causes: readonly Cause[], context: CheckContext, families: readonly Family[]): Model {
  const known = models.get(context.layout);
  const key = JSON.stringify([context.house, context.vehicle.crankcaseBand !== undefined, families, causes.map((c) => c.id)]);
  if (known?.key === key) return known.model;
  const candidates = candidatesOf(context, families);
  const rows = candidates.map((c) =>
    causes.map((cause) => {
      const raw = Float64Array.from(c.outcomes, (o) => likelihood(o, cause, c.tested)?.value ?? 0);
      const total = raw.reduce((a, b) => a + b, 0) || 1;
      return raw.map((v) => v / total);
    }),
  );
  const model = { candidates, causes: causes.map((c) => c.id), rows };
  models.set(context.layout, { key, model });
  return model;
}

/**
 * Ranks the checks by expected information per minute, less penalties; those whose conditions cannot be met now last.
 * Information is the mutual information of cause and outcome (Shannon 1948) under the same tables that weigh suspects.
 * @param done checks whose observation already counts: doing them again tells little.
 */
export function nextChecks(
  suspects: readonly Suspect[],
  context: CheckContext,
  done: readonly Done[],
  now: Now = { standing: [] },
  families: readonly Family[] = ["engine"],
): NextCheck[] {
  // Rows follow the causes in a fixed order, whatever their odds.
  const causes = suspects.map((s) => s.cause).toSorted((a, b) => (a.id < b.id ? -1 : 1));
  const model = modelOf(causes, context, families);
  const odds = new Map(suspects.map((s) => [s.cause.id, s.odds]));
  const weights = Float64Array.from(model.causes, (id) => odds.get(id) ?? 0);
  const lean = (suspects[0]?.because ?? []).some((b) => b.observation.startsWith("code:lean"));
  const list = model.candidates.map((c, k): NextCheck => {
    const repeated = done.some((d) => d.check === c.check && d.place === c.place);
    const fresh = repeated ? REPEATED : CHECKS[c.check].sweeps ? freshShare(c, suspects, done) : 1;
    const bits = information(weights, model.rows[k] as Float64Array[]) * fresh;
    const waiting = waitFor(c.check, now.engine);
    const minutes = Math.round(c.minutes + waiting);
    const free = c.free ? FREE : 1;
    const first = lean && CHECKS[c.check].locator?.includes(context.house.firstLocator) ? HOUSE_FIRST : 1;
    const notNow = hindrance(c, now, done, context);
    return {
      check: c.check,
      ...(c.place ? { place: c.place } : {}),
      name: c.name,
      bits,
      minutes,
      score: (bits / (minutes + CHANGEOVER)) * c.penalty * first * free,
      why: `${ruledOut(bits)} in about ${minutes} min: ${c.why}${waiting > 0 ? `; ${waiting} min of ${CHECKS[c.check].engine === "standing" ? "cooling down" : "warming up"} counted` : ""}${first > 1 ? "; the shop's first locator" : ""}`,
      ...(notNow ? { notNow } : {}),
    };
  });
  const ranked = list.toSorted((a, b) => Number(Boolean(a.notNow)) - Number(Boolean(b.notNow)) || b.score - a.score);
  const [best, second] = ranked;
  return best && second ? [{ ...best, beats: beats(best, second) }, ...ranked.slice(1)] : ranked;
}

/** Confirming what a check has already pointed at, minutes: cap it off, wiggle it, look right there. */
const POINTED_AT = 5;

/** Minutes to confirm a suspect by hand: little where a check named its very place. */
export function confirmMinutes({ cause, because }: Suspect): number {
  const named = because.some((b) => b.factor > 1 && isAt(cause, b.observation.slice(b.observation.indexOf(":") + 1)));
  return named ? POINTED_AT : CONFIRM_MINUTES[cause.trait];
}

/** Below these odds going straight to a suspect is guessing. */
const GUESS = 0.35;

/**
 * The suspect to confirm by hand instead of another check: a yes or no about it tells more for its time than the best
 * check does. Undefined while a check is worth more, or while it would be a guess.
 */
export function worthConfirming(suspects: readonly Suspect[], next: readonly NextCheck[]): Suspect | undefined {
  const first = suspects.find((s) => s.cause.trait !== "healthy");
  if (!first || first.odds < GUESS) return undefined;
  const p = Math.min(1 - 1e-12, first.odds);
  // Near certainty a yes is no news, and is still what ends the search.
  const bits = p >= 0.5 ? 1 : -(p * Math.log2(p) + (1 - p) * Math.log2(1 - p));
  const worth = bits / (confirmMinutes(first) + CHANGEOVER);
  return worth > (next[0]?.score ?? 0) ? first : undefined;
}

/**
 * Share of a smoke run that is new: a joint that an earlier run tested and did not show hides from the next as well,
 * so only suspicion in joints not tested yet counts in full.
 */
function freshShare(candidate: PossibleCheck, suspects: readonly Suspect[], done: readonly Done[]): number {
  const before = new Set(done.filter((d) => d.check === candidate.check).flatMap((d) => d.tested ?? []));
  if (before.size === 0) return 1;
  let all = 0;
  let fresh = 0;
  for (const { cause, odds } of suspects) {
    if (!cause.joint || !candidate.tested?.includes(cause.joint)) continue;
    all += odds;
    if (!before.has(cause.joint)) fresh += odds;
  }
  return all > 0 ? REPEATED + (1 - REPEATED) * (fresh / all) : 1;
}

/** Minutes until the engine is as a check needs it; none where nobody said how warm it is. */
export function waitFor(check: CheckId, engine: EngineNow | undefined): number {
  if (engine === "cold" && CHECKS[check].engine === "warm-running") return WARM_UP;
  return engine === "warm" && CHECKS[check].hot?.waits ? COOL_DOWN : 0;
}

/** Why a check cannot be done now; undefined when it can. */
function hindrance(candidate: PossibleCheck, now: Now, done: readonly Done[], { layout }: CheckContext): string | undefined {
  const [command] = now.standing;
  if (command) return `${command} still stands: release it first`;
  if (candidate.whenLean && now.rich) return "the engine runs rich: more fuel at a spot says nothing";
  // The cap is not touched before a run has been read with it as it was found.
  const evidence = candidate.touches?.find((id) => !done.some((d) => d.check !== candidate.check && d.tested?.includes(id)));
  if (evidence && layout.joints.some((j) => j.id === evidence))
    return `the ${inSentence(jointName(layout, evidence))} stays untouched until a run has been read with it as it is`;
  const { engine, hot } = CHECKS[candidate.check];
  if (engine !== "standing" && now.engine === "does-not-run") return "the engine does not run";
  return now.engine === "hot-exhaust" ? hot?.why : undefined;
}

/** Why the first is worth doing before the second, in numbers a technician can hold against each other. */
function beats(best: NextCheck, second: NextCheck): string {
  if (second.notNow) return `nothing else can be done now: ${inSentence(second.name)} waits, ${second.notNow}`;
  return `${ruledOut(best.bits)} in ${best.minutes} min; ${inSentence(second.name)} ${ruledOut(second.bits)} in ${second.minutes} min`;
}

/** Share of the suspicion that information rules out, 0…1: of 2^H equally likely suspects, 2^(H − bits) stay. */
export const ruledOutShare = (bits: number): number => 1 - 2 ** -Math.max(0, bits);
/** Expected information in plain words. */
export const ruledOut = (bits: number) =>
  bits < 0.07 ? "rules out little" : `rules out about ${Math.round(100 * ruledOutShare(bits))} %`;

/** Mutual information of cause and outcome, bits; each row of outcomes adds up to 1. */
function information(weights: Float64Array, rows: readonly Float64Array[]): number {
  const count = rows[0]?.length ?? 0;
  let bits = 0;
  for (let o = 0; o < count; o++) {
    let mean = 0;
    for (let i = 0; i < weights.length; i++) mean += (weights[i] as number) * ((rows[i] as Float64Array)[o] as number);
    if (!(mean > 0)) continue;
    for (let i = 0; i < weights.length; i++) {
      const p = (rows[i] as Float64Array)[o] as number;
      if (p > 0) bits += (weights[i] as number) * p * Math.log2(p / mean);
    }
  }
  return bits;
}
