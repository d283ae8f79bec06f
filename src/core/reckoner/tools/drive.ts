import { choice, type FormState, fields, list, number, type RecordOf } from "../../form";
import { BadInput } from "../../input";
import { type ComebackHistory, judgeColdStarts, judgeComeback } from "../../journal";
import { parseNumber } from "../../units";
import { toolForm } from "../fields";
import type { Tool } from "../tool";

const km = (text: string): number => {
  const read = parseNumber(text);
  if (!read.ok || !(read.value > 0))
    throw new BadInput(`"${text}" is no distance: type a number above 0, a line each`, "recorded");
  return read.value;
};

const distances = (label: string, example: string) =>
  list(
    number({
      name: "A distance",
      min: [0, "A distance is not negative"],
      max: [1e7, "A distance of more than ten million is none"],
    }),
    { label, example, max: [1000, "At most 1,000"], lines: { read: km, write: String } },
  ).optional();
const counted = (what: string, label: string, example: string, defaultValue?: string) =>
  number({
    name: what,
    label,
    bare: "times",
    example,
    ...(defaultValue ? { defaultValue } : {}),
    integer: `${what} is counted: a whole number`,
    min: [0, `${what} is not negative`],
    max: [10_000, `${what}: more than 10,000`],
  }).optional();
const driveFields = fields({
  kind: choice(
    { random: "At random", "sets-in": "Sets in after so much", "cold-starts": "On cold starts" },
    { label: "It comes back", missing: "Say how it comes back", defaultValue: "random" },
  ),
  recorded: distances("Recorded distances, one a line", "14\n22\n17"),
  clean: distances("Driven since without it, a run a line", "30\n31"),
  came: counted("How often it came", "It came on so many", "3"),
  of: counted("The number of cold starts", "Of so many cold starts", "8"),
  starts: counted("The number of clean starts", "Clean cold starts since", "0", "0"),
})
  .rule(
    "recorded",
    "Type what was recorded: at least one distance, a line each",
    ({ kind, recorded }) => kind === "cold-starts" || (Array.isArray(recorded) && recorded.length > 0),
  )
  .rule(
    "came",
    "Type on how many of how many cold starts it came",
    ({ kind, came, of }) => kind !== "cold-starts" || (came !== undefined && of !== undefined),
  );
type Drive = RecordOf<typeof driveFields>;

type State = FormState<unknown, "kind">;
const onColdStarts = { when: ({ value }: State) => value("kind") === "cold-starts" };
const byDistance = { when: ({ value }: State) => value("kind") !== "cold-starts" };

/** How far to drive before a fault that comes and goes can be called gone. */
export const driveTool: Tool<Drive> = {
  id: "drive",
  name: "How far to drive",
  aim: "What it takes until a clean run means something: enough or not yet, never a probability of being repaired",
  form: toolForm(driveFields, {
    ask: { recorded: byDistance, clean: byDistance, came: onColdStarts, of: onColdStarts, starts: onColdStarts },
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
