import { type Db, db } from "./db/open";

interface Waiting {
  readonly work: () => unknown;
  readonly done: (value: unknown) => void;
  readonly fail: (error: unknown) => void;
}
interface Queue {
  waiting: Waiting[];
  /** How many shared the last commit, and how long the disk took for it, ms */
  shared: number;
  took: number;
}
// Routes are bundled apart: what they share stands with the process.
const store = globalThis as typeof globalThis & { pelotaCommits?: Queue };
const queue = (): Queue => {
  store.pelotaCommits ??= { waiting: [], shared: 0, took: 0 };
  return store.pelotaCommits;
};

/** Nobody waits longer than this for others to join, ms. */
const LONGEST = 20;

/**
 * Does a piece of work in the database, all or none, and answers once the disk has it. Where several clients write at once
 * their pieces share a commit, each still by itself: what one is refused for does not touch the others.
 */
export function committed<T>(work: () => T): Promise<T> {
  const here = queue();
  return new Promise((done, fail) => {
    here.waiting.push({ work, done: done as Waiting["done"], fail });
    if (here.waiting.length > 1) return;
    // Others are given the time that the disk takes anyway; where nobody joined the last time, none.
    if (here.shared > 1) setTimeout(commit, Math.min(LONGEST, here.took));
    else setImmediate(commit);
  });
}

function commit(): void {
  const here = queue();
  const batch = here.waiting;
  here.waiting = [];
  here.shared = batch.length;
  const start = performance.now();
  const answers: (() => void)[] = [];
  try {
    const at = db();
    at.$client.transaction(() => answers.push(...batch.map((one) => doneInside(at, one)))).immediate();
  } catch (error) {
    for (const { fail } of batch) fail(error);
    return;
  } finally {
    here.took = performance.now() - start;
  }
  for (const answer of answers) answer();
}

/** One piece of work inside the common transaction. @returns how it is answered once that is on the disk. */
function doneInside(at: Db, { work, done, fail }: Waiting): () => void {
  try {
    const value = at.$client.transaction(work)();
    return () => done(value);
  } catch (error) {
    // A full or failing disk takes the whole transaction back with it: nobody's work is there.
    if (!at.$client.inTransaction) throw error;
    return () => fail(error);
  }
}
