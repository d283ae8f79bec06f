import { BadInput, needed, parseJson, strictObject, validate } from "@/core/input";
import { newPinSchema } from "@/core/people";
import type { Command } from "./door";

const schema = strictObject({
  name: needed("The name", "Say whose PIN it is"),
  pin: newPinSchema,
});

/** A new PIN for whoever forgot theirs, the only lead too: whoever has the shop's own machine may give one. */
export const newPin: Command = {
  run: async (input) => {
    const { name, pin } = validate<{ name: string; pin: string }>(schema, parseJson(input));
    const { changePerson, listPeople } = await import("@/server/people");
    const person = listPeople().find((p) => p.name.toLowerCase() === name.trim().toLowerCase());
    if (!person) throw new BadInput(`Nobody here is called ${name}`, "name");
    const { role } = await changePerson(person.id, { pin });
    return { name: person.name, role };
  },
};
