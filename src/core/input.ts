import * as yup from "yup";

/** A SHA-256 as it is written: what files are named by. */
export const SHA256 = /^[0-9a-f]{64}$/;

/** A refusal at a door: what was wrong, and where. */
export class BadInput extends Error {
  constructor(
    message: string,
    readonly path = "",
  ) {
    super(message);
    this.name = "BadInput";
  }
}

const TYPES: Readonly<Record<string, string>> = {
  array: "a list",
  tuple: "a list of fixed length",
  object: "an object",
  string: "a text",
  number: "a number",
  boolean: "true or false",
};

/** The complaint in words; of a wrong type, what was meant and what was found there. */
function complaint(error: yup.ValidationError): string {
  if (error.type === "noUnknown") return `${error.path || "The input"} has an unknown key: ${error.params?.unknown}`;
  const type = TYPES[String(error.params?.type)];
  // A field's own words for it stand.
  if (error.type !== "typeError" || !type || !/final value was/.test(error.message)) return error.message;
  const found = JSON.stringify(error.params?.originalValue) ?? "nothing";
  return `${error.path || "The input"} must be ${type}, not ${found.length > 40 ? `${found.slice(0, 40)}…` : found}`;
}

/**
 * Validates with a Yup schema and returns the value as it was given. One complaint becomes a BadInput: about what was
 * given before what is missing, and in the order of the fields.
 */
export function validate<T>(schema: yup.Schema<unknown>, value: unknown, path = ""): T {
  try {
    schema.validateSync(value, { strict: true, abortEarly: false });
    return value as T;
  } catch (error) {
    // A test of a whole object meets its fields before they were looked at: it stumbles only over what is of another shape.
    if (error instanceof TypeError) throw new BadInput(`${path || "The input"} is not of the shape that it should have`, path);
    if (!(error instanceof yup.ValidationError)) throw error;
    const missing = ["required", "optionality", "nullable"];
    const first = error.inner.find((e) => !missing.includes(e.type ?? "")) ?? error.inner[0] ?? error;
    throw new BadInput(complaint(first), [path, first.path].filter(Boolean).join("."));
  }
}

/**
 * An object with these fields and no others. What it holds is said by the record's own type, for the tests that follow; left to be
 * inferred of the fields, the compiler would spend two thirds of its time on it.
 */
export const strictObject = <T extends object = object>(fields: yup.ObjectShape): yup.ObjectSchema<T> =>
  yup.object(fields).noUnknown().strict() as unknown as yup.ObjectSchema<T>;

/** Half characters and control characters, which no keyboard types and no store gives back as they were. */
const UNTYPED = /\p{Surrogate}|(?![\n\r\t])\p{Cc}/u;

/** A text of at most so many characters. */
export const line = (label: string, max = 200) =>
  yup
    .string()
    .max(max, `${label} is too long: keep it under ${max} characters`)
    .test("typed", `${label} holds characters that no text has: type it anew`, (text) => !UNTYPED.test(text ?? ""));

/** A text that may be left out, and says something where it is not. */
export const said = (label: string, max = 200) =>
  line(label, max)
    .test("filled", `${label} is blank: type it, or leave it out`, (text) => text === undefined || text.trim() !== "")
    .optional();

/** A text that must say something; `ask` is what to do about it. */
export const needed = (label: string, ask: string, max = 200) =>
  line(label, max)
    .required(ask)
    .test("filled", ask, (text) => (text ?? "").trim() !== "");

/** Deepest nesting that anything we take has, with room to spare: what lies deeper would only wear the readers out. */
const DEEPEST = 40;

/**
 * A text read as JSON. Throws BadInput for what is none, or is nested deeper than anything we take: told from the text
 * alone, before anything walks down into it.
 */
export function parseJson(
  text: string,
  complaintOf = "The request is not JSON: it was cut off on the way. Send it again",
): unknown {
  let depth = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (quoted) {
      if (c === 0x5c) i++;
      else if (c === 0x22) quoted = false;
    } else if (c === 0x22) quoted = true;
    else if (c === 0x7b || c === 0x5b) {
      if (++depth > DEEPEST) throw new BadInput(`This is nested more than ${DEEPEST} deep: nothing that is taken here is`);
    } else if (c === 0x7d || c === 0x5d) depth--;
  }
  try {
    return JSON.parse(text);
  } catch {
    throw new BadInput(complaintOf);
  }
}
