import { validate } from "@/core/input";
import { type FirstStart, firstStartSchema, type NewPerson, type SignedIn } from "@/core/people";
import { type Db, db } from "./db/open";
import { addPerson, changePerson, hasLead, listPeople } from "./people";
import { Conflict } from "./refusals";
import { readShopVersion, writeShop } from "./shop";
import { signIn } from "./sign-in";

/** One after the other: the second finds a lead. */
let running: Promise<unknown> = Promise.resolve();

/**
 * Describes a shop that has no lead yet, and signs its lead in: whoever is there already by name gets a role and a PIN.
 * Throws BadInput, and Conflict where somebody did so before.
 */
export function firstStart(input: unknown, at: Db = db(), deviceId = ""): Promise<SignedIn> {
  const start = validate<FirstStart>(firstStartSchema, input);
  const begun = running.catch(() => {}).then(() => begin(start, at, deviceId));
  running = begun;
  return begun;
}

async function begin(start: FirstStart, at: Db, deviceId: string): Promise<SignedIn> {
  if (hasLead(at)) throw new Conflict("This shop has a lead already: sign in, or ask them");
  const { version, shop } = readShopVersion(at);
  const machines = start.machine ? [...shop.machines, start.machine] : shop.machines;
  writeShop({ base: version, by: start.lead.name.trim(), shop: { ...shop, name: start.shop.trim(), machines } }, at);
  for (const one of start.people.filter((p) => p.role !== "lead")) await takeIn(one, at);
  // Leads come last: until then it can be begun anew.
  const { id } = await takeIn({ ...start.lead, role: "lead" }, at);
  for (const one of start.people.filter((p) => p.role === "lead")) await takeIn(one, at);
  return signIn({ person: id, pin: start.lead.pin }, deviceId, at);
}

async function takeIn({ name, role, pin }: NewPerson, at: Db) {
  const known = listPeople(at).find((p) => p.name.toLowerCase() === name.trim().toLowerCase());
  return known ? changePerson(known.id, { role, pin, left: false }, at) : addPerson({ name, role, pin }, at);
}
