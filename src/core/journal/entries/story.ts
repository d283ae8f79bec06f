import * as yup from "yup";
import { SYMPTOMS, type SymptomId } from "../../faults";
import {
  choice,
  type FormState,
  fields,
  formOf,
  group,
  list,
  marks,
  number,
  quantity,
  type RecordOf,
  recalling,
  text,
} from "../../form";
import { BadInput } from "../../input";
import { parseField, plausibility, type Quantity } from "../../units";
import { entryKind } from "./entry-kind";

/** How a fault that is not always there comes back. */
export const COMEBACK_KINDS = {
  random: "Now and then, at any time",
  "sets-in": "Sets in after so far, then stays",
  "cold-starts": "On cold starts, not all of them",
} as const;
export type ComebackKind = keyof typeof COMEBACK_KINDS;

/** A distance a line, in km where no unit is typed. Throws BadInput for what is none. */
function distanceOf(line: string): Quantity {
  const typed = parseField(line, "driven", "km");
  if (!typed.ok) throw new BadInput(`"${line}": ${typed.message}`);
  const query = plausibility(typed.value, "driven");
  if (query) throw new BadInput(`"${line}": ${query.message}`);
  return typed.value;
}

const starts = (name: string, label: string, example: string) =>
  number({
    name,
    label,
    bare: "times",
    example,
    wrong: `${name} is a whole number`,
    integer: `${name} is a whole number`,
    min: [1, `${name}: once at least`],
    max: [10_000, `${name}: more than 10,000`],
  }).optional();

/** A fault that is not always there: how it comes back, and how far it went each time. */
const comeback = group({
  kind: choice(COMEBACK_KINDS, {
    label: "Is it always there?",
    missing: "Say how it comes back",
    silent: ["always", "Always, or not asked"],
  }),
  after: list(quantity("driven"), {
    label: "How far it went each time until it came, one a line",
    hint: "It says how far the car must be driven before it counts as gone",
    example: "12 km\n40 km",
    min: [1, "Type how far it went at least once: without it nothing can be counted on"],
    max: [100, "More than 100: keep the last ones"],
    lines: { read: distanceOf, write: ({ value, unit }) => `${value} ${unit}` },
  }).optional(),
  /** Of a fault of cold starts: on how many of how many it came */
  came: starts("How often it came", "It came on how many cold starts", "4"),
  of: starts("How many starts there were", "of how many", "5"),
})
  .rule(
    "after",
    "Type how far it went at least once: without it nothing can be counted on",
    ({ kind, after }) => kind === undefined || kind === "cold-starts" || after !== undefined,
  )
  .rule(
    "came",
    "It came on no more starts than there were, and on one at least: type both",
    ({ kind, came, of }) => kind !== "cold-starts" || (came !== undefined && of !== undefined && Number(came) <= Number(of)),
  );

/** The interview: what, since when, when it happens, what was done before, and whether it was seen here. */
const storyFields = fields({
  complaint: text({
    name: "The complaint",
    label: "Complaint, in the customer's words",
    long: true,
    max: 2000,
    missing: "Write down what the customer complains of",
  }),
  since: text({ name: "Since when", label: "Since when" }).optional(),
  when: text({
    name: "When it happens",
    label: "When it happens (cold, idle, hills, after some km)",
    max: 500,
  }).optional(),
  symptoms: marks<SymptomId>(
    yup
      .string()
      .oneOf(SYMPTOMS.map(([s]) => s))
      .required(),
    {
      label: "What is noticed",
      options: SYMPTOMS,
      most: 100,
    },
  ),
  replacedBefore: text({ name: "What was replaced before", label: "What others replaced already", max: 1000 }).optional(),
  /** Earlier visits for the same fault, here or elsewhere */
  earlierVisits: text({
    name: "Earlier visits",
    label: "Earlier visits for the same fault",
    example: "twice at another shop, last in March",
    max: 1000,
  }).optional(),
  /** Whether it uses more fuel since, as the customer has it */
  fuelUse: text({ name: "Fuel use", label: "Fuel use since", example: "a litre more per 100 km" }).optional(),
  verified: choice(
    { seen: "Seen ourselves", "not-seen": "Tried, not seen", "not-tried": "Not tried yet" },
    { label: "Complaint verified", defaultValue: "not-tried" },
  ),
  /** Looked over without a complaint: nothing asks for a repair */
  purpose: choice(
    { inspection: "An inspection, no complaint" },
    { label: "The car is here for", silent: ["complaint", "A complaint"] },
  ).optional(),
  comeback: comeback.optional(),
});
export type Story = RecordOf<typeof storyFields>;

const kindOf = ({ value }: FormState<unknown, "comeback.kind">) => value("comeback.kind");
const onColdStarts = (state: FormState<unknown, "comeback.kind">) => kindOf(state) === "cold-starts";

const INSPECTION = "Inspection";

interface StoryFacts {
  /** As it was told last */
  readonly story: Story | undefined;
}

export const storyForm = recalling(
  formOf<StoryFacts>()(storyFields, {
    ask: {
      complaint: { hint: ({ value }) => (value("purpose") === "inspection" ? `Left empty: ${INSPECTION}` : undefined) },
      "comeback.after": { when: (state) => kindOf(state) !== "always" && !onColdStarts(state) },
      "comeback.came": { when: onColdStarts },
      "comeback.of": { when: onColdStarts },
    },
    computed: {
      // Looked over without a complaint, there may be nothing to write down.
      complaint: ({ complaint, purpose }) => complaint ?? (purpose === "inspection" ? INSPECTION : undefined),
    },
  }),
  ({ story }) => story,
);

export const story = entryKind(storyFields, { words: (b) => `Story: ${b.complaint}` });
