import { checkForm } from "../known";
import { type LookRecord, lookSchema } from "./record";

/** The look: what was marked place by place on the list that is fitted to the car. */
export const lookForm = checkForm<LookRecord>()({
  schema: lookSchema,
  fields: { items: { type: "taken", label: "What was looked at", empty: [] } },
  also: ({ items }) => ({
    items: ((items ?? []) as LookRecord["items"]).map(({ note, ...item }) =>
      note?.trim() ? { ...item, note: note.trim() } : item,
    ),
  }),
});
