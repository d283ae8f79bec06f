import { now } from "./clock";

/** Wrong guesses from one address. */
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
/** Addresses kept at most; the longest quiet go first. */
const KEPT = 1000;

export type Guessed = { readonly in: true } | { readonly in: false; readonly wait: number };

/**
 * Looks at one guess from an address, one at a time: what comes meanwhile, or before its wait is over, is not looked at.
 * The waits of one address are no other's.
 * @param check whether the guess is right. @returns `wait`: seconds until the next guess is looked at, 0 for at once.
 */
export async function guess(address: string, check: () => Promise<boolean>): Promise<Guessed> {
  const known = guessers().get(address) ?? { wrong: 0, until: 0, busy: false };
  guessers().delete(address);
  guessers().set(address, known);
  if (guessers().size > KEPT) guessers().delete(guessers().keys().next().value as string);
  const wait = () => Math.max(0, Math.ceil((known.until - now()) / 1000));
  if (known.busy) return { in: false, wait: Math.max(1, wait()) };
  if (wait() > 0) return { in: false, wait: wait() };
  known.busy = true;
  try {
    if (await check()) {
      guessers().delete(address);
      return { in: true };
    }
    known.wrong++;
    if (known.wrong >= FREE) known.until = now() + Math.min(LONGEST, SHORTEST * 2 ** (known.wrong - FREE));
    console.warn(`Wrong passphrase or code from ${address}, ${known.wrong} so far`);
    return { in: false, wait: wait() };
  } finally {
    known.busy = false;
  }
}
