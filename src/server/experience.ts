import { and, desc, eq, ne } from "drizzle-orm";
import { engineOf, experienceOf, LATEST, type Proved, type Tally } from "@/core/suspects";
import { type GivenFacts, vehicleFacts } from "@/core/vehicle";
import { now } from "./clock";
import { type Db, db } from "./db/open";
import { entries, jobs } from "./db/schema";
import { parsed } from "./parsed";

/** The newest proved jobs that are looked at, whatever they are about. */
const LOOKED_AT = 10 * LATEST;

/** What the shop's own proved jobs say of a job's car; undefined where there are not enough, and in a practice bay. */
export function experienceFor(jobId: string, at: Db = db()): Tally | undefined {
  const job = at.select({ practice: jobs.practice, families: jobs.families }).from(jobs).where(eq(jobs.id, jobId)).get();
  const given = at
    .select({ body: entries.body })
    .from(entries)
    .where(and(eq(entries.jobId, jobId), eq(entries.kind, "vehicle")))
    .orderBy(desc(entries.seq))
    .limit(1)
    .get();
  if (!job || job.practice || !given) return undefined;
  const vehicle = vehicleFacts(parsed<GivenFacts>(given.body));
  const rows = at
    .select({ proved: jobs.proved })
    .from(jobs)
    // A job is no experience for itself.
    .where(and(ne(jobs.proved, ""), eq(jobs.practice, ""), ne(jobs.id, jobId)))
    .orderBy(desc(jobs.updatedAt))
    .limit(LOOKED_AT)
    .all();
  const age = vehicle.year === undefined ? undefined : new Date(now()).getUTCFullYear() - vehicle.year;
  return experienceOf(
    rows.map((row) => JSON.parse(row.proved) as Proved),
    { engine: engineOf(vehicle), families: job.families.split(" "), age },
  );
}
