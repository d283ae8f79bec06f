import { asc } from "drizzle-orm";
import { v4 as uuid } from "uuid";
import * as yup from "yup";
import { BadInput, needed, validate } from "@/core/input";
import { nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { people } from "./db/schema";

export interface Person {
  readonly id: string;
  readonly name: string;
}

export const listPeople = (at: Db = db()): Person[] =>
  at.select({ id: people.id, name: people.name }).from(people).orderBy(asc(people.name)).all();

const personSchema = yup
  .object({
    name: needed("The name", "Type a name", 60),
  })
  .noUnknown()
  .strict();

/** Adds a person. Throws BadInput for an empty name or one that is taken. */
export function addPerson(input: unknown, at: Db = db()): Person {
  const name = validate<{ name: string }>(personSchema, input).name.trim();
  if (listPeople(at).some((p) => p.name.toLowerCase() === name.toLowerCase())) {
    throw new BadInput(`There is a ${name} already: pick that name, or add an initial`, "name");
  }
  const person = { id: uuid(), name };
  at.insert(people)
    .values({ ...person, createdAt: nowIso() })
    .run();
  return person;
}
