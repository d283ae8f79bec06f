import { and, desc, eq, inArray, ne, type SQL, sql } from "drizzle-orm";
import type { CarsOfVin, KnownCar, LikeCar, Visit } from "@/core/journal";
import { isVin, type VehicleRecord } from "@/core/vehicle";
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
  return visitsWhere(sql`replace(replace(replace(upper(${jobs.registration}), ' ', ''), '-', ''), '.', '') = ${wanted}`, at);
}

const visitsIn = (ids: readonly string[], at: Db) => visitsWhere(inArray(jobs.id, [...ids]), at);

function visitsWhere(which: SQL, at: Db): Visit[] {
  const { id, number, status, complaint, updatedAt } = jobs;
  return at
    .select({ id, number, status, complaint, updatedAt })
    .from(jobs)
    .where(and(eq(jobs.practice, ""), which))
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
      return described ? [{ job, vehicle, facts: kindOf(described) }] : [];
    });
}

/** Facts of a kind of car, without what is the one car's own. */
function kindOf({ registration: _r, vin: _v, odometer: _o, tapped: _t, ...facts }: VehicleRecord): VehicleRecord {
  return facts;
}

/** Signs of a VIN that tell the maker and the kind of vehicle: world maker identifier and attributes (ISO 3779, 49 CFR 565.15). */
const KIND = 8;
/** Cars alike in those are looked through so far back. */
const LOOKED_THROUGH = 40;

/**
 * What the shop knows by a VIN: the very car, under whatever registration it was here, and cars alike in maker and kind, each
 * name once. Nothing by less than a whole VIN.
 */
export function carsOfVin(typed: string, at: Db = db()): CarsOfVin {
  const vin = typed.trim().toUpperCase();
  if (!isVin(vin)) return { like: [] };
  const written = sql<string>`upper(json_extract(${entries.body}, '$.vin'))`;
  const rows = at
    .selectDistinct({ job: jobs.id, vehicle: jobs.vehicle, registration: jobs.registration, updatedAt: jobs.updatedAt })
    .from(entries)
    .innerJoin(jobs, eq(jobs.id, entries.jobId))
    .where(and(eq(entries.kind, "vehicle"), eq(jobs.practice, ""), sql`${written} like ${`${vin.slice(0, KIND)}%`}`))
    .orderBy(desc(jobs.updatedAt))
    .limit(LOOKED_THROUGH)
    .all()
    // A VIN that was corrected since is the car's no more.
    .flatMap((row) => {
      const described = vehicleRecordOf(row.job, at);
      const now = described?.vin?.toUpperCase();
      return described && now?.startsWith(vin.slice(0, KIND)) ? [{ ...row, described, same: now === vin }] : [];
    });
  const itself = rows.find((row) => row.same);
  const others = rows.filter((row, i) => rows.findIndex((other) => other.vehicle === row.vehicle) === i);
  const like = others.map(({ job, vehicle, described }): LikeCar => ({ job, vehicle, facts: kindOf(described) })).slice(0, LIKE);
  if (!itself) return { like };
  const { odometer: _, ...facts } = itself.described;
  return {
    car: {
      visits: visitsIn(
        rows.filter((row) => row.same).map((row) => row.job),
        at,
      ),
      facts,
    },
    like,
  };
}
