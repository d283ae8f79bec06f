import { choice, fields, formOf, text } from "../../form";
import { entryKind } from "./entry-kind";

/** The complaint itself, tried again after the repair. */
const complaintTriedFields = fields({
  how: text({
    name: "How",
    label: "How it was tried",
    long: true,
    max: 500,
    example: "Cold start, 10 min idle, drive over the pass",
    missing: "Say how the complaint was tried again",
  }),
  result: choice({ gone: "Gone", remains: "Remains" }, { label: "Result", missing: "Say whether it is gone" }),
});

export const complaintTriedForm = formOf<undefined>()(complaintTriedFields);

export const complaintTried = entryKind(complaintTriedFields, {
  words: (b) => `Complaint tried again (${b.how}): ${b.result === "gone" ? "gone" : "remains"}`,
});
