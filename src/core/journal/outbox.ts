import type { Entry } from "./envelope";

/** An entry that a device has made, kept there until the server has it for sure. Times are ms since 1970. */
export interface Kept {
  /** The entry's own id */
  readonly id: string;
  readonly entry: Entry;
  /** Entries of one batch go out together, all or none */
  readonly batch: string;
  /** How often it went out in vain, and when it may again */
  readonly tries: number;
  readonly notBefore: number;
  /** Reason why it waits, in the server's words: whoever made it signs in */
  readonly asks?: string;
  /** The tab that is sending it; over where the tab was closed in the middle */
  readonly lease?: { readonly tab: string; readonly until: number };
  /** Why the server will never take it as it is */
  readonly refused?: { readonly message: string; readonly at: number };
}

/** How long a tab has for sending what it took on, ms. */
const LEASE = 30_000;
/** Growing pauses between tries, ms. */
const FIRST_PAUSE = 2_000;
const LONGEST_PAUSE = 120_000;

/** Refusals that the server says no to for good: wrong, not theirs to make, of no job, against what is recorded, too large. */
const FOR_GOOD: readonly number[] = [400, 404, 409, 413];
/** Entries waiting until somebody has signed in. */
const NOT_SIGNED_IN = 401;

/** The first entry of a job as a device asks for it: its number is the server's. */
export type Opening = Omit<Entry, "kind" | "v" | "seenSeq" | "body" | "corrects"> & { readonly practice?: string };

/** An opening as it stands in the job's journal on its own device: without a number yet. */
export const openedEntry = ({ practice, ...opening }: Opening): Entry => ({
  ...opening,
  kind: "opened",
  v: 1,
  seenSeq: 0,
  body: { number: 0, ...(practice ? { practice } : {}) },
});

/** An opening as it is sent. */
export function openingOf({ kind: _, v: __, seenSeq: ___, body, corrects: ____, ...opening }: Entry): Opening {
  const { practice } = body as { readonly practice?: string };
  return { ...opening, ...(practice ? { practice } : {}) };
}

/** Entries made together, as they are kept before anything is sent. */
export const keptOf = (entries: readonly Entry[]): Kept[] =>
  entries.map((entry) => ({ id: entry.id, entry, batch: (entries[0] as Entry).id, tries: 0, notBefore: 0 }));

/** Every text in a body, ids among them. */
export function* textsIn(value: unknown): Generator<string> {
  if (typeof value === "string") yield value;
  else if (value && typeof value === "object") for (const part of Object.values(value)) yield* textsIn(part);
}

/** Whether an entry names any of these, in whatever field. */
const names = ({ corrects, body }: Entry, ids: ReadonlySet<string>): boolean => {
  if (corrects !== undefined && ids.has(corrects)) return true;
  for (const text of textsIn(body)) if (ids.has(text)) return true;
  return false;
};

/**
 * Entries that wait because they, or others of their batch, name one that was refused, however far round.
 * @param kept everything a device keeps. @returns ids; what was refused itself is not among them.
 */
export function heldUp(kept: readonly Kept[]): Set<string> {
  const stuck = new Set(kept.filter((k) => k.refused).map((k) => k.id));
  const held = new Set<string>();
  if (stuck.size === 0) return held;
  for (let before = -1; before !== held.size; ) {
    before = held.size;
    const batches = new Set(kept.filter((k) => stuck.has(k.id) || names(k.entry, stuck)).map((k) => k.batch));
    for (const k of kept) {
      if (k.refused || !batches.has(k.batch)) continue;
      held.add(k.id);
      stuck.add(k.id);
    }
  }
  return held;
}

/** Entries waiting to be sent, oldest first: all but what was refused and what waits for that. */
function waitingOf(kept: readonly Kept[]): Kept[] {
  const held = heldUp(kept);
  return kept.filter((k) => !k.refused && !held.has(k.id)).toSorted((a, b) => a.entry.deviceSeq - b.entry.deviceSeq);
}

/** The oldest of each job: they arrive in the order they were made. */
const firstOfEach = (waiting: readonly Kept[]): Kept[] =>
  waiting.filter((k, i) => waiting.findIndex((other) => other.entry.jobId === k.entry.jobId) === i);

/** The batch that a tab may send now. @param hurry somebody waits for it: pauses between tries do not count. */
export function nextBatch(kept: readonly Kept[], tab: string, now: number, hurry = false): Kept[] {
  const waiting = waitingOf(kept);
  const first = firstOfEach(waiting).find(
    ({ lease, notBefore }) => !(lease && lease.tab !== tab && lease.until > now) && (hurry || notBefore <= now),
  );
  return first ? waiting.filter((k) => k.batch === first.batch) : [];
}

/** When a next try is due for whatever tab, ms since 1970; undefined where nothing waits for one. */
export function nextTry(kept: readonly Kept[]): number | undefined {
  const due = firstOfEach(waitingOf(kept)).map((k) => Math.max(k.notBefore, k.lease?.until ?? 0));
  return due.length > 0 ? Math.min(...due) : undefined;
}

/** Taken on by a tab. */
export const leased = (kept: Kept, tab: string, now: number): Kept => ({ ...kept, lease: { tab, until: now + LEASE } });

/** As it is once a tab is gone: what that had taken on is free again. Sent twice, an entry is recorded once. */
export function leftBy(kept: Kept, tab: string): Kept {
  if (kept.lease?.tab !== tab) return kept;
  const { lease: _, ...free } = kept;
  return free;
}

/**
 * Next state of an entry that was not taken.
 * @param status HTTP status; undefined where there was no answer. @param message what the server said.
 */
export function afterNo(kept: Kept, status: number | undefined, message: string, now: number): Kept {
  const { lease: _, asks: __, ...free } = kept;
  if (status !== undefined && FOR_GOOD.includes(status)) return { ...free, refused: { message, at: now } };
  const tries = kept.tries + 1;
  const notBefore = now + Math.min(LONGEST_PAUSE, FIRST_PAUSE * 2 ** (tries - 1));
  return { ...free, tries, notBefore, ...(status === NOT_SIGNED_IN ? { asks: message } : {}) };
}

/** An entry waiting for its author's signature, once they are in again: unsigned, or under a sign-in that the server does not take any more. */
export const toBeSigned = ({ entry, asks }: Kept, name: string): boolean =>
  entry.by === name && (asks !== undefined || entry.signed === undefined);

/** To be sent again as it is. */
export function again(kept: Kept): Kept {
  const { refused: _, lease: __, asks: ___, ...free } = kept;
  return { ...free, tries: 0, notBefore: 0 };
}

/** Entries that a device shows as if they had been recorded. */
export const shown = (kept: readonly Kept[]): Entry[] => waitingOf(kept).map((k) => k.entry);
