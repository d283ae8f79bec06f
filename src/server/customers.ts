import { eq } from "drizzle-orm";
import { type Customer, customerSchema } from "@/core/customer";
import { validate } from "@/core/input";
import { may, mayNot, type Role } from "@/core/people";
import { type Db, db } from "./db/open";
import { customers } from "./db/schema";
import { requireJob } from "./jobs";
import { Forbidden } from "./refusals";
import { revoke } from "./revocations";

export const readCustomer = (jobId: string, at: Db = db()): Customer | undefined =>
  at.select({ name: customers.name, contact: customers.contact }).from(customers).where(eq(customers.jobId, jobId)).get();

/** Who a car belongs to. A line that is left blank erases what stood there. @param role of who writes it; Throws Forbidden. */
export function writeCustomer(jobId: string, input: unknown, at: Db = db(), role?: Role): void {
  const customer = validate<Customer>(customerSchema, input);
  requireJob(jobId, at);
  const before = readCustomer(jobId, at);
  const blanks = (field: keyof Customer) => Boolean(before?.[field].trim()) && customer[field].trim() === "";
  if ((blanks("name") || blanks("contact")) && !may(role, "erase-customer")) throw new Forbidden(mayNot("erase-customer"));
  at.insert(customers)
    .values({ jobId, ...customer })
    .onConflictDoUpdate({ target: customers.jobId, set: customer })
    .run();
  if (before && customer.name.trim() === "" && customer.contact.trim() === "") revoke({ customer: jobId }, at);
}

/** Erases who the customer is; the journal never knew. */
export function eraseCustomer(jobId: string, at: Db = db()): void {
  at.delete(customers).where(eq(customers.jobId, jobId)).run();
  revoke({ customer: jobId }, at);
}
