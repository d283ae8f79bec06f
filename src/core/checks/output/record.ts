import * as yup from "yup";
import { line, needed, strictObject } from "../../input";
import { durationField, jointField, oneOfField } from "../fields";

/** A scan-tool output test: what was commanded, what was expected, what was seen. */
export interface OutputRecord {
  readonly joint: string;
  /** What the tool calls it */
  readonly output: string;
  /** The state asked for: open, closed, on, a duty */
  readonly command: string;
  /** s after which the tool lets go by itself */
  readonly limit: number;
  /** Key cycle or engine start since the last command, where the tool asks for one */
  readonly rearmed: boolean;
  readonly expected: string;
  readonly seen: "as-expected" | "nothing" | "other";
  readonly note?: string;
  /** s from the command to what was seen */
  readonly seenAfter: number;
}

export const outputSchema = strictObject({
  joint: jointField,
  output: needed("The output", "Name the output as the tool does", 80),
  command: needed("The command", "Say which state was commanded", 80),
  limit: yup.number().typeError("The time limit is a number of seconds").min(1).max(3600).required("State the tool's time limit"),
  rearmed: yup.boolean().required(),
  expected: needed("The expected response", "Say what should happen", 200),
  seen: oneOfField("What was seen", ["as-expected", "nothing", "other"] as const),
  note: line("The note", 300).optional(),
  seenAfter: durationField("The time to the response"),
});
