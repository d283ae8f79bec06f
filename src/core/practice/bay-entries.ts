import type { Bodies, JournalEntry } from "../journal/entries";

/** How far an entry moves the bay's clock ahead of the wall's, ms: a wait that is skipped, a drive that nobody sits through. */
export const skips = ({ kind, body }: Pick<JournalEntry, "kind" | "body">): number =>
  kind === "bay" || kind === "drive" ? 60_000 * ((body as { readonly minutes?: number }).minutes ?? 0) : 0;

/** How far the bay's clock runs ahead of the wall's, ms. */
export const skippedWaits = (entries: readonly JournalEntry[]): number =>
  entries.reduce((sum, entry) => sum + (entry.corrects ? 0 : skips(entry)), 0);

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
