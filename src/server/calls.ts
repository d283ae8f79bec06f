import { and, eq, ne } from "drizzle-orm";
import { type Call, type CustomerCall, lapsed } from "@/core/journal";
import { nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { customers, jobs } from "./db/schema";

/** Whom to call, the first first; practice and what lapsed are left out. */
export function callsDue(at: Db = db(), today = nowIso().slice(0, 10)): CustomerCall[] {
  const { id, number, vehicle, registration, calls } = jobs;
  return at
    .select({ jobId: id, number, vehicle, registration, calls, name: customers.name, contact: customers.contact })
    .from(jobs)
    .leftJoin(customers, eq(customers.jobId, jobs.id))
    .where(and(ne(calls, ""), eq(jobs.practice, "")))
    .all()
    .flatMap(({ calls, name, contact, ...job }) =>
      (JSON.parse(calls) as Call[])
        .filter((call) => !lapsed(call, today))
        .map((call) => ({ ...call, ...job, ...(name === null || contact === null ? {} : { customer: { name, contact } }) })),
    )
    .toSorted((a, b) => a.on.localeCompare(b.on) || a.number - b.number);
}
