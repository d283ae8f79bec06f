import { and, eq, ne } from "drizzle-orm";
import { type Call, lapsed } from "@/core/journal";
import { nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { customers, jobs } from "./db/schema";

/** A customer to call, with the job that it is about. */
export interface CustomerCall extends Call {
  readonly jobId: string;
  readonly number: number;
  readonly vehicle: string;
  readonly registration: string;
  /** Left out where nobody is named, or was erased */
  readonly customer?: { readonly name: string; readonly contact: string };
}

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
