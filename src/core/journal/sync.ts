import type { Role } from "../people";
import type { Entry, JournalEntry } from "./envelope";

/** State one device keeps of a job's recorded journal. What it has made itself and not sent yet is its outbox's. */
export interface DeviceJournal {
  /** Entries the server recorded, by `seq` */
  readonly recorded: readonly JournalEntry[];
  /** Every entry up to this `seq` is in `recorded`; numbers may be missing where a job was imported with gaps */
  readonly through: number;
}

/** Answer of the server when it is asked, or when something is posted to it. */
export interface ServerAnswer {
  /** The device asked for everything behind this `seq` */
  readonly after: number;
  /** Everything behind `after` and up to this `seq` is in `entries` */
  readonly through: number;
  readonly entries: readonly JournalEntry[];
  /** True where what the device holds is no part of this journal, as after a backup was restored: these are all there are */
  readonly instead?: boolean;
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
  if (answer.instead) return { recorded: answer.entries, through: answer.through };
  const known = new Set(journal.recorded.map((e) => e.id));
  const fresh = answer.entries.filter((e) => !known.has(e.id));
  const through = answer.after <= journal.through ? Math.max(journal.through, answer.through) : journal.through;
  if (fresh.length === 0 && through === journal.through) return journal;
  const recorded = fresh.length === 0 ? journal.recorded : [...journal.recorded, ...fresh].sort((a, b) => a.seq - b.seq);
  return { recorded, through };
}

/** Position of a device as it asks: how far its journal is complete, and the entry that stands there. */
export interface Held {
  readonly behind: number;
  /** That entry as `asRecorded` names it; empty where the device holds nothing */
  readonly last: string;
}

/**
 * An entry as it was recorded: the same one at the same place means the same journal up to there, since nothing is ever
 * changed or slipped in below. Its id alone would not do: after a backup was restored it may be sent again, and come to the
 * same number over other entries; its time of recording tells the two apart.
 */
export const asRecorded = ({ id, recordedAt }: Pick<JournalEntry, "id" | "recordedAt">): string => `${id} ${recordedAt}`;

export const heldOf = ({ recorded, through }: DeviceJournal): Held => {
  const last = recorded.find((e) => e.seq === through);
  return { behind: through, last: last ? asRecorded(last) : "" };
};

/** Entries that this device made and the server had recorded, but holds no more, as they were made. */
export function lostBy(journal: DeviceJournal, answer: ServerAnswer, device: string): Entry[] {
  if (!answer.instead) return [];
  const there = new Set(answer.entries.map((e) => e.id));
  return journal.recorded.filter((e) => e.device === device && !there.has(e.id)).map(asMade);
}

/** An entry as its device made it, without what the server added. */
export const asMade = ({ seq: _, recordedAt: __, role: ___, imported: ____, history: _____, ...entry }: JournalEntry): Entry => {
  const { clampedFrom, ...made } = entry;
  return { ...made, at: clampedFrom ?? made.at };
};

/** The `seq` a new entry may claim to have seen: as far as the device's journal is complete, never further. */
export const seenThrough = (journal: DeviceJournal): number => journal.through;

/**
 * Recorded entries, then what the device has not sent yet as if it had been recorded just now; each once.
 * @param at ISO time that stands for "now"; @param roles of whoever was signed in, by the sign-in, as this device knows them.
 */
export function withOutbox(
  { recorded }: DeviceJournal,
  outbox: readonly Entry[],
  at: string,
  roles: ReadonlyMap<string, Role> = new Map(),
): JournalEntry[] {
  const top = recorded.reduce((max, e) => Math.max(max, e.seq), 0);
  const known = new Set(recorded.map((e) => e.id));
  const waiting = outbox.filter((e) => !known.has(e.id));
  return [
    ...recorded,
    ...waiting.map((e, i): JournalEntry => {
      const role = e.signed && roles.get(e.signed.signIn);
      return { ...e, seq: top + i + 1, recordedAt: at, ...(role ? { role } : {}) };
    }),
  ];
}
