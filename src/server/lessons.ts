import { desc, eq } from "drizzle-orm";
import { type Lessons, type WhatWeKnow, whatWeKnow } from "@/core/lessons";
import { type Db, db } from "./db/open";
import { jobs, lessons } from "./db/schema";

/** Keeps what a job teaches beside it; a job that teaches nothing any more has nothing there. */
export function keepLessons(jobId: string, taught: Lessons | undefined, at: Db): void {
  if (!taught) return void at.delete(lessons).where(eq(lessons.jobId, jobId)).run();
  const value = JSON.stringify(taught);
  at.insert(lessons)
    .values({ jobId, lessons: value })
    .onConflictDoUpdate({ target: lessons.jobId, set: { lessons: value } })
    .run();
}

/** The newest jobs that are looked at: what a shop did years ago says little of how it works today. */
const LOOKED_AT = 2000;

/** Statistics from this shop's own jobs of how well it works. */
export function whatWeKnowHere(at: Db = db()): WhatWeKnow {
  const rows = at
    .select({ lessons: lessons.lessons })
    .from(lessons)
    .innerJoin(jobs, eq(jobs.id, lessons.jobId))
    .orderBy(desc(jobs.updatedAt))
    .limit(LOOKED_AT)
    .all();
  return whatWeKnow(rows.map((row) => JSON.parse(row.lessons) as Lessons));
}
