import { SYMPTOMS } from "../faults";
import { formOf, recalling } from "../form";
import { BadInput } from "../input";
import { parseField, plausibility, type Quantity } from "../units";
import { COMEBACK_KINDS } from "./comeback";
import { type Bodies, bodySchema, ENGINE_NOTES } from "./entries";

type Story = Bodies["story"];

/** A fault that is there whenever it is tried */
const ALWAYS = "always";

/** A distance a line, in km where no unit is typed. Throws BadInput for what is none. */
function distanceOf(line: string): Quantity {
  const typed = parseField(line, "driven", "km");
  if (!typed.ok) throw new BadInput(`"${line}": ${typed.message}`);
  const query = plausibility(typed.value, "driven");
  if (query) throw new BadInput(`"${line}": ${query.message}`);
  return typed.value;
}

const onColdStarts = ({ holds }: { readonly holds: (name: string) => unknown }) => holds("comeback.kind") === "cold-starts";

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
    purpose: {
      type: "choice",
      label: "The car is here for",
      options: [
        ["complaint", "A complaint"],
        ["inspection", "An inspection, no complaint"],
      ],
      silent: "complaint",
      holds: () => "complaint",
    },
    "comeback.kind": {
      type: "choice",
      label: "Is it always there?",
      options: [[ALWAYS, "Always, or not asked"], ...Object.entries(COMEBACK_KINDS)],
      silent: ALWAYS,
      holds: () => ALWAYS,
    },
    "comeback.after": {
      type: "lines",
      label: "How far it went each time until it came, one a line",
      hint: "It says how far the car must be driven before it counts as gone",
      read: distanceOf,
      write: ({ value, unit }: Quantity) => `${value} ${unit}`,
      when: ({ holds }) => holds("comeback.kind") !== ALWAYS && holds("comeback.kind") !== "cold-starts",
      example: "12 km\n40 km",
    },
    "comeback.came": {
      type: "number",
      label: "It came on how many cold starts",
      bare: "times",
      example: "4",
      when: onColdStarts,
    },
    "comeback.of": { type: "number", label: "of how many", bare: "times", example: "5", when: onColdStarts },
  }),
});

/** What the next one at such an engine should know. */
export const engineNoteForm = formOf<Bodies["engine-note"], undefined>()({
  schema: bodySchema("engine-note"),
  fields: {
    about: { type: "choice", list: true, label: "About", options: Object.entries(ENGINE_NOTES), holds: () => "way-in" },
    text: { type: "text", long: true, label: "For whoever works on this engine next" },
    pictures: { type: "taken", label: "Pictures" },
  },
});

/** A line for the journal. */
export const noteForm = formOf<Bodies["note"], undefined>()({
  schema: bodySchema("note"),
  fields: { text: { type: "text", long: true, label: "Note" } },
});
