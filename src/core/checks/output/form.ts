import type { Given } from "../../form";
import { checkForm, type Known, placeField } from "../known";
import { type OutputRecord, outputSchema } from "./record";

const partName = ({ known, holds }: Given<Known>) => known.places.find((j) => j.id === holds("joint"))?.name ?? "";

/** It was commanded: now, or in the record that is corrected. */
const commanded = ({ holds }: Given<Known>) => typeof holds("commandedAt") === "number" || typeof holds("seenAfter") === "number";

/** A command to one output, and what answered. */
export const outputForm = checkForm<OutputRecord>()({
  schema: outputSchema,
  fields: {
    joint: placeField("Part"),
    output: { type: "text", label: "What the tool calls it", holds: partName },
    command: { type: "text", label: "Commanded state", holds: () => "on" },
    limit: {
      type: "number",
      label: "The tool lets go after, s",
      bare: "s",
      holds: ({ known }) => String(known.context.limits.outputTime.value),
      hint: ({ known }) => known.context.limits.outputTime.source,
    },
    expected: { type: "text", label: "What should happen", example: "lever pulls in, idle changes" },
    rearmed: { type: "tick", label: "Re-armed: key cycle or engine start since the last command" },
    /** ms since 1970 */
    commandedAt: { type: "taken", label: "Commanded", aside: true },
    seen: {
      type: "choice",
      label: "What answered",
      options: [
        ["as-expected", "As expected"],
        ["nothing", "Nothing"],
        ["other", "Something else"],
      ],
      when: commanded,
    },
    seenAfter: { type: "taken", label: "Answered after" },
    note: { type: "text", label: "Note", when: commanded },
  },
  elsewhere: { seenAfter: "Command it, then tap what answered." },
});
