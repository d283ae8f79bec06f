import { SYMPTOMS } from "../faults";
import { formOf, recalling } from "../form";
import { type Bodies, bodySchema } from "./entries";

type Story = Bodies["story"];

interface Known {
  /** As it was told last */
  readonly story: Story | undefined;
}

/** The interview: what, since when, when it happens, what was done before, and whether it was seen here. */
export const storyForm = formOf<Story, Known>()({
  schema: bodySchema("story"),
  fields: recalling(({ story }) => story, {
    complaint: { type: "text", long: true, label: "Complaint, in the customer's words" },
    since: { type: "text", label: "Since when" },
    when: { type: "text", label: "When it happens (cold, idle, hills, after some km)" },
    symptoms: { type: "marks", label: "What is noticed", options: SYMPTOMS },
    replacedBefore: { type: "text", label: "What others replaced already" },
    earlierVisits: {
      type: "text",
      label: "Earlier visits for the same fault",
      example: "twice at another shop, last in March",
    },
    fuelUse: { type: "text", label: "Fuel use since", example: "a litre more per 100 km" },
    verified: {
      type: "choice",
      label: "Complaint verified",
      options: [
        ["seen", "Seen ourselves"],
        ["not-seen", "Tried, not seen"],
        ["not-tried", "Not tried yet"],
      ],
      holds: () => "not-tried",
    },
  }),
});

/** A line for the journal. */
export const noteForm = formOf<Bodies["note"], undefined>()({
  schema: bodySchema("note"),
  fields: { text: { type: "text", long: true, label: "Note" } },
});
