import { and, desc, eq, ne } from "drizzle-orm";
import { causesOf, type Family } from "@/core/faults";
import { type EngineCard, engineCard } from "@/core/journal";
import {
  experienceOf,
  experienceOfEngine,
  foundAmong,
  LATEST,
  type LearnedEngine,
  type Proved,
  type Tally,
  withExperience,
} from "@/core/suspects";
import { formatQuantity } from "@/core/units";
import { engineOf, layoutOf, type VehicleFacts, vehicleFacts } from "@/core/vehicle";
import { vehicleRecordOf } from "./cars";
import { now } from "./clock";
import { type Db, db } from "./db/open";
import { entries, jobs } from "./db/schema";
import { readJob } from "./jobs";

/** The newest proved jobs that are looked at, whatever they are about. */
const LOOKED_AT = 10 * LATEST;

/** A job's vehicle as it was described last; undefined where nobody has, and in a practice bay. */
function vehicleOf(jobId: string, at: Db): { readonly vehicle: VehicleFacts; readonly families: string } | undefined {
  const job = at.select({ families: jobs.families }).from(jobs).where(eq(jobs.id, jobId)).get();
  const given = vehicleRecordOf(jobId, at);
  return job && given && { vehicle: vehicleFacts(given), families: job.families };
}

/** The newest proved jobs on real cars but this one. */
const provedBut = (jobId: string, at: Db) =>
  at
    .select({ id: jobs.id, number: jobs.number, proved: jobs.proved })
    .from(jobs)
    // A job is no experience for itself.
    .where(and(ne(jobs.proved, ""), eq(jobs.practice, ""), ne(jobs.id, jobId)))
    .orderBy(desc(jobs.updatedAt))
    .limit(LOOKED_AT)
    .all()
    .map((row) => ({ ...row, proved: JSON.parse(row.proved) as Proved }));

/** Jobs that a card is folded from, at most: each is folded whole. */
const ON_CARD = 20;

/** The newest jobs on an engine in which somebody wrote something down for its card. */
const notedOn = (engine: string, at: Db) =>
  at
    .selectDistinct({ id: jobs.id, number: jobs.number, updatedAt: jobs.updatedAt })
    .from(jobs)
    .innerJoin(entries, and(eq(entries.jobId, jobs.id), eq(entries.kind, "engine-note")))
    .where(and(eq(jobs.engine, engine), eq(jobs.practice, "")))
    .orderBy(desc(jobs.updatedAt))
    .limit(ON_CARD)
    .all();

/** Experience of the shop of a job's engine: folded from the newest of its proved jobs. */
export function engineCardFor(jobId: string, at: Db = db()): EngineCard | undefined {
  const car = vehicleOf(jobId, at);
  const engine = car ? engineOf(car.vehicle) : "";
  if (engine === "") return undefined;
  const same = provedBut(jobId, at)
    .filter(({ proved }) => proved.engine === engine)
    .slice(0, ON_CARD);
  const folded = (list: readonly { readonly id: string; readonly number: number }[]) =>
    list.map(({ id, number }) => ({ jobId: id, number, state: readJob(id, at) }));
  return engineCard(folded(same), folded(notedOn(engine, at)));
}

/** Experience of the shop of each engine that it has proved often enough, the most frequent first. */
export function learnedHere(at: Db = db()): LearnedEngine[] {
  const proved = provedBut("", at);
  const engines = [...new Set(proved.map((row) => row.proved.engine))].filter((engine) => engine !== "");
  return engines
    .flatMap((engine): LearnedEngine[] => {
      const same = proved.filter((row) => row.proved.engine === engine);
      const vehicle = vehicleOf(same[0]?.id ?? "", at)?.vehicle;
      const experience = experienceOfEngine(same.map((row) => row.proved));
      if (!vehicle || !experience) return [];
      const families = [...new Set(same.flatMap((row) => row.proved.families))] as Family[];
      const moved = withExperience(causesOf(layoutOf(vehicle), vehicle, families), experience)
        .flatMap(({ name, learned, ...cause }) =>
          learned && foundAmong(experience, cause) > 0 ? [{ name, factor: learned.factor, says: learned.says }] : [],
        )
        .toSorted((a, b) => b.factor - a.factor);
      const words = [vehicle.make, formatQuantity(vehicle.displacement), vehicle.fuel].join(" ");
      return [{ engine: words, jobs: experience.jobs, moved }];
    })
    .toSorted((a, b) => b.jobs - a.jobs);
}

/** Experience from the shop's own proved jobs for a job's car; undefined where there are not enough, and in a practice bay. */
export function experienceFor(jobId: string, at: Db = db()): Tally | undefined {
  const car = vehicleOf(jobId, at);
  if (!car) return undefined;
  const { vehicle, families } = car;
  const age = vehicle.year === undefined ? undefined : new Date(now()).getUTCFullYear() - vehicle.year;
  return experienceOf(
    provedBut(jobId, at).map((row) => row.proved),
    { engine: engineOf(vehicle), families: families.split(" "), age },
  );
}
