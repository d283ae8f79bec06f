import { fields, formOf, text } from "../../form";
import { entryKind } from "./entry-kind";

/** A line for the journal. */
const noteFields = fields({
  text: text({ name: "The note", label: "Note", long: true, max: 4000, missing: "The note is empty" }),
});

export const noteForm = formOf<undefined>()(noteFields);

export const note = entryKind(noteFields, { words: (b) => `Note: ${b.text}` });
