import * as yup from "yup";
import { BadInput, strictObject } from "@/core/input";
import { type ComebackHistory, type JudgedComeback, judgeColdStarts, judgeComeback } from "@/core/journal";
import { type Command, guarded, parse } from "./door";

const distances = (name: string) =>
  yup
    .array()
    .of(
      yup
        .number()
        .min(0, `${name}: a distance is not negative`)
        .max(1e7, `${name}: longer than any car goes`)
        .required(`${name}: each is a number`),
    )
    .max(1000, `${name}: at most 1,000`);
const stretch = (name: string) =>
  yup.number().min(0, `${name}: a distance is not negative`).max(1e7, `${name}: longer than any car goes`);

const SCHEMAS = {
  random: strictObject({
    kind: yup.string().oneOf(["random"]).required(),
    recorded: distances("recorded").required("recorded is missing: distances between comebacks"),
    unfinished: stretch("unfinished").optional(),
    clean: stretch("clean").required("clean is missing: what was driven without it"),
  }),
  "sets-in": strictObject({
    kind: yup.string().oneOf(["sets-in"]).required(),
    recorded: distances("recorded").required("recorded is missing: how far it took each time"),
    clean: distances("clean").required("clean is missing: the unbroken runs without it"),
    confidence: yup.number().min(0.5, "confidence is from 0.5 to 0.999").max(0.999, "confidence is from 0.5 to 0.999").optional(),
  }),
} as const;

const kindSchema = yup.object({
  kind: yup.string().oneOf(Object.keys(SCHEMAS), "kind is random or sets-in").required("kind is missing: random or sets-in"),
});

/** Output for a script: it knows itself what it counted. */
const told = ({ counted: _, ...judged }: JudgedComeback) => judged;

export const comeback: Command = {
  run(input) {
    const { kind } = parse<{ kind: keyof typeof SCHEMAS }>(kindSchema, input);
    const history = parse<ComebackHistory>(SCHEMAS[kind], input);
    return guarded(() => told(judgeComeback(history)), "recorded");
  },
};

const count = (name: string) =>
  yup
    .number()
    .integer(`${name} is counted: a whole number`)
    .min(0, `${name} is not negative`)
    .max(10_000, `${name} is more than anybody counts`);

const coldStartSchema = strictObject({
  came: count("came").optional(),
  of: count("of").optional(),
  share: yup.number().moreThan(0, "share is between 0 and 1").lessThan(1, "share is between 0 and 1").optional(),
  clean: count("clean").required("clean is missing: clean cold starts since"),
});

export const coldStartsCommand: Command = {
  run(input) {
    const { came, of, share, clean } = parse<{ came?: number; of?: number; share?: number; clean: number }>(
      coldStartSchema,
      input,
    );
    if (share !== undefined && came === undefined && of === undefined)
      return guarded(() => told(judgeColdStarts({ share }, clean)), "share");
    if (share !== undefined || came === undefined || of === undefined)
      throw new BadInput("Give came and of, as it was seen, or share alone, as it is known", "came");
    return guarded(() => told(judgeColdStarts({ came, of }, clean)), "came");
  },
};
