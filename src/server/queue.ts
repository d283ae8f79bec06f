import { BadInput } from "@/core/input";
import type { Entry, Queued, QueueFile } from "@/core/journal";
import { admitted } from "./admission";
import { type Db, db } from "./db/open";
import { takeFromQueue } from "./entries-door";
import { entryRecorded, jobNumber } from "./jobs";
import { Conflict, NotFound, NotSignedIn } from "./refusals";

function looked(entry: Entry, at: Db): Queued {
  const seen = {
    id: entry.id,
    kind: entry.kind,
    at: entry.at,
    by: entry.by,
    job: jobNumber(entry.jobId, at),
    jobId: entry.jobId,
  };
  if (entryRecorded(entry.id, at)) return { ...seen, state: "here-already" };
  try {
    if (seen.job === 0) throw new NotFound("No such job here");
    const { by, history } = admitted(entry, false, "queue", at);
    return { ...seen, by, state: "fits", ...(history ? { why: history } : {}) };
  } catch (error) {
    if (error instanceof BadInput || error instanceof NotSignedIn || error instanceof NotFound)
      return { ...seen, state: "refused", why: error.message };
    throw error;
  }
}

/** Entries that waited on a device, looked through before any of it is taken in. */
export const lookThrough = ({ entries }: QueueFile, at: Db = db()): Queued[] => entries.map((entry) => looked(entry, at));

/**
 * Takes in what a lead has chosen of what waited on a device, in the order it was made, each under its own author; one that
 * cannot be taken does not hold up the others.
 */
export async function takeIn({ entries }: QueueFile, chosen: readonly string[], at: Db = db()): Promise<Queued[]> {
  const answers: Queued[] = [];
  for (const entry of entries.filter((e) => chosen.includes(e.id))) {
    const seen = looked(entry, at);
    if (seen.state !== "fits") {
      answers.push(seen);
      continue;
    }
    try {
      await takeFromQueue(entry);
      answers.push({ ...seen, state: "here-already" });
    } catch (error) {
      if (!(error instanceof BadInput || error instanceof Conflict || error instanceof NotSignedIn)) throw error;
      answers.push({ ...seen, state: "refused", why: error.message });
    }
  }
  return answers;
}
