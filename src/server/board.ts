import { and, desc, eq, like, lt, ne, or, sql } from "drizzle-orm";
import type { JobState } from "@/core/journal";
import { vehicleName } from "@/core/vehicle";
import { besides } from "./beside";
import { type Db, db } from "./db/open";
import { jobs } from "./db/schema";
import { readJob } from "./jobs";

export type BoardRow = typeof jobs.$inferSelect;

/** Folded columns for board and search. */
export function boardColumns(state: JobState) {
  const v = state.vehicle;
  return {
    status: state.status,
    station: state.nextStation.station,
    reason: state.nextStation.reason,
    waitingOn: state.waiting.on,
    vehicle: v ? vehicleName(v) : "",
    registration: v?.registration ?? "",
    complaint: state.story?.complaint ?? "",
    codes: state.codes.map((c) => c.code).join(" "),
    updatedAt: state.updatedAt,
  };
}

function refreshBoard(jobId: string, at: Db): void {
  const state = readJob(jobId, at);
  at.update(jobs)
    .set({ ...boardColumns(state), folded: state.lastSeq })
    .where(eq(jobs.id, jobId))
    .run();
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

/** How long somebody who looks at the board waits for what was written just now, and how often that is asked, ms. */
const PATIENCE = 300;
const ASK_EVERY = 15;

/** Until the columns have followed the journals: the thread beside sees to it, or where there is none, this one. */
export async function boardFolded(): Promise<void> {
  if (!besides()) return refreshStale();
  for (const until = Date.now() + PATIENCE; staleJobs().length > 0 && Date.now() < until; )
    await new Promise((done) => setTimeout(done, ASK_EVERY));
}

/** The board: jobs by what they wait for, newest first; `search` looks in vehicle, registration, complaint, codes and number. */
export function listJobs(
  filter: { search?: string; includeClosed?: boolean; limit?: number; offset?: number } = {},
  at: Db = db(),
): BoardRow[] {
  const words = (filter.search ?? "").trim().split(/\s+/).filter(Boolean).slice(0, 6);
  const matches = words.map((word) => {
    const pattern = `%${word.replace(/[%_]/g, "")}%`;
    return or(
      like(jobs.vehicle, pattern),
      like(jobs.registration, pattern),
      like(jobs.complaint, pattern),
      like(jobs.codes, pattern),
      sql`cast(${jobs.number} as text) like ${pattern}`,
    );
  });
  return at
    .select()
    .from(jobs)
    .where(and(...matches, ...(filter.includeClosed ? [] : [ne(jobs.status, "closed")])))
    .orderBy(desc(jobs.updatedAt))
    .limit(filter.limit ?? 200)
    .offset(filter.offset ?? 0)
    .all();
}
