import { randomBytes, scrypt, timingSafeEqual } from "node:crypto";
import { promisify } from "node:util";
import { and, asc, eq, isNotNull, isNull, ne } from "drizzle-orm";
import { v4 as uuid } from "uuid";
import * as yup from "yup";
import { BadInput, needed, strictObject, validate } from "@/core/input";
import { type NewPerson, newPinSchema, type Person, ROLE_IDS, type Role } from "@/core/people";
import { nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { people, signIns } from "./db/schema";
import { NotFound } from "./refusals";

type Row = typeof people.$inferSelect;
const asPerson = ({ id, name, role, pin, leftAt }: Row): Person => ({
  id,
  name,
  role: role as Role,
  hasPin: pin !== null,
  left: leftAt !== null,
});

/** Everybody whose name stands here, those who left among them. */
export const listPeople = (at: Db = db()): Person[] => at.select().from(people).orderBy(asc(people.name)).all().map(asPerson);

const working = and(isNotNull(people.pin), isNull(people.leftAt));
const leads = and(eq(people.role, "lead"), working);

/** Whether anybody here may let people in: until then names are taken as they are given, and everybody may everything. */
export const hasLead = (at: Db = db()): boolean =>
  at.select({ id: people.id }).from(people).where(leads).limit(1).get() !== undefined;

const derive = promisify(scrypt) as (pin: string, salt: string, length: number) => Promise<Buffer>;

/** A PIN as it is stored. */
async function keptPin(pin: string): Promise<Pick<Row, "pin" | "pinSalt">> {
  const pinSalt = randomBytes(16).toString("hex");
  return { pin: (await derive(pin, pinSalt, 32)).toString("hex"), pinSalt };
}

/** Whether this is the person's PIN. */
export async function isPinOf(id: string, pin: string, at: Db = db()): Promise<boolean> {
  const row = at.select().from(people).where(eq(people.id, id)).get();
  if (!row?.pin || !row.pinSalt) return false;
  return timingSafeEqual(await derive(pin, row.pinSalt, 32), Buffer.from(row.pin, "hex"));
}

const role = yup.mixed<Role>().oneOf(ROLE_IDS, "A role is apprentice, technician or lead");
const personSchema = strictObject({
  name: needed("The name", "Type a name", 60),
  role: role.optional(),
  pin: newPinSchema.optional().default(undefined),
});
/** Adds a person, an apprentice where nobody says more. Throws BadInput for an empty name or one that is taken. */
export async function addPerson(input: unknown, at: Db = db()): Promise<Person> {
  const { name: typed, role = "apprentice", pin } = validate<Pick<NewPerson, "name"> & Partial<NewPerson>>(personSchema, input);
  const name = typed.trim();
  const kept = pin === undefined ? {} : await keptPin(pin);
  const add = at.$client.transaction(() => {
    if (listPeople(at).some((p) => p.name.toLowerCase() === name.toLowerCase())) {
      throw new BadInput(`There is a ${name} already: pick that name, or add an initial`, "name");
    }
    return at
      .insert(people)
      .values({ id: uuid(), name, role, createdAt: nowIso(), ...kept })
      .returning()
      .get();
  });
  return asPerson(add.immediate());
}

const changeSchema = strictObject({
  role: role.optional(),
  pin: newPinSchema.optional().default(undefined),
  left: yup.boolean().optional(),
});
interface Change {
  readonly role?: Role;
  readonly pin?: string;
  readonly left?: boolean;
}

/**
 * Changes a person's role or PIN, or notes that they left or are back. What was
 * open under their name opens no door any more. Throws BadInput where the shop would be without a lead.
 */
export async function changePerson(id: string, input: unknown, at: Db = db()): Promise<Person> {
  const { role: wanted, pin, left } = validate<Change>(changeSchema, input);
  const kept = pin === undefined ? {} : await keptPin(pin);
  const change = at.$client.transaction(() => {
    const before = at.select().from(people).where(eq(people.id, id)).get();
    if (!before) throw new NotFound("There is nobody of that name here");
    const others = at
      .select({ id: people.id })
      .from(people)
      .where(and(leads, ne(people.id, id)))
      .get();
    const stays = (wanted ?? before.role) === "lead" && !(left ?? before.leftAt !== null);
    if (before.role === "lead" && !stays && others === undefined && hasLead(at))
      throw new BadInput("The shop keeps one lead: make somebody else one first", "role");
    at.update(signIns)
      .set({ endedAt: nowIso() })
      .where(and(eq(signIns.personId, id), isNull(signIns.endedAt)))
      .run();
    return at
      .update(people)
      .set({
        ...kept,
        ...(wanted ? { role: wanted } : {}),
        ...(left === undefined ? {} : { leftAt: left ? (before.leftAt ?? nowIso()) : null }),
        // Something is always set: a change may be of nothing.
        name: before.name,
      })
      .where(eq(people.id, id))
      .returning()
      .get();
  });
  return asPerson(change.immediate());
}
