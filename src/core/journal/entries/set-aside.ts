import { choice, day, fields, formOf, type Option, type RecordOf, text } from "../../form";
import { entryKind } from "./entry-kind";

const told = (name: string, label: string, missing: string) => text({ name, label, long: true, max: 500, missing });

/** Something that is left as it is: why, at what risk, what the customer decided, and when it is looked at again. */
const setAsideFields = fields({
  of: choice({ finding: "A finding", check: "A check", code: "A code" }, { name: "What is left" }),
  /** The entry's id, or the code */
  id: text({ name: "What is set aside", missing: "Name what is set aside", max: 60 }).asked({
    type: "choice",
    list: true,
    label: "What",
  }),
  reason: told("The reason", "Why it is left", "Say why it is left"),
  risk: told("The risk", "What may come of it", "Say what may come of leaving it"),
  decision: told("The decision", "What the customer decided", "Say what the customer decided"),
  /** When it is looked at again */
  date: day("The date", { label: "Re-check on", missing: "Say when it is looked at again" }),
});
export type SetAside = RecordOf<typeof setAsideFields>;

export interface SetAsideFacts {
  /** Item that could be left as it is; its id says what it is and which one */
  readonly left: readonly Option[];
  /** The one that it was opened for */
  readonly chosen?: string;
  /** When it is usually looked at again, day */
  readonly again?: string;
}

export const setAsideForm = formOf<SetAsideFacts>()(setAsideFields, {
  ask: {
    id: { options: ({ known }) => known.left, defaultValue: ({ known }) => known.chosen ?? known.left[0]?.[0] },
    date: { defaultValue: ({ known }) => known.again },
  },
  computed: {
    of: ({ id }) => id?.split(" ")[0] as SetAside["of"] | undefined,
    id: ({ id }) => id?.split(" ").slice(1).join(" "),
  },
  elsewhere: { of: "Choose what is left as it is" },
});

export const setAside = entryKind(setAsideFields, {
  ahead: { field: "date", message: "The date is in the past: set one ahead" },
  words: (b) => `Set aside: ${b.of === "code" ? b.id : `a ${b.of}`}, ${b.reason}`,
});
