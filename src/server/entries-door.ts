import type { Entry, JournalEntry } from "@/core/journal";
import { type Authored, admittedEntry, type Way } from "./admission";
import { tellChanged } from "./changes";
import { committed } from "./commit";
import { db } from "./db/open";
import { checkGate, entryRecorded, gateAmong, practiceOf, record, validEntries } from "./jobs";
import { inWorker } from "./worker";

/** The same at the door, under the names that the server knows, and where others are served meanwhile: nobody waits for gates to be judged, and several share a commit. */
export const takeEntries = (jobId: string, input: unknown): Promise<JournalEntry[]> => taken(jobId, input, "door");

/** One entry of what waited on a device that is out, as a lead takes it in. */
export const takeFromQueue = (entry: Entry): Promise<JournalEntry[]> => taken(entry.jobId, entry, "queue");

async function taken(jobId: string, input: unknown, way: Way): Promise<JournalEntry[]> {
  const practice = practiceOf(jobId) !== "";
  const sent = validEntries(jobId, input, db());
  // What is recorded already was asked then.
  const admit = () => sent.map((e): Authored<Entry> => (entryRecorded(e.id) ? e : admittedEntry(e, practice, way)));
  // What is history passes no gate, and needs none.
  const gate = gateAmong(
    admit().filter((e) => e.history === undefined),
    db(),
  );
  const judged = gate && (await inWorker("gates", jobId));
  if (gate && judged) checkGate(judged, gate);
  // Who made it is asked again as it is committed: meanwhile somebody may have been put out, or have another role.
  const recorded = await committed(() => record(jobId, admit(), judged, db()));
  tellChanged(jobId);
  return recorded;
}
