import * as yup from "yup";
import { SYMPTOMS, type SymptomId } from "../faults";
import { formOf } from "../form";
import { line, strictObject } from "../input";
import { type Quantity, quantitySchema } from "../units";
import { displacementField, fuelField } from "./engine-fields";
import type { Bodies } from "./entries";

/** What an instrument needs of a car before anything else is asked, and what may be said along with it. */
export interface QuickStart {
  readonly fuel: "petrol" | "diesel";
  readonly displacement: Quantity;
  readonly codes?: string;
  readonly symptoms: readonly SymptomId[];
  readonly complaint?: string;
}

const CODE = /^[A-Za-z0-9-]{2,12}$/;
const codesOf = (typed: string | undefined) => (typed ?? "").split(/[\s,;]+/).filter(Boolean);

const quickStartSchema = strictObject({
  fuel: yup.string().oneOf(["petrol", "diesel"]).required("Choose the fuel"),
  displacement: quantitySchema("displacement").required("Type the engine's displacement: volumes and airflow hang on it"),
  codes: line("The codes", 200)
    .optional()
    .test("codes", "A code is 2 to 12 letters and digits, like P0171; several with a space between", (typed) =>
      codesOf(typed).every((code) => CODE.test(code)),
    ),
  symptoms: yup.array().of(yup.mixed<SymptomId>().required()).required(),
  complaint: line("The complaint", 2000).optional(),
});

/** The two facts that every instrument needs; registration, story and the rest can follow. */
export const quickStartForm = formOf<QuickStart, undefined>()({
  schema: quickStartSchema,
  fields: {
    displacement: displacementField,
    fuel: fuelField,
    codes: { type: "text", label: "Codes read, if any", example: "P0171 P0300" },
    symptoms: { type: "marks", label: "What it does, if anybody said", options: SYMPTOMS },
    complaint: { type: "text", label: "In the customer's words, if asked" },
  },
});

type First = { readonly [K in "vehicle" | "codes" | "story"]: { readonly kind: K; readonly body: Bodies[K] } }[
  | "vehicle"
  | "codes"
  | "story"];

/** A job's first entries: what was said, and nothing that nobody said. */
export function firstEntries({ fuel, displacement, codes, symptoms, complaint }: QuickStart): readonly First[] {
  const names = SYMPTOMS.filter(([id]) => symptoms.includes(id)).map(([, name]) => name);
  const said = complaint ?? names.join(", ");
  const read = [...new Set(codesOf(codes).map((code) => code.toUpperCase()))];
  return [
    { kind: "vehicle", body: { fuel, displacement } },
    ...(read.length > 0
      ? [{ kind: "codes" as const, body: { codes: read.map((code) => ({ code, status: "stored" as const })) } }]
      : []),
    ...(said ? [{ kind: "story" as const, body: { complaint: said, symptoms, verified: "not-tried" as const } }] : []),
  ];
}
