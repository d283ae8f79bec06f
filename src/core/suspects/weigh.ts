import type { Cause } from "../faults";
import { likelihood } from "./likelihoods";
import { priorOdds, type Weighted } from "./priors";

/** An observation with where it comes from. */
export interface Evidence {
  readonly observation: string;
  /** Entry it was read from */
  readonly entry: string;
  /** Joints the check put to the test */
  readonly tested?: readonly string[];
}

export interface Contribution {
  readonly entry: string;
  readonly observation: string;
  /** Factor on the odds against the average suspect: above 1 speaks for, below 1 against */
  readonly factor: number;
  /** An observation, and why it weighs so */
  readonly says: string;
  readonly reason: string;
}

export interface Suspect {
  readonly cause: Cause;
  /** Probability among the causes listed, 0…1 */
  readonly odds: number;
  readonly because: readonly Contribution[];
}

/**
 * Likelihoods are stated cautiously: on simulated cars odds come true as often as they say where each counts by this power
 * (`docs/judgement.md`).
 */
const SHARPER = 1.4;

/** Why a shop's own jobs weigh as they do. */
const LEARNED = "the shop's own proved jobs, counted over the trade's weights";

/** What is stored or told says what was, not what is: a car with nothing wrong any more comes with it as often as any other. */
const TOLD = /^(code|symptom):/;

/**
 * Weighs every cause: prior × likelihood of each observation, normalised (Bayes; log-odds add).
 * One cause is taken to explain the evidence at hand; after a confirmed repair explained evidence is left out and what
 * stays is weighed anew, so a second fault shows. Observations no table knows change nothing.
 */
export function weighSuspects(causes: readonly Weighted[], evidence: readonly Evidence[]): Suspect[] {
  let weights = priorOdds(causes);
  const because: Contribution[][] = causes.map(({ learned }) =>
    learned
      ? [{ entry: "experience", observation: "experience", factor: learned.factor, says: learned.says, reason: LEARNED }]
      : [],
  );
  const said = new Repeats();
  // Of what is told the suspects that are faults take their share first: so nothing hangs on the order of the evidence.
  const isTold = ({ observation }: Evidence) => TOLD.test(observation);
  for (const one of [...evidence.filter(isTold), ...evidence.filter((e) => !isTold(e))]) {
    const { observation, entry, tested } = one;
    const given = causes.map((cause) => likelihood(observation, cause, tested));
    if (given.some((v) => v === undefined)) continue;
    const values = given.map((v, i) =>
      isTold(one) && causes[i]?.trait === "healthy"
        ? undefined
        : v && { ...v, value: v.value ** (SHARPER / (1 + said.of(causes[i] as Cause, one))) },
    );
    said.add(one);
    const known = weights.reduce((sum, w, i) => sum + (values[i] ? w : 0), 0);
    const mean = weights.reduce((sum, w, i) => sum + w * (values[i]?.value ?? 0), 0) / known;
    if (!(mean > 0)) continue;
    const factors = values.map((value) => (value ? value.value / mean : 1));
    for (const [i, value] of values.entries()) {
      if (value) because[i]?.push({ entry, observation, factor: factors[i] as number, says: value.says, reason: value.reason });
    }
    weights = weights.map((w, i) => w * (factors[i] as number));
  }
  return ranked(
    causes.map((cause, i) => ({
      cause,
      odds: weights[i] as number,
      because: (because[i] as Contribution[]).sort((a, b) => strength(b.factor) - strength(a.factor)),
    })),
  );
}

/** The likeliest first. Equal odds differ in their last digits by the order of the evidence: the name decides then. */
const ranked = (suspects: Suspect[]) =>
  suspects.sort((a, b) => Math.round(1e9 * (b.odds - a.odds)) || a.cause.id.localeCompare(b.cause.id));

/** How much a factor moves the odds, either way. */
const strength = (factor: number) => Math.max(factor, 1 / factor);

/** A factor below this speaks against a cause, one above its inverse for another. */
const AGAINST = 1 / 3;
/** Weight of a second cause that a check named and the first does not explain. */
const SECOND = 0.4;

/**
 * Weighs the suspects for two faults at a time where it takes two: what a check showed and the first suspect does not
 * explain is weighed by itself among the others, so that one certain cause does not crowd out what another check named.
 * @param fromChecks whether a piece of evidence is a check's; story and codes name no second fault by themselves.
 */
export function weighTogether(
  causes: readonly Weighted[],
  evidence: readonly Evidence[],
  fromChecks: (e: Evidence) => boolean,
): Suspect[] {
  const first = weighSuspects(causes, evidence);
  const [top] = first;
  if (!top) return first;
  const factorOf = (suspect: Suspect, e: Evidence) =>
    suspect.because.find((b) => b.entry === e.entry && b.observation === e.observation)?.factor ?? 1;
  const unexplained = evidence.filter(
    (e) => fromChecks(e) && factorOf(top, e) < AGAINST && first.some((s) => factorOf(s, e) > 1 / AGAINST),
  );
  if (unexplained.length === 0) return first;
  const rest = weighSuspects(
    causes.filter((c) => c.id !== top.cause.id),
    unexplained,
  );
  const second = new Map(rest.map((s) => [s.cause.id, s.odds]));
  return ranked(first.map((s) => ({ ...s, odds: (1 - SECOND) * s.odds + SECOND * (second.get(s.cause.id) ?? 0) })));
}

/**
 * How often the same was said of a cause before: a leak that hid from one smoke run hides from the next as well, so the
 * second of a kind counts by its square root, the third by its cube root. Readings of other places are their own.
 */
class Repeats {
  private readonly everywhere = new Map<string, number>();
  private readonly atJoint = new Map<string, number>();

  private readonly key = (observation: string, joint: string) => `${observation} ${joint}`;

  add({ observation, tested }: Evidence): void {
    if (!tested) this.everywhere.set(observation, (this.everywhere.get(observation) ?? 0) + 1);
    for (const joint of new Set(tested)) {
      const key = this.key(observation, joint);
      this.atJoint.set(key, (this.atJoint.get(key) ?? 0) + 1);
    }
  }

  of({ joint }: Cause, { observation, tested }: Evidence): number {
    if (tested && !(joint !== undefined && tested.includes(joint))) return 0;
    return (this.everywhere.get(observation) ?? 0) + (joint ? (this.atJoint.get(this.key(observation, joint)) ?? 0) : 0);
  }
}

/** "×6 for" / "×4 against" / "hardly counts", for a contribution. */
export function weightInWords(factor: number): string {
  if (factor > 0.8 && factor < 1.25) return "hardly counts";
  const times = factor >= 1 ? factor : 1 / factor;
  return `×${times >= 10 ? Math.round(times) : times.toFixed(1)} ${factor >= 1 ? "for" : "against"}`;
}
