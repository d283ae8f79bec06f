import { answer, choice, type FormState, fields, number, type RecordOf, taken, text } from "../../form";
import { checkForm } from "../check-form";
import { duration, place } from "../fields";

/** A scan-tool output test: what was commanded, what was expected, what was seen. */
export const outputFields = fields({
  joint: place("Part"),
  /** Its name on the tool */
  output: text({ name: "The output", label: "What the tool calls it", missing: "Name the output as the tool does", max: 80 }),
  /** The state asked for: open, closed, on, a duty */
  command: text({
    name: "The command",
    label: "Commanded state",
    missing: "Say which state was commanded",
    max: 80,
    defaultValue: "on",
  }),
  /** s after which the tool lets go by itself */
  limit: number({
    name: "The time limit",
    wrong: "The time limit is a number of seconds",
    label: "Command times out after, s",
    bare: "s",
    min: [1, "A command holds for a second at least"],
    max: [3600, "A command holds for an hour at most"],
    missing: "State the tool's time limit",
  }),
  expected: text({
    name: "The expected response",
    label: "What should happen",
    example: "lever pulls in, idle changes",
    missing: "Say what should happen",
  }),
  /** Key cycle or engine start since the last command, where the tool asks for one */
  rearmed: answer({
    label: "Key cycle or engine start since the last command",
    yes: "Yes: re-armed",
    no: "No",
    missing: "Say whether the tool was re-armed: key cycle or engine start since the last command",
  }),
  seen: choice(
    { "as-expected": "As expected", nothing: "Nothing", other: "Something else" },
    { name: "What was seen", label: "Response" },
  ),
  /** s from the command to what was seen */
  seenAfter: duration("The time to the response", { column: "response of {output}" }).taken("Responded after"),
  note: text({ name: "The note", label: "Note", max: 300 }).optional(),
});
export type OutputRecord = RecordOf<typeof outputFields>;

/** It was commanded: now, or in the record that is corrected. */
const commanded = ({ value }: FormState<unknown, "commandedAt" | "seenAfter">) =>
  typeof value("commandedAt") === "number" || typeof value("seenAfter") === "number";

export const outputForm = checkForm(outputFields, {
  aside: {
    /** ms since 1970 */
    commandedAt: taken("Commanded"),
  },
  ask: {
    output: { defaultValue: ({ known, value }) => known.places.find((j) => j.id === value("joint"))?.name ?? "" },
    limit: {
      defaultValue: ({ known }) => String(known.context.limits.outputTime.value),
      hint: ({ known }) => known.context.limits.outputTime.source,
    },
    seen: { when: commanded },
    note: { when: commanded },
  },
  elsewhere: { seenAfter: "Command it, then tap the response." },
});
