import type { Entry, JournalEntry } from "./entries";

/** What one device knows of a job's recorded journal. What it has made itself and not sent yet is its outbox's. */
export interface DeviceJournal {
  /** What the server recorded, by `seq` */
  readonly recorded: readonly JournalEntry[];
  /** Every entry up to this `seq` is in `recorded`; numbers may be missing where a job was imported with gaps */
  readonly through: number;
}

/** What the server says when it is asked, or when something is posted to it. */
export interface ServerAnswer {
  /** The device asked for everything behind this `seq` */
  readonly after: number;
  /** Everything behind `after` and up to this `seq` is in `entries` */
  readonly through: number;
  readonly entries: readonly JournalEntry[];
}

/** The journal of a device that was handed all there is. */
export const deviceJournal = (recorded: readonly JournalEntry[]): DeviceJournal => ({
  recorded,
  through: recorded.reduce((max, e) => Math.max(max, e.seq), 0),
});

/**
 * Takes an answer in, however late or often it comes: nothing twice, and complete only as far as answers join on to what
 * was complete before.
 */
export function received(journal: DeviceJournal, answer: ServerAnswer): DeviceJournal {
  const known = new Set(journal.recorded.map((e) => e.id));
  const fresh = answer.entries.filter((e) => !known.has(e.id));
  const through = answer.after <= journal.through ? Math.max(journal.through, answer.through) : journal.through;
  if (fresh.length === 0 && through === journal.through) return journal;
  const recorded = fresh.length === 0 ? journal.recorded : [...journal.recorded, ...fresh].sort((a, b) => a.seq - b.seq);
  return { recorded, through };
}

/** What a new entry may claim to have seen: as far as the device's journal is complete, never further. */
export const seenThrough = (journal: DeviceJournal): number => journal.through;

/**
 * Recorded entries, then what the device has not sent yet as if it had been recorded just now; each once.
 * @param at ISO time that stands for "now".
 */
export function withOutbox({ recorded }: DeviceJournal, outbox: readonly Entry[], at: string): JournalEntry[] {
  const top = recorded.reduce((max, e) => Math.max(max, e.seq), 0);
  const known = new Set(recorded.map((e) => e.id));
  const waiting = outbox.filter((e) => !known.has(e.id));
  return [...recorded, ...waiting.map((e, i): JournalEntry => ({ ...e, seq: top + i + 1, recordedAt: at }))];
}
