import { choice, fields, group, list, type RecordOf, text } from "../../form";
import { checkForm } from "../check-form";

const item = group({
  id: text({ name: "The place", max: 60 }),
  state: choice({ found: "Not OK", fine: "OK", "not-reached": "Can't see" }, { missing: "Say OK, not OK or can't see" }),
  note: text({ name: "The note", max: 500 }).optional(),
});
export type LookedAt = (typeof item)["value"];
export type LookState = LookedAt["state"];

/** The look by eye, hand, ear and nose: every place on the list, fitted to the car, with what was seen. */
export const lookFields = fields({
  items: list(item, {
    label: "What was looked at",
    min: [1, "Nothing looked at yet: mark at least one place"],
    max: 80,
    empty: [],
  }).rule(
    "once",
    "Each place is looked at once: keep the last",
    (items) => new Set((items as readonly Partial<LookedAt>[]).map((i) => i?.id)).size === items.length,
  ),
  /** The places that complaint and codes asked for; all of the list where this is left out */
  asked: list(text({ name: "The place", max: 60 }), { max: 80 })
    .optional()
    .taken("Places asked for"),
});
export type LookRecord = RecordOf<typeof lookFields>;

export const lookForm = checkForm(lookFields, {
  computed: {
    items: ({ items = [] }) => items.map(({ note, ...rest }) => (note?.trim() ? { ...rest, note: note.trim() } : rest)),
  },
});
