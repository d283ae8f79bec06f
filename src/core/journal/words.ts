import { ENTRY_KINDS, isEntryKind, type JournalNames } from "./entries";
import type { JournalEntry } from "./envelope";
import type { JobState } from "./state";

const namesIn = (job: JobState): JournalNames => ({
  headline: (entry) => job.checks.find((c) => c.entry === entry)?.verdict.headline,
  repair: (entry) => job.repairs.find((r) => r.entry === entry)?.body.what ?? "a repair taken out since",
  offCar: (entry) => job.offCar.find((i) => i.entry === entry)?.what ?? "an item taken out since",
  asksToClose: (entry) => job.closing?.entry === entry,
});

/** One line of the journal in words; an entry of a kind we do not know is named as such. */
export function entryWords(entry: JournalEntry, job: JobState): string {
  if (!isEntryKind(entry.kind)) return `Kept, but of a kind this version does not know: ${entry.kind}`;
  return ENTRY_KINDS[entry.kind].words(entry.body as object, namesIn(job), entry.id);
}
