import { eq } from "drizzle-orm";
import { BadInput } from "@/core/input";
import { asMade, canonicalJson, type Entry, type JobFile, type JournalEntry, openingOf, toJobFile } from "@/core/journal";
import { type Authored, admitted, admittedEntry, signatureOf } from "./admission";
import { now, nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { jobs } from "./db/schema";
import {
  checkCorrection,
  checkGate,
  clampAt,
  emptyBoard,
  entryById,
  fromRow,
  gatesOf,
  isGate,
  nextNumber,
  practiceOf,
  queries,
  readEntries,
  topSeq,
  toRow,
} from "./jobs";
import { hasLead } from "./people";
import { Conflict } from "./refusals";
import { readShop } from "./shop";

/** A job as a file. */
export function exportJob(jobId: string, at: Db = db()): JobFile {
  return toJobFile(jobId, readShop(at), readEntries(jobId, 0, at), nowIso());
}

/** So far beyond the newest job's number a file's own is taken: what lies further would leave no room for the next. */
const NUMBERS_AHEAD = 100_000;

/**
 * Takes a job file in. What was made under a sign-in of this shop is admitted as at any door, and gets its number and time of
 * recording here; everything else is kept as imported, as its own shop recorded it. A job that is here already gains only what
 * was made here. Throws Conflict when an entry here and in the file differ.
 * @param by who takes it in.
 */
export function importJob(file: JobFile, at: Db = db(), by = ""): { id: string; number: number; added: number } {
  const run = at.$client.transaction(() => {
    const opened = file.entries.find((e) => e.kind === "opened")?.body as { number?: number; practice?: string } | undefined;
    const here = at.select({ number: jobs.number }).from(jobs).where(eq(jobs.id, file.jobId)).get();
    const number = here?.number ?? numberFor(opened?.number, at);
    if (!here)
      at.insert(jobs)
        .values({
          id: file.jobId,
          number,
          createdAt: nowIso(),
          updatedAt: nowIso(),
          ...emptyBoard,
          practice: opened?.practice ?? "",
        })
        .run();
    let added = 0;
    for (const entry of file.entries.toSorted((a, b) => a.seq - b.seq)) {
      const known = entryById(at, entry.id);
      if (known && canonicalJson(asMade(fromRow(known))) !== canonicalJson(asMade(entry)))
        throw new Conflict(`Entry ${entry.id} is here with other contents: nothing was imported`);
      if (known) continue;
      queries(at).insert.run(toRow(fromFile(entry, here !== undefined, by, at)));
      added++;
    }
    queries(at).grow.run({ top: topSeq(at, file.jobId), jobId: file.jobId });
    return { id: file.jobId, number, added };
  });
  return run.immediate();
}

/** The number of a job that comes in: its own, where that is free and near. */
function numberFor(wanted: number | undefined, at: Db): number {
  const next = nextNumber(at);
  if (wanted === undefined || wanted > next + NUMBERS_AHEAD) return next;
  return at.select({ id: jobs.id }).from(jobs).where(eq(jobs.number, wanted)).get() ? next : wanted;
}

/** An entry of a file as it is recorded here. @param here the job was in this shop before. */
function fromFile(entry: JournalEntry, here: boolean, by: string, at: Db): JournalEntry {
  const signature = signatureOf(entry, at);
  // A file cannot put words into the mouth of whoever works here.
  if (signature === "broken")
    throw new Conflict(`Entry number ${entry.seq} is not as ${entry.by} signed it: nothing was imported`);
  if (signature === "holds") return madeHere(entry, at);
  if (here && hasLead(at))
    throw new Conflict(`Nobody can tell that entry number ${entry.seq} is by ${entry.by}: nothing was imported`);
  const top = topSeq(at, entry.jobId);
  // Devices count what they have seen by number: nothing slips in below what they hold to be complete.
  if (here && entry.seq <= top)
    throw new Conflict(`The job has gone on here since it was exported (entry number ${entry.seq}): nothing was imported`);
  const recordedAt = Math.min(now(), Date.parse(entry.recordedAt));
  const timed = clampAt({ ...entry, at: asMade(entry).at }, now());
  const { clampedFrom: _, ...rest } = entry;
  return {
    ...rest,
    ...timed,
    ...(ofOurs(entry, at) ? { history: "It would correct what was made in this shop" } : {}),
    seq: Math.max(entry.seq, top + 1),
    recordedAt: new Date(recordedAt).toISOString(),
    imported: { by, at: nowIso() },
  };
}

/** Whether what comes from another shop would correct what did not. */
function ofOurs({ corrects }: JournalEntry, at: Db): boolean {
  const root = corrects === undefined ? undefined : entryById(at, corrects);
  return root !== undefined && root.imported === null;
}

/** Entries made under a sign-in of this shop and comes in a file: all that the server adds is worked out anew. */
function madeHere(entry: JournalEntry, at: Db): JournalEntry {
  const { jobId } = entry;
  const made = asMade(entry);
  const practice = practiceOf(jobId, at) !== "";
  const admitted = entry.kind === "opened" ? openedFromFile(made, at) : admittedEntry(made, practice, "file", at);
  const refused = admitted.history === undefined ? refusal(() => checkFromFile(made, at)) : undefined;
  const before = queries(at).newest.get({ jobId });
  const latest = Math.max(now(), before ? Date.parse(before.recordedAt) : 0);
  return {
    ...(practice ? admitted : clampAt(admitted, latest)),
    ...(refused ? { history: refused } : {}),
    seq: (before?.seq ?? 0) + 1,
    recordedAt: new Date(latest).toISOString(),
  };
}

/** An opening is signed as it was asked for: without the number that is the server's. */
const openedFromFile = (made: Entry, at: Db): Authored<Entry> => {
  const { practice: _, ...asked } = admitted(openingOf(made), false, "file", at);
  return { ...made, ...asked };
};

/** Rules of every route for an entry beside who made it: that it corrects what is there, and passes the gates as they stand. */
function checkFromFile(made: Entry, at: Db): void {
  checkCorrection(at, made);
  if (isGate(made)) checkGate(gatesOf(made.jobId, at), made);
}

/** Reason why a route would refuse; undefined where it says yes. */
function refusal(ask: () => void): string | undefined {
  try {
    ask();
    return undefined;
  } catch (error) {
    if (error instanceof BadInput || error instanceof Conflict) return error.message.slice(0, 500);
    throw error;
  }
}
