/** The shop's data were there and are not any more: nothing may be acknowledged. */
export class DataGone extends Error {
  readonly code = "DATA_GONE";
}

/** HTTP status of each trouble of a disk or database, the narrower ones first; a code with % stands for all that begin so. */
const TROUBLES: readonly (readonly [codes: readonly string[], status: number, message: string])[] = [
  [
    ["ENOSPC", "EFBIG", "EDQUOT", "SQLITE_FULL"],
    507,
    "The disk of the shop's computer is full: nothing was saved. Free some space on it, then try again; nothing needs to be restarted",
  ],
  [
    ["DATA_GONE", "SQLITE_READONLY_DBMOVED", "SQLITE_CANTOPEN%"],
    503,
    "The shop's data are gone from where they were: nothing was saved. Put the folder back, or connect its disk, then try again",
  ],
  [
    ["EROFS", "EACCES", "EPERM", "SQLITE_READONLY%", "SQLITE_PERM"],
    503,
    "The shop's data are read-only at the moment: nothing was saved. Make the data folder writable, then try again; nothing needs to be restarted",
  ],
  [
    ["SQLITE_CORRUPT%", "SQLITE_NOTADB"],
    503,
    "The shop's database is damaged: nothing was saved. Stop the app, run `pelota verify`, and restore the last good backup (see the README)",
  ],
  [
    ["SQLITE_IOERR_WRITE"],
    507,
    "The disk of the shop's computer takes no more, because it is full, limited or failing: nothing was saved. Make room on it, then try again; nothing needs to be restarted",
  ],
  [
    ["EIO", "SQLITE_IOERR%"],
    503,
    "The disk of the shop's computer does not answer as it should: nothing was saved. Look after the disk, then try again",
  ],
  [
    ["SQLITE_BUSY%", "SQLITE_LOCKED%", "EMFILE", "ENFILE"],
    503,
    "The shop's computer is busy: nothing was saved. Try again in a moment",
  ],
];

const isOf = (code: string, pattern: string) =>
  pattern.endsWith("%") ? code.startsWith(pattern.slice(0, -1)) : code === pattern;

/** Answer for a failing disk or database; undefined for any other error. */
export function diskTrouble(error: unknown): { readonly status: number; readonly message: string } | undefined {
  const code = error instanceof Error ? (error as { code?: unknown }).code : undefined;
  if (typeof code !== "string") return undefined;
  const trouble = TROUBLES.find(([codes]) => codes.some((pattern) => isOf(code, pattern)));
  return trouble && { status: trouble[1], message: trouble[2] };
}
