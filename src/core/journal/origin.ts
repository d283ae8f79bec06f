import type { EntryKind } from "./entries";
import type { JournalEntry } from "./envelope";
import type { Line } from "./proof/order";

/** Claims that another shop's word does not settle here: it is shown in the journal, and asked for anew. */
const SETTLES: readonly EntryKind[] = [
  "close",
  "codes-cleared",
  "complaint-tried",
  "countersigned",
  "drive",
  "handover",
  "monitor",
  "order",
  "outcome",
  "reset",
  "set-aside",
  "signed",
];
/** Entries written of a job that is over, without taking it up again. */
const BESIDE: readonly string[] = ["note", "engine-note", "outcome", "judged"] satisfies EntryKind[];

/** Whether a line, or what it says by its last correction, came in a file from another shop. */
export const isImported = ({ imported, newest }: Pick<Line, "imported" | "newest">): boolean =>
  (imported ?? newest.imported) !== undefined;

/** Whether a line has a say in what is proved, decided and closed here. */
export const countsHere = (line: Line): boolean => !isImported(line) || !(SETTLES as readonly string[]).includes(line.kind);

/** Whether a job was closed or handed over in another shop, and nobody here has taken it up since. */
export const endedElsewhere = (entries: readonly JournalEntry[]): boolean =>
  entries.some((e) => e.imported && (e.kind === "close" || e.kind === "handover")) &&
  entries.every((e) => e.imported || BESIDE.includes(e.kind));
