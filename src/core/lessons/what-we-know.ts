import type { CheckId } from "../checks";
import { type FailureCause, METHODS, type Method, PERMANENCE } from "../journal";
import { FAILURE_CAUSES } from "../journal/entries";
import { type Interval, medianOf, shareOf } from "../maths/counting";
import { HOUSE_QUESTIONS, type HouseQuestion } from "../shop/settings";
import type { Lessons, RepairLesson } from "./of-job";

/** Fewer say nothing: of what was said in a tenth, repairs that were heard of, and jobs that were timed. */
export const ENOUGH = { said: 10, repairs: 5, searches: 6 } as const;

/** Statements with odds in one tenth, and how often it was so. */
export interface Tenth extends Interval {
  /** Odds from this, up to 0.1 more */
  readonly from: number;
  /** Mean of the odds that were said */
  readonly said: number;
  readonly found: number;
  readonly of: number;
  readonly share: number;
  /** `too-few` where ENOUGH were not said; else whether what was said lies in the interval of what was found */
  readonly verdict: "too-few" | "as-said" | "oftener" | "rarer";
}

/** How repairs of one kind held. */
export interface Held {
  readonly name: string;
  readonly cameBack: number;
  /** Of how many something was heard, and how many were made */
  readonly heard: number;
  readonly made: number;
  /** Share that came back, with its interval; none where too few were heard of */
  readonly share?: Interval & { readonly share: number };
}

/** How long faults of a family took to find, by the school that was followed. */
export interface Searched {
  readonly family: string;
  /** The house question and its school; none for all of them together */
  readonly school?: { readonly question: HouseQuestion; readonly name: string };
  readonly jobs: number;
  /** min; none where too few were timed */
  readonly minutes?: Interval & { readonly middle: number };
}

/** Checks of a kind that proved nothing, and why most of them did not. */
export interface Voided {
  readonly check: CheckId;
  readonly voids: number;
  readonly of: number;
  readonly share: Interval & { readonly share: number };
  readonly whys: readonly { readonly why: string; readonly times: number }[];
}

export interface WhatWeKnow {
  readonly jobs: number;
  readonly proved: number;
  readonly tenths: readonly Tenth[];
  readonly searched: readonly Searched[];
  readonly held: Readonly<Record<"lasting" | "part" | "cause", readonly Held[]>>;
  readonly voided: readonly Voided[];
}

function tenthsOf(lessons: readonly Lessons[]): Tenth[] {
  const all = lessons.flatMap((l) => l.said);
  return Array.from({ length: 10 }, (_, i): Tenth[] => {
    const here = all.filter(({ odds }) => Math.min(9, Math.floor(10 * odds)) === i);
    if (here.length === 0) return [];
    const said = here.reduce((sum, { odds }) => sum + odds, 0) / here.length;
    const found = here.filter((s) => s.found).length;
    const counted = shareOf(found, here.length);
    const verdict =
      here.length < ENOUGH.said ? "too-few" : said < counted.low ? "oftener" : said > counted.high ? "rarer" : "as-said";
    return [{ from: i / 10, said, found, of: here.length, ...counted, verdict }];
  }).flat();
}

function heldBy(repairs: readonly RepairLesson[], names: Readonly<Record<string, string>>, key: keyof RepairLesson): Held[] {
  return Object.entries(names).flatMap(([id, name]): Held[] => {
    const made = repairs.filter((r) => r[key] === id);
    if (made.length === 0) return [];
    const heard = made.filter((r) => r.since !== "not-heard").length;
    const cameBack = made.filter((r) => r.since === "came-back").length;
    return [
      { name, cameBack, heard, made: made.length, ...(heard >= ENOUGH.repairs ? { share: shareOf(cameBack, heard) } : {}) },
    ];
  });
}

const QUESTIONS = Object.entries(HOUSE_QUESTIONS) as [
  HouseQuestion,
  { readonly finds?: string; readonly schools: Readonly<Record<string, string>> },
][];

function searchedBy(lessons: readonly Lessons[]): Searched[] {
  const timed = lessons.flatMap(({ families, search }) => (search ? families.map((family) => ({ family, ...search })) : []));
  const line = (family: string, list: readonly { readonly minutes: number }[], school?: Searched["school"]): Searched => {
    const minutes = list.length >= ENOUGH.searches ? medianOf(list.map((s) => s.minutes)) : undefined;
    return { family, jobs: list.length, ...(school ? { school } : {}), ...(minutes ? { minutes } : {}) };
  };
  return [...new Set(timed.map((t) => t.family))].toSorted().flatMap((family) => {
    const here = timed.filter((t) => t.family === family);
    const schools = QUESTIONS.filter(([, { finds }]) => finds === family).flatMap(([question, { schools }]) =>
      Object.entries(schools).map(([id, name]) => ({
        question,
        name,
        list: here.filter((t) => t.house[question] === id),
      })),
    );
    // One school alone is all of them: said once.
    const told = schools.filter(({ list }) => list.length > 0 && list.length < here.length);
    return [line(family, here), ...told.map(({ question, name, list }) => line(family, list, { question, name }))];
  });
}
/** Reasons that differ in their figures alone are one reason. */
const alike = (why: string) => why.replace(/\d+([.,]\d+)?/g, "…");

function voidedBy(lessons: readonly Lessons[]): Voided[] {
  const of = new Map<CheckId, number>();
  for (const [check, times] of lessons.flatMap((l) => Object.entries(l.checks)) as [CheckId, number][])
    of.set(check, (of.get(check) ?? 0) + times);
  const voids = lessons.flatMap((l) => l.voids);
  return [...of]
    .flatMap(([check, done]): Voided[] => {
      const here = voids.filter((v) => v.check === check);
      if (here.length === 0) return [];
      const whys = new Map<string, { why: string; times: number }>();
      for (const { why } of here) {
        const known = whys.get(alike(why)) ?? { why, times: 0 };
        known.times++;
        whys.set(alike(why), known);
      }
      const sorted = [...whys.values()].toSorted((a, b) => b.times - a.times);
      return [{ check, voids: here.length, of: done, share: shareOf(here.length, done), whys: sorted }];
    })
    .toSorted((a, b) => b.voids - a.voids);
}

/** Statistics from a shop's own jobs of how well this works, each with how much it rests on. */
export function whatWeKnow(lessons: readonly Lessons[]): WhatWeKnow {
  const repairs = lessons.flatMap((l) => l.repairs);
  const { bypass: _, ...lasting } = PERMANENCE;
  return {
    jobs: lessons.length,
    proved: lessons.filter((l) => l.search).length,
    tenths: tenthsOf(lessons),
    searched: searchedBy(lessons),
    held: {
      lasting: heldBy(repairs, lasting, "permanence"),
      part: heldBy(repairs, METHODS satisfies Record<Method, string>, "method"),
      cause: heldBy(repairs, FAILURE_CAUSES satisfies Record<FailureCause, string>, "failed"),
    },
    voided: voidedBy(lessons),
  };
}
