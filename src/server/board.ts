import { and, asc, desc, eq, inArray, like, lt, lte, ne, notInArray, or, type SQL, sql } from "drizzle-orm";
import { FAMILIES, FAMILY_IDS } from "@/core/faults";
import { callsOf, foldJob, isDueAtCar, type JobState, provedOf, type WaitingOn } from "@/core/journal";
import { lessonsOf } from "@/core/lessons";
import { engineOf, vehicleName } from "@/core/vehicle";
import { now } from "./clock";
import { type Db, db } from "./db/open";
import { entries, jobs } from "./db/schema";
import { experienceFor } from "./experience";
import { readEntries } from "./jobs";
import { keepLessons } from "./lessons";
import { houseOn, readShop } from "./shop";
import { hasWorker, journalsFollowed } from "./worker";

export type BoardRow = typeof jobs.$inferSelect;

/** Folded columns for board and search. */
export function boardColumns(state: JobState) {
  const v = state.vehicle;
  const families = familiesOf(state);
  const proved = provedOf(state, families);
  const calls = callsOf(state);
  return {
    status: state.status,
    station: state.nextStation.station,
    reason: state.nextStation.reason,
    // What an apprentice asks for waits for the lead, whatever else it waits for.
    waitingOn: asksLead(state) ? "lead" : state.waiting.on,
    vehicle: v ? vehicleName(v) : "",
    registration: v?.registration ?? "",
    complaint: state.story?.complaint ?? "",
    codes: state.codes.map((c) => c.code).join(" "),
    updatedAt: state.updatedAt,
    families: families.join(" "),
    proved: proved ? JSON.stringify(proved) : "",
    engine: v ? engineOf(v) : "",
    calls: calls.length > 0 ? JSON.stringify(calls) : "",
    recheck: calls.find(isDueAtCar)?.on ?? "",
    practice: state.practice ?? "",
  };
}

/** Whether a lead is asked to look at it. */
const asksLead = ({ closing, repairs }: Pick<JobState, "closing" | "repairs">) =>
  (closing && !closing.sentBack) || repairs.some((r) => r.proposed && !r.undone);

/** The families whose codes were read; the engine's where nothing points elsewhere. */
function familiesOf({ codes }: Pick<JobState, "codes">): string[] {
  const read = new Set(codes.map((c) => c.code.toUpperCase()));
  const pointed = FAMILY_IDS.filter((id) => FAMILIES[id].codes.some(({ code }) => read.has(code)));
  return pointed.length > 0 ? pointed : ["engine"];
}

function refreshBoard(jobId: string, at: Db): void {
  const journal = readEntries(jobId, 0, at);
  const shop = readShop(at);
  const before = at.select({ status: jobs.status, proved: jobs.proved }).from(jobs).where(eq(jobs.id, jobId)).get();
  // In a closed job nothing is looked for any more.
  const state = foldJob(journal, shop, now(), before?.status === "closed" ? undefined : experienceFor(jobId, at));
  const newest = at
    .select({ by: entries.by })
    .from(entries)
    .where(eq(entries.jobId, jobId))
    .orderBy(desc(entries.seq))
    .limit(1)
    .get();
  const columns = boardColumns(state);
  at.update(jobs)
    .set({ ...columns, person: newest?.by ?? "", folded: state.lastSeq })
    .where(eq(jobs.id, jobId))
    .run();
  // What is looked for in other cars with this engine goes by it, too.
  if (columns.engine !== "" && columns.proved !== before?.proved)
    at.update(jobs)
      .set({ folded: 0 })
      .where(and(eq(jobs.engine, columns.engine), ne(jobs.id, jobId), inArray(jobs.status, ["open", "review"])))
      .run();
  keepLessons(jobId, lessonsOf(journal, state, { families: familiesOf(state), shop, houseOn: (day) => houseOn(day, at) }), at);
}

/** Rebuilds every job's folded columns from its journal; returns how many. */
export function rebuildBoard(at: Db = db()): number {
  const ids = at.select({ id: jobs.id }).from(jobs).all();
  for (const { id } of ids) refreshBoard(id, at);
  return ids.length;
}

/** Jobs that were written to after their columns were folded. */
export const staleJobs = (at: Db = db()): string[] =>
  at
    .select({ id: jobs.id })
    .from(jobs)
    .where(lt(jobs.folded, jobs.top))
    .all()
    .map(({ id }) => id);

/** Folds one job's columns; one that cannot be folded or written now stays as it was. @returns whether it was done. */
export function tryRefresh(jobId: string, at: Db = db()): boolean {
  try {
    refreshBoard(jobId, at);
    return true;
  } catch (error) {
    console.error(error);
    return false;
  }
}

/** Folds the columns of the jobs that were written to since: whoever writes does not wait for it. */
export function refreshStale(at: Db = db()): void {
  for (const id of staleJobs(at)) tryRefresh(id, at);
}

/** Retry delay for what could not be folded, or written, is tried again after so long, ms. */
const PAUSE = 5000;
/** Jobs that could not be folded, and when they are tried again, ms. */
const paused = new Map<string, number>();
let following: Promise<void> | undefined;

/**
 * Folds what was written to, one job at a time, so that who asks meanwhile waits for one at most. Done when everything that was written
 * before it was called is folded, or could not be. @param changed told of each job that was.
 */
export async function followJournals(changed: (jobId: string) => void): Promise<void> {
  // What is being folded may have been read before the newest entry was written.
  await following;
  following ??= follow(changed).finally(() => {
    following = undefined;
  });
  await following;
}

async function follow(changed: (jobId: string) => void): Promise<void> {
  for (const jobId of staleJobs()) {
    if ((paused.get(jobId) ?? 0) > Date.now()) continue;
    paused.delete(jobId);
    if (withoutWaiting(() => tryRefresh(jobId))) changed(jobId);
    else paused.set(jobId, Date.now() + PAUSE);
    await new Promise<void>((next) => setImmediate(next));
  }
}

/** Columns can be folded anew: whoever writes a journal meanwhile does not wait for the disk on their behalf. */
function withoutWaiting<T>(write: () => T): T {
  const { $client } = db();
  $client.pragma("synchronous = NORMAL");
  try {
    return write();
  } finally {
    $client.pragma("synchronous = FULL");
  }
}

/** How long somebody who looks at the board waits for what was written just now, ms. */
const PATIENCE = 3000;
/** As many jobs are written to at once by an import alone: nobody waits for them. */
const MANY = 100;

/**
 * Waits until the columns have followed everything that was written before it is called: the thread beside sees to it, or where there
 * is none, this one. @param patience ms. @returns how many jobs the columns are behind with: 0 unless it took longer, cannot be done, or
 * is not waited for.
 */
export async function boardFolded(patience = PATIENCE): Promise<number> {
  if (!hasWorker()) {
    refreshStale();
    return staleJobs().length;
  }
  const stale = staleJobs().length;
  if (stale === 0 || stale > MANY) return stale;
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<void>((done) => {
    timer = setTimeout(done, patience);
  });
  // A thread that has just ended is started again, and folds them by itself.
  await Promise.race([journalsFollowed().catch(() => {}), late]);
  clearTimeout(timer);
  return staleJobs().length;
}

/** Which jobs are looked for; what is left out asks nothing. */
export interface BoardFilter {
  /** In vehicle, registration, complaint, codes and number; every word must be found */
  readonly search?: string;
  readonly includeClosed?: boolean;
  readonly waitingOn?: string;
  /** The practice bays instead of the real cars */
  readonly practice?: boolean;
  /** Who wrote last */
  readonly person?: string;
  readonly family?: string;
  /** Not written to for so many days */
  readonly quietDays?: number;
  /** Something is to be looked at again by this day */
  readonly recheckBy?: string;
}

/** Jobs of a lane: open jobs by what they wait for, and those that are handed over. */
export type LaneId = WaitingOn | "lead" | "done";
const LANES: readonly LaneId[] = ["lead", "me", "customer", "part", "cold-soak", "drive", "done"];

/** A lane's place on the board, as the `lane` of a job's row names it. */
const placeOf = (lane: string) => LANES.indexOf(lane as LaneId);

const DAY = 24 * 3600_000;

/** A short word as it may be written: each of its letters large or small. */
const writings = (word: string): string[] =>
  [...word].reduce<string[]>(
    (all, letter) => {
      const both = [...new Set([letter.toLowerCase(), letter.toUpperCase()])];
      return all.flatMap((start) => both.map((as) => start + as));
    },
    [""],
  );

/** A word found anywhere in a job's number, vehicle, registration, complaint or codes. */
function found(word: string): SQL | undefined {
  // The index is over every three letters in a row: what is shorter is looked for in the rows themselves.
  if ([...word].length >= 3)
    return sql`${jobs.number} in (select rowid from job_search where job_search match ${`"${word.replaceAll('"', '""')}"`})`;
  const text = sql.join([jobs.number, jobs.vehicle, jobs.registration, jobs.complaint, jobs.codes], sql` || char(10) || `);
  // SQL makes plain letters small, and no others.
  if (/^[!-~]*$/.test(word)) return sql`instr(lower(${text}), ${word.toLowerCase()}) > 0`;
  return or(...writings(word).map((as) => sql`instr(${text}, ${as}) > 0`));
}

function whereOf(filter: BoardFilter, today: number): SQL | undefined {
  const matches = (filter.search ?? "")
    // Nothing that is stored holds a zero, which ends a text in SQL.
    .split(/[\s\0]+/)
    .filter(Boolean)
    .slice(0, 6)
    .map(found);
  return and(
    ...matches,
    // Practice stands nowhere among real jobs.
    filter.practice ? ne(jobs.practice, "") : eq(jobs.practice, ""),
    // What was closed in another shop is as closed to the board as what was closed here.
    ...(filter.includeClosed ? [] : [notInArray(jobs.status, ["closed", "elsewhere"])]),
    ...(filter.waitingOn ? [eq(jobs.lane, placeOf(filter.waitingOn))] : []),
    ...(filter.person ? [eq(jobs.person, filter.person)] : []),
    ...(filter.family ? [like(jobs.families, `%${filter.family.replace(/[%_]/g, "")}%`)] : []),
    ...(filter.quietDays ? [lte(jobs.updatedAt, new Date(today - filter.quietDays * DAY).toISOString())] : []),
    ...(filter.recheckBy ? [ne(jobs.recheck, ""), lte(jobs.recheck, filter.recheckBy)] : []),
  );
}

/** Jobs that match, newest first. */
export function listJobs(filter: BoardFilter & { limit?: number; offset?: number } = {}, at: Db = db()): BoardRow[] {
  return at
    .select()
    .from(jobs)
    .where(whereOf(filter, Date.now()))
    .orderBy(desc(jobs.updatedAt))
    .limit(filter.limit ?? 200)
    .offset(filter.offset ?? 0)
    .all();
}

/** Jobs on one page of the board */
export const PAGE = 50;

export interface BoardPage {
  readonly jobs: readonly (Omit<BoardRow, "lane"> & { readonly lane: LaneId })[];
  /** How many each lane holds in all, on this page or not */
  readonly counts: Readonly<Record<LaneId, number>>;
  readonly total: number;
  readonly page: number;
  readonly pages: number;
}

/** One page of the board, lane after lane, newest first in each. @param page from 1; one beyond the last is the last. */
export function boardPage(filter: BoardFilter, page = 1, at: Db = db(), today = Date.now()): BoardPage {
  // Which jobs and in what order is read once, without what is shown of them.
  const found = at
    .select({ id: jobs.id, lane: jobs.lane })
    .from(jobs)
    .where(whereOf(filter, today))
    .orderBy(asc(jobs.lane), desc(jobs.updatedAt))
    .values() as [string, number][];
  const counts = Object.fromEntries(LANES.map((id) => [id, 0])) as Record<LaneId, number>;
  for (const [, lane] of found) counts[LANES[lane] as LaneId]++;
  const total = found.length;
  const pages = Math.max(1, Math.ceil(total / PAGE));
  const shown = Math.min(pages, Math.max(1, Math.floor(page) || 1));
  const ids = found.slice((shown - 1) * PAGE, shown * PAGE).map(([id]) => id);
  const rows = at.select().from(jobs).where(inArray(jobs.id, ids)).orderBy(asc(jobs.lane), desc(jobs.updatedAt)).all();
  return {
    jobs: rows.map((job) => ({ ...job, lane: LANES[job.lane as number] as LaneId })),
    counts,
    total,
    page: shown,
    pages,
  };
}
