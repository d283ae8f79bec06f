import { choice, fields, formOf, type RecordOf, text } from "../form";
import { newPinField } from "./pin";
import { ROLES } from "./roles";

/** Somebody who is added to the shop. */
export const newPersonFields = fields({
  name: text({ name: "The name", label: "Name", max: 60, missing: "Type a name" }),
  role: choice(ROLES, { label: "Role", defaultValue: "technician", wrong: "A role is apprentice, technician or lead" }),
  pin: newPinField("PIN (they type it)"),
});
export type NewPerson = RecordOf<typeof newPersonFields>;
export const newPersonForm = formOf<undefined>()(newPersonFields);
