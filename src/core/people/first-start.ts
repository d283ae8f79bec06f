import { FieldSet, fields, formOf, group, list, type RecordOf, text } from "../form";
import { machineFields } from "../shop/settings";
import { newPersonFields } from "./new-person";
import { newPinField } from "./pin";

/** A shop as it is first described: its name, its lead, who else works there, and its first machine. */
const firstStartFields = fields({
  shop: text({ name: "The shop", label: "Name of the shop, as printed on documents", max: 80, missing: "Name the shop" }),
  lead: group({
    name: text({ name: "The lead's name", label: "Name of the lead", max: 60, missing: "Type the lead's name" }),
    pin: newPinField("PIN of the lead"),
  }),
  people: list(newPersonFields.group, {
    label: "Who else works here",
    max: [50, "More than 50: add the rest in Shop"],
    blank: {},
  }),
  machine: machineFields.group.optional(),
});
export type FirstStart = RecordOf<typeof firstStartFields>;

export const firstStartSchema = firstStartFields.schema.test("names", function (start) {
  const { lead, people } = (start ?? {}) as Partial<FirstStart>;
  const names = [lead?.name, ...(Array.isArray(people) ? people : []).map((p) => p?.name)].map((n) =>
    String(n ?? "")
      .trim()
      .toLowerCase(),
  );
  const twice = names.findIndex((name, i) => name !== "" && names.indexOf(name) < i);
  if (twice < 0) return true;
  return this.createError({ path: `people[${twice - 1}].name`, message: "The same name stands there twice: add an initial" });
});

/** The names that stand in the shop's journals already: the lead's first. The first machine has a form of its own. */
export interface NamesHere {
  readonly known: readonly string[];
  readonly shopName: string;
}
export const firstStartForm = formOf<NamesHere>()(new FieldSet(firstStartFields.members, firstStartSchema), {
  only: ["shop", "lead.name", "lead.pin", "people"],
  ask: {
    shop: { defaultValue: ({ known: { known, shopName } }) => (known.length > 0 ? shopName : undefined) },
    "lead.name": { defaultValue: ({ known: { known } }) => known[0] },
    people: { defaultValue: ({ known: { known } }) => known.slice(1).map((name) => ({ name })) },
  },
});
