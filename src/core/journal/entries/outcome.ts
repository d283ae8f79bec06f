import { choice, fields, formOf, text } from "../../form";
import { entryKind } from "./entry-kind";

/** Events weeks later. */
export const OUTCOMES = { held: "It held", "came-back": "It came back", "not-seen-again": "The car was not seen again" } as const;

const outcomeFields = fields({
  result: choice(OUTCOMES, { label: "What happened weeks later", missing: "Say what happened" }),
  note: text({ name: "Note", label: "Note", max: 500 }).optional(),
});

export const outcomeForm = formOf<undefined>()(outcomeFields);

export const outcome = entryKind(outcomeFields, {
  words: (b) => `Later: ${b.result.replaceAll("-", " ")}${b.note ? `, ${b.note}` : ""}`,
});
