import { type Bodies, type JournalEntry, spanOf } from "../journal/entries";

/** Between two things that are done, ms. */
const NEXT = 1000;

/**
 * How far the bay's clock runs ahead of the wall's, ms: what is done there takes no time here, waits and drives least of all, so it is
 * never earlier there than what was done last.
 * @param now ms since 1970.
 */
export function bayAhead(entries: readonly JournalEntry[], now: number): number {
  let latest = 0;
  for (const { at } of entries) latest = Math.max(latest, spanOf(at).to);
  return Math.max(0, latest + NEXT - now);
}

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
