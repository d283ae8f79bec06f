import type { Bodies, EntryKind } from "../journal/entries";
import { type At, type JournalEntry, spanOf } from "../journal/envelope";

/** Between two things that are done, ms. */
const NEXT = 1000;

/**
 * How far the bay's clock runs ahead of the wall's, ms: what is done there takes no time here, waits and drives least of all, so it is
 * never earlier there than what was done last.
 * @param now ms since 1970.
 */
export const bayAhead = (entries: readonly JournalEntry[], now: number): number => ahead(latestIn(entries), now);

const ahead = (latest: number, moment: number) => Math.max(0, latest + NEXT - moment);

/** When the last of what was done there ended, by the bay's clock, ms since 1970. */
export const latestIn = (entries: readonly Pick<JournalEntry, "at">[]): number =>
  entries.reduce((latest, { at }) => Math.max(latest, spanOf(at).to), 0);

/** Entry that had ended there last, by the bay's clock, as far as it was known from a moment of the wall's on; both ms since 1970. */
export type LatestKnown = readonly (readonly [since: number, latest: number])[];

/**
 * The bay's own time of what was done from and to these moments of the wall's clock: it began after all that had been done when it
 * began, however long it took. A drive is told when it is over, and begins there as it is told.
 */
export function inBayTime(kind: EntryKind, at: At, known: LatestKnown): At {
  const later = (iso: string, by: number) => new Date(Date.parse(iso) + by).toISOString();
  if (typeof at === "string") return later(at, ahead(lastAt(known, Date.parse(at)), Date.parse(at)));
  const [from, to] = [Date.parse(at.from), Date.parse(at.to)];
  const by = kind === "drive" ? to - from + ahead(lastAt(known, to), to) : ahead(lastAt(known, from), from);
  return { from: later(at.from, by), to: later(at.to, by) };
}
const lastAt = (known: LatestKnown, moment: number): number => known.findLast(([since]) => since <= moment)?.[1] ?? 0;

/** Whether the case is over: ended, closed or handed over. */
export const isOver = (entries: readonly JournalEntry[]): boolean =>
  entries.some(
    (e) => e.kind === "close" || e.kind === "handover" || (e.kind === "bay" && (e.body as Bodies["bay"]).act === "end"),
  );

/** Whether a hint was taken and nothing has been read since. */
export function hintStands(entries: readonly JournalEntry[]): boolean {
  let stands = false;
  for (const { kind, body } of entries.toSorted((a, b) => a.seq - b.seq)) {
    if (kind === "check") stands = false;
    if (kind === "bay" && (body as Bodies["bay"]).act === "hint") stands = true;
  }
  return stands;
}
