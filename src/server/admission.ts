import { and, eq } from "drizzle-orm";
import { BadInput } from "@/core/input";
import { asMade, type Entry, entryAct, type JournalEntry, openingOf, spanOf } from "@/core/journal";
import { isAsSigned, may, mayNot, OFFLINE_DAYS, type Role } from "@/core/people";
import { now } from "./clock";
import { type Db, db } from "./db/open";
import { entries } from "./db/schema";
import { isDeviceOut, outSince } from "./devices";
import { hasLead } from "./people";
import { NotSignedIn } from "./refusals";
import { type SignInRow, signInRow } from "./sign-in";

/**
 * How something comes in: from the device that made it, which can be asked to sign anew; from a file of what waited on a device
 * that is out, as a lead looks through it; or from a job's file.
 */
export type Way = "door" | "queue" | "file";

/** Things that devices sign: an entry, or the opening of a job. */
export type Made = Pick<Entry, "jobId" | "at" | "by" | "device" | "signed" | "person" | "madeAt" | "prior"> &
  Partial<Pick<Entry, "seenSeq">>;

/** Content made by an author, under the name and the role that the server knows, and why it is kept as history, if it is. */
export type Authored<T> = T & { readonly by: string; readonly role?: Role; readonly history?: string };

const DAY = 24 * 3600_000;
/** Clocks that were set by each other lie no further apart, ms. */
const SLACK = 5 * 60_000;

/** When a device can have seen an entry at the earliest: what it made itself it knew before that was recorded. */
function seenAt(at: Db, jobId: string, seq: number, device: string): number | undefined {
  if (seq === 0) return 0;
  const row = at
    .select({ recordedAt: entries.recordedAt, device: entries.device })
    .from(entries)
    .where(and(eq(entries.jobId, jobId), eq(entries.seq, seq)))
    .get();
  return row?.device === device ? 0 : row && Date.parse(row.recordedAt);
}
const madeBefore = (at: Db, prior: string): number => {
  const row = at.select({ madeAt: entries.madeAt }).from(entries).where(eq(entries.id, prior)).get();
  return row?.madeAt ? Date.parse(row.madeAt) : 0;
};

/**
 * When something was made, ms since 1970: as it says, but no earlier than what it had seen was recorded and what its device made
 * before it was made, and no later than now. What does not say counts by its own time as it always did, under a sign-in from
 * before anything said; under any other it was made just now.
 */
function madeWhen({ jobId, at: happened, madeAt, seenSeq = 0, device, prior }: Made, row: SignInRow, at: Db): number {
  const arrival = now();
  if (madeAt === undefined) return row.form === 1 ? spanOf(happened).from : arrival;
  const seen = seenAt(at, jobId, seenSeq, device) ?? arrival;
  return Math.min(arrival, Math.max(Date.parse(madeAt), seen, prior === undefined ? 0 : madeBefore(at, prior)));
}

/** Why something does not count under the sign-in that it names, and whether its maker can sign it anew. */
interface Outside {
  readonly why: string;
  readonly anew: boolean;
}
const leftSince = ({ name, leftAt }: SignInRow, made: number): Outside | undefined =>
  leftAt && made > Date.parse(leftAt) ? { why: `${name} has left the shop, and this was made since`, anew: false } : undefined;
const tooLate = ({ name }: SignInRow): Outside => ({
  why: `${name} signed in more than ${OFFLINE_DAYS} days before this`,
  anew: true,
});
const OUT: Outside = { why: "Its device had been removed when this was made", anew: true };

/** Whether what is of the first form was made within its sign-in, as it was asked before there was another. */
function outsideFirstForm(began: number, row: SignInRow, way: Way, at: Db): Outside | undefined {
  const left = leftSince(row, began);
  if (left) return left;
  if (began > Date.parse(row.at) + (OFFLINE_DAYS + 1) * DAY) return tooLate(row);
  // A lead looks through what waited on a device that is out; nobody has looked through a job's file.
  const out = way === "file" ? outSince(row.deviceId, at) : undefined;
  return out !== undefined && began > out ? OUT : undefined;
}

/** Whether something was made while its sign-in held: from its beginning until it ended, ran out, or its device was out. */
function outside(made: number, row: SignInRow, at: Db): Outside | undefined {
  if (made < Date.parse(row.at) - SLACK) return { why: `It was made before ${row.name} had signed in`, anew: false };
  const left = leftSince(row, made);
  if (left) return left;
  if (made > Date.parse(row.at) + OFFLINE_DAYS * DAY + SLACK) return tooLate(row);
  const out = outSince(row.deviceId, at);
  if (out !== undefined && made > out) return OUT;
  if (row.endedAt && made > Date.parse(row.endedAt))
    return { why: `The sign-in of ${row.name} had ended when this was made`, anew: true };
  return undefined;
}

/** The role that something stands under: the one that held when it was made. */
function roleOf(made: number, row: SignInRow): Role {
  return (row.endedAt && made > Date.parse(row.endedAt) ? row.roleNow : row.role) as Role;
}

/**
 * Asks of what comes in, by whatever way, who made it and whether it counts: name and role are those of the sign-in that it was
 * made under, whatever stands on it. What was made outside its sign-in is kept as history by a file; at a door its maker signs
 * it anew where they can, and what lies before the sign-in is history there too.
 * Throws NotSignedIn where it must be signed anew, BadInput where it never can be taken.
 */
export function admitted<T extends Made>(made: T, practice: boolean, way: Way = "door", at: Db = db()): Authored<T> {
  if (!hasLead(at)) {
    const { signed: _, person: __, ...rest } = made;
    return rest as unknown as T;
  }
  const { signed } = made;
  if (!signed) throw new NotSignedIn(`${made.by} has not signed this in: sign in, and it goes out`);
  const row = signInRow(signed.signIn, at);
  if (!row) throw new NotSignedIn(`The sign-in of ${made.by} is not known here: sign in anew, and it goes out`);
  if (!isAsSigned({ ...made, signed }, row.key))
    throw new BadInput("This is not as it was signed: somebody changed it on its way, and it is not taken", "signed");
  if (made.person !== undefined && made.person !== row.personId)
    throw new BadInput(`This says that somebody else made it than ${row.name}, who signed it`, "person");
  if (way === "door" && isDeviceOut(row.deviceId, at))
    throw new BadInput(
      "It was made on a device that was removed: save it there as a file, and a lead looks through it",
      "signed",
    );
  const when = madeWhen(made, row, at);
  // The clock of a practice bay runs ahead of the wall's.
  const firstForm = made.madeAt === undefined && row.form === 1;
  const wrong = firstForm ? (practice ? undefined : outsideFirstForm(when, row, way, at)) : outside(when, row, at);
  const authored = { ...made, by: row.name, role: firstForm && practice ? (row.role as Role) : roleOf(when, row) };
  if (!wrong) return authored;
  const kept = way !== "door" || (!firstForm && !wrong.anew && !row.leftAt);
  if (kept) return { ...authored, history: wrong.why };
  throw wrong.anew
    ? new NotSignedIn(`${wrong.why}: sign in anew, and it goes out`)
    : new BadInput(`${wrong.why}: it is not taken`, "signed");
}

/** An entry under its author; one that the author's role may not make is refused, and in a file history. In a practice bay everybody may. */
export function admittedEntry(entry: Entry, practice: boolean, way: Way = "door", at: Db = db()): Authored<Entry> {
  const by = admitted(entry, practice, way, at);
  const act = entryAct(entry);
  if (practice || by.history !== undefined || may(by.role, act)) return by;
  if (way === "file") return { ...by, history: mayNot(act) };
  throw new BadInput(mayNot(act), "kind");
}

/** Whether an entry that comes in a file stands under a sign-in of this shop: `unknown` where it names none, or another shop's. */
export function signatureOf(entry: JournalEntry, at: Db = db()): "holds" | "broken" | "unknown" {
  const { signed } = entry;
  const row = signed && signInRow(signed.signIn, at);
  if (!signed || !row) return "unknown";
  // A job's number is the server's: its opening was signed without.
  const made = entry.kind === "opened" ? openingOf(asMade(entry)) : asMade(entry);
  return isAsSigned({ ...made, signed }, row.key) ? "holds" : "broken";
}
