import type { Entry, JournalEntry } from "./entries";

/** A job's journal as one device holds it. */
export interface DeviceJournal {
  /** What the server recorded, by `seq` */
  readonly recorded: readonly JournalEntry[];
  /** Every entry up to this `seq` is in `recorded`; numbers may be missing where a job was imported with gaps */
  readonly through: number;
  /** Made here, not yet known to be recorded; oldest first */
  readonly outbox: readonly Entry[];
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
  outbox: [],
});

/**
 * Takes an answer in, however late or often it comes: nothing twice, and complete only as far as answers join on to what
 * was complete before.
 */
export function received(journal: DeviceJournal, answer: ServerAnswer): DeviceJournal {
  const known = new Set(journal.recorded.map((e) => e.id));
  const fresh = answer.entries.filter((e) => !known.has(e.id));
  const taken = new Set(answer.entries.map((e) => e.id));
  const outbox = journal.outbox.some((e) => taken.has(e.id)) ? journal.outbox.filter((e) => !taken.has(e.id)) : journal.outbox;
  const through = answer.after <= journal.through ? Math.max(journal.through, answer.through) : journal.through;
  if (fresh.length === 0 && outbox === journal.outbox && through === journal.through) return journal;
  const recorded = fresh.length === 0 ? journal.recorded : [...journal.recorded, ...fresh].sort((a, b) => a.seq - b.seq);
  return { recorded, through, outbox };
}

/** Puts entries into the outbox, each once. */
export function queued(journal: DeviceJournal, entries: readonly Entry[]): DeviceJournal {
  const known = new Set([...journal.recorded, ...journal.outbox].map((e) => e.id));
  const fresh = entries.filter((e) => !known.has(e.id) && known.add(e.id));
  return fresh.length === 0 ? journal : { ...journal, outbox: [...journal.outbox, ...fresh] };
}

/** Takes entries out of the outbox that the server will never take. */
export const withdrawn = (journal: DeviceJournal, ids: readonly string[]): DeviceJournal => ({
  ...journal,
  outbox: journal.outbox.filter((e) => !ids.includes(e.id)),
});

/** What a new entry may claim to have seen: as far as the device's journal is complete, never further. */
export const seenThrough = (journal: DeviceJournal): number => journal.through;

/**
 * Recorded entries, then what is still in the outbox as if it had been recorded just now.
 * @param at ISO time that stands for "now".
 */
export function withOutbox({ recorded, outbox }: DeviceJournal, at: string): JournalEntry[] {
  const top = recorded.reduce((max, e) => Math.max(max, e.seq), 0);
  return [...recorded, ...outbox.map((e, i): JournalEntry => ({ ...e, seq: top + i + 1, recordedAt: at }))];
}
