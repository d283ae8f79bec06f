import * as yup from "yup";
import type { Outcome } from "../../checks";
import { fields, number, oneOf, plain, text } from "../../form";
import { entryKind } from "./entry-kind";
import { entryId } from "./shared";

/** Verdict the technician was shown, so that newer rules never flip it silently. */
const judgedFields = fields({
  entry: entryId(),
  inputsHash: plain<string>(yup.string()),
  rulesVersion: number({ name: "The version of the rules", integer: "A version is a whole number" }),
  outcome: oneOf<Outcome>(["pass", "fail", "unsure", "void"], "The outcome"),
  headline: text({ name: "Headline", max: 500 }),
});

export const judged = entryKind(judgedFields, { words: (b) => `Shown: ${b.headline}` });
