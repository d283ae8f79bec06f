import { now } from "./clock";

/** Wrong guesses of one thing from one side. */
interface Guesser {
  wrong: number;
  /** When the next one is taken, ms */
  until: number;
  /** One is being looked at */
  busy: boolean;
}
const shared = globalThis as { pelotaGuesses?: Map<string, Guesser> };
const guessers = () => {
  shared.pelotaGuesses ??= new Map();
  return shared.pelotaGuesses;
};

/** The first wrong guesses cost nothing: a thumb slips. */
const FREE = 3;
/** The wait after those doubles with each, from this to that, ms. */
const SHORTEST = 1000;
const LONGEST = 5 * 60_000;
/** Kept at most; the longest quiet go first. */
const KEPT = 1000;

export type Guessed =
  | { readonly in: true }
  | {
      readonly in: false;
      /** s until the next one is looked at, 0 for at once */
      readonly wait: number;
      /** Whether this one was looked at at all, or another was just then */
      readonly looked: boolean;
      readonly busy?: true;
    };

/**
 * Looks at one guess from an address, or of one person's PIN, one at a time: what comes meanwhile, or before its wait is over, is not looked at.
 * The waits of one are no other's.
 * @param what is guessed, and by whom: "PIN of Wren Alder"; @param check whether the guess is right. @returns `wait`: seconds until the next guess is looked at, 0 for at once.
 */
export async function guess(what: string, check: () => Promise<boolean>): Promise<Guessed> {
  const known = guessers().get(what) ?? { wrong: 0, until: 0, busy: false };
  guessers().delete(what);
  guessers().set(what, known);
  if (guessers().size > KEPT) guessers().delete(guessers().keys().next().value as string);
  // A clock that was set back makes no wait longer.
  known.until = Math.min(known.until, now() + LONGEST);
  const wait = () => Math.max(0, Math.ceil((known.until - now()) / 1000));
  if (known.busy) return { in: false, wait: Math.max(1, wait()), looked: false, busy: true };
  if (wait() > 0) return { in: false, wait: wait(), looked: false };
  known.busy = true;
  try {
    if (await check()) {
      guessers().delete(what);
      return { in: true };
    }
    known.wrong++;
    if (known.wrong >= FREE) known.until = now() + Math.min(LONGEST, SHORTEST * 2 ** (known.wrong - FREE));
    console.warn(`Wrong ${what}, ${known.wrong} so far`);
    return { in: false, wait: wait(), looked: true };
  } finally {
    known.busy = false;
  }
}
