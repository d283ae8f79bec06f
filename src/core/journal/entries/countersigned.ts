import { fields, text } from "../../form";
import { entryKind } from "./entry-kind";
import { entryId, journalSeq } from "./shared";

/** A lead's word on a closing that an apprentice asks for. */
const countersignedFields = fields({
  close: entryId(),
  decidedOn: journalSeq(),
  sentBack: text({ name: "What is still to be done", max: 500 }).optional(),
});

export const countersigned = entryKind(countersignedFields, {
  words: (b) => (b.sentBack ? `Closing sent back: ${b.sentBack}` : "Closing countersigned: job closed"),
});
