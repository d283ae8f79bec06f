import { asMade, type JournalEntry, openingOf } from "@/core/journal";
import type { Db } from "./db/open";
import { appendEntries, entryRecorded, openJob } from "./jobs";

/** Records a journal as if it had been written in this shop; what is there already stays. @returns the job's id. */
export function recordHere(entries: readonly JournalEntry[], at: Db): string {
  const [first, ...rest] = entries.map(asMade) as [ReturnType<typeof asMade>, ...ReturnType<typeof asMade>[]];
  const { id } = openJob(openingOf(first), at);
  for (const entry of rest) if (!entryRecorded(entry.id, at)) appendEntries(id, entry, at);
  return id;
}
