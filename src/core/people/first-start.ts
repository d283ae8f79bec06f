import * as yup from "yup";
import { needed, strictObject } from "../input";
import { type Machine, machineFields } from "../shop/settings";
import { newPinSchema } from "./pin";
import { ROLE_IDS, type Role } from "./roles";

export interface NewPerson {
  readonly name: string;
  readonly role: Role;
  readonly pin: string;
}

/** A shop as it is first described: its name, its lead, who else works there, and its first machine. */
export interface FirstStart {
  readonly shop: string;
  readonly lead: Omit<NewPerson, "role">;
  readonly people: readonly NewPerson[];
  readonly machine?: Machine;
}

export const firstStartSchema = strictObject<FirstStart>({
  shop: needed("The shop", "Name the shop", 80),
  lead: strictObject({ name: needed("The lead's name", "Type the lead's name", 60), pin: newPinSchema }).required(),
  people: yup
    .array()
    .of(
      strictObject({
        name: needed("The name", "Type a name, or take the line out", 60),
        role: yup.mixed<Role>().oneOf(ROLE_IDS, "A role is apprentice, technician or lead").required("Say what they are"),
        pin: newPinSchema,
      }).required(),
    )
    .max(50, "More than 50: add the rest in Shop")
    .required(),
  machine: machineFields.schema.optional().default(undefined),
}).test("names", function (start) {
  const names = [start?.lead?.name, ...(Array.isArray(start?.people) ? start.people : []).map((p) => p?.name)].map((n) =>
    String(n ?? "")
      .trim()
      .toLowerCase(),
  );
  const twice = names.findIndex((name, i) => name !== "" && names.indexOf(name) < i);
  if (twice < 0) return true;
  return this.createError({ path: `people[${twice - 1}].name`, message: "The same name stands there twice: add an initial" });
});
