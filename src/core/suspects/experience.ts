import type { Cause } from "../faults";
import { tableShares, type Weighted } from "./priors";

/** A fault that the shop has found, repaired and proved on a real car, and that has not come back. */
export interface Proved {
  /** Of which engine, as `engineOf` names it; empty where that is not known */
  readonly engine: string;
  readonly families: readonly string[];
  /** Joints or causes that were found */
  readonly found: readonly string[];
  /** Years the car was old; left out where its model year is not known */
  readonly age?: number;
}

/** How often each cause was found in some of the shop's jobs. */
export interface Tally {
  readonly jobs: number;
  readonly found: Readonly<Record<string, number>>;
  /** Which jobs those are, as a sentence goes on: "of this engine here" */
  readonly of: string;
}

/** An engine of which the shop's own jobs move the suspects, and how. */
export interface LearnedEngine {
  readonly engine: string;
  readonly jobs: number;
  /** Causes that were found, the one that was moved most first */
  readonly moved: readonly { readonly name: string; readonly factor: number; readonly says: string }[];
}

/** The newest jobs that are looked at: what a shop met years ago says little of today's cars. */
export const LATEST = 200;
/** From so many jobs on a shop's own experience counts: of one engine, of cars about as old, of the family. */
const ENOUGH = { engine: 5, age: 15, family: 30 } as const;
/** Cars so many years older or younger are about as old. */
const ABOUT = 4;
/** The shipped weights are worth so many jobs of the trade. */
const STRENGTH = 20;
/** A shop's own experience makes a cause at most so many times likelier, or less likely, than the trade has it. */
const MOST = 4;

function tally(list: readonly Proved[], of: string): Tally {
  const found: Record<string, number> = {};
  for (const cause of list.flatMap((job) => [...new Set(job.found)])) found[cause] = (found[cause] ?? 0) + 1;
  return { jobs: list.length, found, of };
}

/** Experience from proved jobs of one engine, the newest first; undefined where there are not enough. */
export function experienceOfEngine(same: readonly Proved[]): Tally | undefined {
  return same.length >= ENOUGH.engine ? tally(same.slice(0, LATEST), "of this engine here") : undefined;
}

/** How often a cause, or its place, was found among some jobs. */
export const foundAmong = ({ found }: Tally, { id, joint }: Pick<Cause, "id" | "joint">): number =>
  (found[id] ?? 0) || (joint ? (found[joint] ?? 0) : 0);

/**
 * Experience from the shop's own proved jobs of a car: of its engine where there are enough, else of cars of its families about as old,
 * else of its families at all; undefined where there are not enough.
 * @param proved newest first.
 */
export function experienceOf(
  proved: readonly Proved[],
  car: { readonly engine: string; readonly families: readonly string[]; readonly age?: number | undefined },
): Tally | undefined {
  const ofEngine = experienceOfEngine(proved.filter((p) => car.engine !== "" && p.engine === car.engine));
  if (ofEngine) return ofEngine;
  const family = proved.filter((p) => p.families.some((f) => car.families.includes(f)));
  const { age } = car;
  const about =
    age === undefined ? [] : family.filter((p) => p.age !== undefined && Math.abs(p.age - age) <= ABOUT).slice(0, LATEST);
  if (about.length >= ENOUGH.age) return tally(about, "of cars about as old here");
  const all = family.slice(0, LATEST);
  return all.length >= ENOUGH.family ? tally(all, "of this kind here") : undefined;
}

/**
 * Causes with the shop's own counts over the table (Dirichlet–multinomial: (k + s·p) / (n + s) over p, with s the strength of the
 * table and p its share), capped. "Nothing wrong" is never found, and stays as it is.
 */
export function withExperience(causes: readonly Cause[], experience: Tally | undefined): Weighted[] {
  if (!experience || experience.jobs === 0) return [...causes];
  const faults = causes.filter((c) => c.trait !== "healthy");
  const shares = new Map(tableShares(faults).map((share, i) => [faults[i]?.id, share]));
  return causes.map((cause): Weighted => {
    const share = shares.get(cause.id);
    if (!share) return cause;
    const times = foundAmong(experience, cause);
    const free = (times + STRENGTH * share) / (experience.jobs + STRENGTH) / share;
    const factor = Math.min(MOST, Math.max(1 / MOST, free));
    const often = times === 0 ? "not found" : times === 1 ? "found once" : `found ${times} times`;
    return { ...cause, learned: { factor, says: `${often} in the last ${experience.jobs} jobs ${experience.of}` } };
  });
}
