import * as yup from "yup";
import { formOf } from "../../form";
import { BadInput, strictObject } from "../../input";
import { type ComebackHistory, judgeColdStarts, judgeComeback } from "../../journal";
import { parseNumber } from "../../units";
import type { Tool } from "../tool";

interface Drive {
  readonly kind: "random" | "sets-in" | "cold-starts";
  readonly recorded?: readonly number[];
  readonly clean?: readonly number[];
  readonly came?: number;
  readonly of?: number;
  readonly starts?: number;
}
const km = (text: string): number => {
  const read = parseNumber(text);
  if (!read.ok || !(read.value > 0))
    throw new BadInput(`"${text}" is no distance: type a number above 0, a line each`, "recorded");
  return read.value;
};
const distances = yup.array().of(yup.number().min(0).max(1e7).required()).max(1000, "At most 1,000").optional();
const counted = (what: string) =>
  yup.number().integer(`${what} is counted: a whole number`).min(0, `${what} is not negative`).max(10_000).optional();

/** How far to drive before a fault that comes and goes can be called gone. */
export const driveTool: Tool<Drive> = {
  id: "drive",
  name: "How far to drive",
  aim: "What it takes until a clean run means something: enough or not yet, never a probability of being repaired",
  form: formOf<Drive, undefined>()({
    schema: strictObject({
      kind: yup
        .mixed<Drive["kind"]>()
        .oneOf(["random", "sets-in", "cold-starts"], "Say how it comes back")
        .required("Say how it comes back"),
      recorded: distances,
      clean: distances,
      came: counted("How often it came"),
      of: counted("The number of cold starts"),
      starts: counted("The number of clean starts"),
    })
      .test("recorded", "Type what was recorded: at least one distance, a line each", (b) => {
        const drive = b as Drive;
        return drive.kind === "cold-starts" || (drive.recorded?.length ?? 0) > 0;
      })
      .test("starts", "Type on how many of how many cold starts it came", (b) => {
        const drive = b as Drive;
        return drive.kind !== "cold-starts" || (drive.came !== undefined && drive.of !== undefined);
      }),
    fields: {
      kind: {
        type: "choice",
        label: "It comes back",
        options: [
          ["random", "At random"],
          ["sets-in", "Sets in after so much"],
          ["cold-starts", "On cold starts"],
        ],
        holds: () => "random",
      },
      recorded: {
        type: "lines",
        label: "Recorded distances, one a line",
        read: km,
        write: String,
        optional: true,
        example: "14\n22\n17",
        when: ({ holds }) => holds("kind") !== "cold-starts",
      },
      clean: {
        type: "lines",
        label: "Driven since without it, a run a line",
        read: km,
        write: String,
        optional: true,
        example: "30\n31",
        when: ({ holds }) => holds("kind") !== "cold-starts",
      },
      came: {
        type: "number",
        label: "It came on so many",
        bare: "times",
        example: "3",
        when: ({ holds }) => holds("kind") === "cold-starts",
      },
      of: {
        type: "number",
        label: "Of so many cold starts",
        bare: "times",
        example: "8",
        when: ({ holds }) => holds("kind") === "cold-starts",
      },
      starts: {
        type: "number",
        label: "Clean cold starts since",
        bare: "times",
        example: "0",
        holds: () => "0",
        when: ({ holds }) => holds("kind") === "cold-starts",
      },
    },
  }),
  formula: "random: (1 + x/(n·m̄))^(−n);  sets in: n!·k!/(n + k)!;  cold starts: ∏ (N − k + ½ + i)/(N + 1 + i)",
  symbols: [
    ["n, m̄", "number and mean of the recorded distances", ""],
    ["x", "driven since without it", "as recorded"],
    ["k (runs)", "unbroken runs past the longest onset", "1"],
    ["N, k (starts)", "cold starts seen, and those on which it came", "1"],
  ],
  source: "Exponential predictive; exchangeable runs; beta-binomial with a = b = ½ (Jeffreys 1946)",
  valid: "Nothing else changed since; enough leaves a chance of 5 %",
  reckon({ kind, recorded = [], clean = [], came = 0, of = 0, starts = 0 }) {
    const judged =
      kind === "cold-starts"
        ? judgeColdStarts({ came, of }, starts)
        : judgeComeback(
            kind === "random"
              ? ({ kind, recorded, clean: clean.reduce((sum, x) => sum + x, 0) } satisfies ComebackHistory)
              : { kind, recorded, clean },
          );
    const [what, unit] =
      kind === "random"
        ? ["distance, as recorded", undefined]
        : kind === "sets-in"
          ? ["runs past the longest onset", "runs"]
          : ["clean cold starts", "cold starts"];
    return {
      rows: [
        {
          name: `${judged.enough ? "Enough" : "Not yet"}: needed in all, ${what}`,
          value: { value: judged.needed, ...(unit ? { unit } : {}) },
        },
        { name: "Counts so far", value: { value: judged.counted, ...(unit ? { unit } : {}) } },
        { name: "Chance of that if nothing were fixed", value: { value: 100 * judged.chanceIfNotFixed, unit: "%" } },
      ],
      notes: judged.reasons,
    };
  },
};
