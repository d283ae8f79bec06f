import { type Candidate, CHECK_IDS, CHECKS, type CheckContext, type CheckId, jointName } from "../checks";
import { type Cause, CONFIRM_MINUTES, type Family } from "../faults";
import { inSentence } from "../sentence";
import type { Layout } from "../vehicle";
import { type Belief, POINTED_AT, Search, type Way } from "./expected";
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
  /** Expected minutes from now to a confirmed cause, with this check first */
  readonly toCause: number;
  readonly why: string;
  /** Why it comes before the next in the list; on the first only */
  readonly beats?: string;
  /** Obstacle that has to change before it can be done; such checks come last */
  readonly notNow?: string;
}

/** What to do next. */
export interface Advice {
  /** The soonest to a confirmed cause first */
  readonly checks: readonly NextCheck[];
  /** The suspect to confirm by hand instead, and the expected minutes to a confirmed cause with that first */
  readonly byHand?: { readonly suspect: Suspect; readonly toCause: number };
}

/** A check that was done. */
export interface Done {
  readonly check: CheckId;
  readonly place?: string;
  /** Joints it put to the test */
  readonly tested?: readonly string[];
  /** It proved nothing */
  readonly void?: true;
}

/** Checks that can be met now. */
export interface Now {
  readonly engine?: EngineNow;
  /** Names of commands that still stand */
  readonly standing: readonly string[];
  /** The last survey says that it runs rich */
  readonly rich?: boolean;
  /** Causes that were tried by hand and not confirmed since the last check that told anything: not tried again at once */
  readonly tried?: readonly string[];
}
export const ENGINE_NOW = ["cold", "warm", "hot-exhaust", "does-not-run"] as const;
export type EngineNow = (typeof ENGINE_NOW)[number];

/** Warming the engine up, and letting its exhaust cool until smoke may go in, minutes. */
const WARM_UP = 8;
const COOL_DOWN = 15;
/** Getting to a check and writing its reading down, minutes: with its tool in hand already, and with one put away and the next fetched. */
const TOOL_IN_HAND = 3;
const CHANGEOVER = 6;
/** Information that is left to learn from doing the same again. */
const REPEATED = 0.08;
/** A check is void now and then; one that was void is so again more often, as may be all that is done with the same tool. */
const VOID_AGAIN = 1.2;
/** Below these odds going straight to a suspect is guessing. */
const GUESS = 0.1;

/** A way to do a check, with the kind of check that it is. */
export interface PossibleCheck extends Candidate {
  readonly check: CheckId;
}

/** Every check that this vehicle allows, of the families a job is weighed over. */
export const candidatesOf = (context: CheckContext, families: readonly Family[] = ["engine"]): PossibleCheck[] =>
  CHECK_IDS.filter((check) => (CHECKS[check].families ?? ["engine"]).some((f) => families.includes(f))).flatMap((check) =>
    CHECKS[check].candidates(context, families).map((c) => ({ ...c, check })),
  );

/** The place that an observation names; undefined for one that names none. */
const placeNamed = (observation: string): string | undefined => {
  const colon = observation.indexOf(":");
  return colon < 0 ? undefined : observation.slice(colon + 1);
};

/** Outcomes of every candidate for each cause; made once for a vehicle. */
interface Model {
  readonly candidates: readonly PossibleCheck[];
  readonly causes: readonly string[];
  readonly ways: readonly Pick<Way, "outcomes" | "names">[];
}
const models = new WeakMap<Layout, { key: string; model: Model }>();

function modelOf(causes: readonly Cause[], context: CheckContext, families: readonly Family[]): Model {
  const known = models.get(context.layout);
  const key = JSON.stringify([context.house, context.vehicle.crankcaseBand !== undefined, families, causes.map((c) => c.id)]);
  if (known?.key === key) return known.model;
  const candidates = candidatesOf(context, families);
  const ways = candidates.map(({ outcomes, tested }) => {
    const columns = causes.map((cause) => {
      const raw = outcomes.map((o) => likelihood(o, cause, tested)?.value ?? 0);
      const total = raw.reduce((a, b) => a + b, 0) || 1;
      return raw.map((v) => v / total);
    });
    return {
      outcomes: outcomes.map((_, o) => Float64Array.from(columns, (column) => column[o] as number)),
      names: outcomes.map((outcome) => {
        const place = placeNamed(outcome);
        return place === undefined ? [] : causes.flatMap((cause, i) => (isAt(cause, place) ? [i] : []));
      }),
    };
  });
  const model = { candidates, causes: causes.map((c) => c.id), ways };
  models.set(context.layout, { key, model });
  return model;
}

const advised = new WeakMap<Layout, { key: string; advice: Advice }>();

/** What to do next, as `adviceOf` reckons it; for the same suspects and the same checks it is reckoned once. */
export function nextSteps(
  suspects: readonly Suspect[],
  context: CheckContext,
  done: readonly Done[],
  now: Now = { standing: [] },
  families: readonly Family[] = ["engine"],
): Advice {
  const known = advised.get(context.layout);
  const { house, vehicle } = context;
  const key = JSON.stringify([
    suspects.map((s) => [s.cause.id, s.odds, confirmMinutes(s)]),
    done,
    now,
    families,
    house,
    vehicle.crankcaseBand !== undefined,
  ]);
  if (known?.key === key) return known.advice;
  const advice = adviceOf(suspects, context, done, now, families);
  advised.set(context.layout, { key, advice });
  return advice;
}

/**
 * What to do next: the checks by expected minutes to a confirmed cause with each of them first, two steps ahead; those whose
 * conditions cannot be met now last. And the suspect to confirm by hand instead, where that is sooner than any check.
 * @param done checks in the order they were done.
 */
function adviceOf(
  suspects: readonly Suspect[],
  context: CheckContext,
  done: readonly Done[],
  now: Now,
  families: readonly Family[],
): Advice {
  // Rows follow the causes in a fixed order, whatever their odds.
  const ordered = suspects.toSorted((a, b) => (a.cause.id < b.cause.id ? -1 : 1));
  const causes = ordered.map((s) => s.cause);
  const model = modelOf(causes, context, families);
  const belief: Belief = {
    weights: Float64Array.from(ordered, (s) => s.odds),
    confirm: Float64Array.from(ordered, (s) => Math.max(1, confirmMinutes(s))),
  };
  const tool = CHECKS[done.at(-1)?.check ?? "look"].tool;
  const lean = suspects.some((s) => s.because.some((b) => b.observation.startsWith("code:lean")));
  const list = model.candidates.map((candidate, k) => {
    const { check, minutes, penalty } = candidate;
    const waiting = waitFor(check, now.engine);
    const houses = lean && CHECKS[check].locator?.includes(context.house.firstLocator);
    const handy = houses || CHECKS[check].tool === tool;
    const way: Way = {
      ...(model.ways[k] as Model["ways"][number]),
      minutes: minutes / penalty + waiting + (handy ? TOOL_IN_HAND : CHANGEOVER),
      fresh: freshShare(candidate, suspects, done),
    };
    return { candidate, way, waiting, houses, notNow: hindrance(candidate, now, done, context) };
  });
  const search = new Search(
    causes.findIndex((c) => c.trait === "healthy"),
    belief,
  );
  const possible = list.filter((one) => !one.notNow);
  const ways = possible.map((one) => one.way);
  const ahead = search.twoAhead(ways);
  const soonest = new Map(possible.map((one, i) => [one.candidate, ahead[i] as number]));
  const without = search.byHand();
  const places = 2 ** entropy(belief.weights);
  // Where no check saves the minutes it takes, what tells the most for its minutes comes first.
  const saves = Math.min(...ahead) < without;
  const ranked = list
    .map(({ candidate: c, way, waiting, houses, notNow }): NextCheck & { readonly rank: number } => {
      const bits = information(belief.weights, way.outcomes) * way.fresh;
      const minutes = Math.round(c.minutes + waiting);
      const why = [
        `${ruledOut(bits)} in about ${minutes} min: ${c.why}`,
        waiting > 0 ? `${waiting} min of ${CHECKS[c.check].engine === "standing" ? "cooling down" : "warming up"} counted` : "",
        houses ? "the shop's first locator" : "",
      ];
      return {
        check: c.check,
        ...(c.place ? { place: c.place } : {}),
        name: c.name,
        bits,
        minutes,
        toCause: soonest.get(c) ?? without,
        rank: saves ? (soonest.get(c) ?? without) : -bits / way.minutes,
        why: why.filter(Boolean).join("; "),
        ...(notNow ? { notNow } : {}),
      };
    })
    .toSorted((a, b) => Number(Boolean(a.notNow)) - Number(Boolean(b.notNow)) || a.rank - b.rank)
    .map(({ rank: _, ...next }): NextCheck => next);
  const [best, second] = ranked;
  const just = ordered.map((s) => now.tried?.includes(s.cause.id) === true);
  const hand = search.tryNow(ways, (i) => !just[i]);
  const suspect = hand && ordered[hand.suspect];
  const worth = suspect && suspect.odds >= GUESS && hand.minutes <= Math.min(without, ...ahead);
  return {
    checks:
      best && second
        ? [{ ...best, beats: beats(best, second, { places, saves, byHand: Boolean(worth) }) }, ...ranked.slice(1)]
        : ranked,
    ...(worth ? { byHand: { suspect, toCause: hand.minutes } } : {}),
  };
}

/** Minutes to confirm a suspect by hand: little where a check named its very place. */
export function confirmMinutes({ cause, because }: Suspect): number {
  const named = because.some((b) => {
    const place = b.factor > 1 ? placeNamed(b.observation) : undefined;
    return place !== undefined && isAt(cause, place);
  });
  return named ? POINTED_AT : CONFIRM_MINUTES[cause.trait];
}

/**
 * Share of a check's information that is new. The same again tells little, one that was void may be so again; of a smoke run, a
 * joint that an earlier run tested and did not show hides from the next as well, so only suspicion in joints not tested counts.
 */
function freshShare(candidate: PossibleCheck, suspects: readonly Suspect[], done: readonly Done[]): number {
  if (done.some((d) => !d.void && d.check === candidate.check && d.place === candidate.place)) return REPEATED;
  const { tool } = CHECKS[candidate.check];
  const withTool = done.filter((d) => CHECKS[d.check].tool === tool);
  const voids = withTool.slice(withTool.findLastIndex((d) => !d.void) + 1).length;
  const holds = voids === 0 ? 1 : 1 / (VOID_AGAIN + voids);
  if (!CHECKS[candidate.check].sweeps) return holds;
  const before = new Set(done.filter((d) => d.check === candidate.check && !d.void).flatMap((d) => d.tested ?? []));
  if (before.size === 0) return holds;
  let all = 0;
  let fresh = 0;
  for (const { cause, odds } of suspects) {
    if (!cause.joint || !candidate.tested?.includes(cause.joint)) continue;
    all += odds;
    if (!before.has(cause.joint)) fresh += odds;
  }
  return holds * (all > 0 ? REPEATED + (1 - REPEATED) * (fresh / all) : 1);
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
  const evidence = candidate.touches?.find(
    (id) => !done.some((d) => !d.void && d.check !== candidate.check && d.tested?.includes(id)),
  );
  if (evidence && layout.joints.some((j) => j.id === evidence))
    return `the ${inSentence(jointName(layout, evidence))} stays untouched until a run has been read with it as it is`;
  const { engine, hot } = CHECKS[candidate.check];
  if (engine !== "standing" && now.engine === "does-not-run") return "the engine does not run";
  return now.engine === "hot-exhaust" ? hot?.why : undefined;
}

/** Why the first comes before the second, in minutes and places that a technician can hold against each other. */
function beats(
  best: NextCheck,
  second: NextCheck,
  { places, saves, byHand }: { readonly places: number; readonly saves: boolean; readonly byHand: boolean },
): string {
  if (second.notNow) return `nothing else can be done now: ${inSentence(second.name)} waits, ${second.notNow}`;
  const most = `this one tells the most for its minutes, then ${inSentence(second.name)}`;
  if (!saves && byHand)
    return `a confirmed cause in about ${Math.round(best.toCause)} min with it first, and sooner by hand; of the checks ${most}`;
  if (!saves) return `no check saves as many minutes as it takes by now; ${most}`;
  const [now, left] = [places, places * 2 ** -best.bits].map((n) => Math.max(1, Math.round(n)));
  return `a confirmed cause in about ${Math.round(best.toCause)} min, and after this check about ${left} of ${now} likely ${now === 1 ? "place" : "places"} left; second best, ${inSentence(second.name)}: ${Math.round(second.toCause)} min`;
}

/** Share of the suspicion that information rules out, 0…1: of 2^H equally likely suspects, 2^(H − bits) stay. */
export const ruledOutShare = (bits: number): number => 1 - 2 ** -Math.max(0, bits);
/** Expected information in plain words. */
export const ruledOut = (bits: number) =>
  bits < 0.07 ? "rules out little" : `rules out about ${Math.round(100 * ruledOutShare(bits))} %`;

/** Entropy of weights that add up to 1, bits: 2 to this power is how many equally likely suspects they are worth. */
function entropy(weights: Float64Array): number {
  return weights.reduce((bits, w) => (w > 0 ? bits - w * Math.log2(w) : bits), 0);
}

/** Mutual information of cause and outcome, bits (Shannon 1948); a cause's probabilities add up to 1 over the outcomes. */
function information(weights: Float64Array, outcomes: readonly Float64Array[]): number {
  let bits = 0;
  for (const outcome of outcomes) {
    let mean = 0;
    for (let i = 0; i < weights.length; i++) mean += (weights[i] as number) * (outcome[i] as number);
    if (!(mean > 0)) continue;
    for (let i = 0; i < weights.length; i++) {
      const p = outcome[i] as number;
      if (p > 0) bits += (weights[i] as number) * p * Math.log2(p / mean);
    }
  }
  return bits;
}
