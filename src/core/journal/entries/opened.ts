import { fields, number, text } from "../../form";
import { entryKind } from "./entry-kind";
import { MOST } from "./shared";

const openedFields = fields({
  number: number({
    name: "The job's number",
    integer: "A job's number is a whole number",
    min: [1, "Jobs are numbered from 1 on"],
    max: [MOST, "No shop has a job of that number"],
  }),
  /** The code of the case that it is played on, where no real car stands in the bay */
  practice: text({ name: "The case", max: 40 }).optional(),
});

export const opened = entryKind(openedFields, {
  words: (b) => (b.practice ? `Practice ${b.number} opened, case ${b.practice}` : `Job ${b.number} opened`),
});
