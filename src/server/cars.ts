import { and, desc, eq, ne, sql } from "drizzle-orm";
import type { KnownCar, LikeCar, Visit } from "@/core/journal";
import type { VehicleRecord } from "@/core/vehicle";
import { type Db, db } from "./db/open";
import { entries, jobs } from "./db/schema";
import { parsed } from "./parsed";

/** Earlier visits of one car that are told */
const VISITS = 5;
/** Cars like the one that is being written down are offered so many at a time. */
const LIKE = 8;

/** A registration as it is compared: letters and digits alone, whatever way they were typed. */
const plain = (registration: string) => registration.toUpperCase().replace(/[^\p{L}\p{N}]/gu, "");

/** The newest jobs on a car in this shop, by its registration; none for less than three signs of it, nor in practice. */
export function visitsOf(registration: string, at: Db = db()): Visit[] {
  const wanted = plain(registration);
  if (wanted.length < 3) return [];
  const { id, number, status, complaint, updatedAt } = jobs;
  return at
    .select({ id, number, status, complaint, updatedAt })
    .from(jobs)
    .where(
      and(
        eq(jobs.practice, ""),
        sql`replace(replace(replace(upper(${jobs.registration}), ' ', ''), '-', ''), '.', '') = ${wanted}`,
      ),
    )
    .orderBy(desc(jobs.updatedAt))
    .limit(VISITS)
    .all();
}

/** A job's vehicle as somebody described it last; undefined where nobody has, and in a practice bay. */
export function vehicleRecordOf(jobId: string, at: Db = db()): VehicleRecord | undefined {
  const given = at
    .select({ body: entries.body })
    .from(entries)
    .innerJoin(jobs, eq(jobs.id, entries.jobId))
    .where(and(eq(entries.jobId, jobId), eq(entries.kind, "vehicle"), eq(jobs.practice, "")))
    .orderBy(desc(entries.seq))
    .limit(1)
    .get();
  return given && parsed<VehicleRecord>(given.body);
}

/** What the shop knows of a car by its registration. */
export function knownCar(registration: string, at: Db = db()): KnownCar {
  const visits = visitsOf(registration, at);
  const described = visits.map(({ id }) => vehicleRecordOf(id, at)).find((facts) => facts !== undefined);
  if (!described) return { visits };
  const { odometer: _, ...facts } = described;
  return { visits, facts };
}

/**
 * The newest cars of this shop whose make, model, year or engine holds what was typed, each kind once: facts, fitted systems and
 * the maker's limits. Nothing of the one car itself: no registration, VIN or odometer, no port that was tapped into it.
 */
export function carsLike(typed: string, at: Db = db()): LikeCar[] {
  const words = typed.trim().slice(0, 40);
  if (words.length < 2) return [];
  const { id, vehicle, engine, updatedAt } = jobs;
  const escaped = `%${words.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
  // Beside the greatest of a group SQLite gives the other columns of that very row.
  const newest = sql<string>`max(${updatedAt})`;
  return at
    .select({ job: id, vehicle, newest })
    .from(jobs)
    .where(and(eq(jobs.practice, ""), ne(vehicle, ""), sql`${vehicle} like ${escaped} escape '\\'`))
    .groupBy(vehicle, engine)
    .orderBy(desc(newest))
    .limit(LIKE)
    .all()
    .flatMap(({ job, vehicle }): LikeCar[] => {
      const described = vehicleRecordOf(job, at);
      if (!described) return [];
      const { registration: _r, vin: _v, odometer: _o, tapped: _t, ...facts } = described;
      return [{ job, vehicle, facts }];
    });
}
