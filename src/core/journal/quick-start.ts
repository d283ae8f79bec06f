import * as yup from "yup";
import { SYMPTOMS, type SymptomId } from "../faults";
import { fields, formOf, marks, type RecordOf, text } from "../form";
import { vehicleFields } from "../vehicle";
import type { Bodies } from "./entries";

const CODE = /^[A-Za-z0-9-]{2,12}$/;
const codesOf = (typed: unknown) =>
  String(typed ?? "")
    .split(/[\s,;]+/)
    .filter(Boolean);

const { displacement, fuel } = vehicleFields.members;
/** Facts that an instrument needs of a car before anything else is asked, and what may be said along with it. */
const quickStartFields = fields({
  displacement: displacement.requiring("Type the engine's displacement: volumes and airflow depend on it"),
  fuel,
  codes: text({ name: "The codes", label: "Codes read, if any", example: "P0171 P0300" }).optional(),
  symptoms: marks<SymptomId>(yup.mixed<SymptomId>().required(), {
    label: "What it does, if anybody said",
    options: SYMPTOMS,
    most: 100,
  }),
  complaint: text({ name: "The complaint", label: "In the customer's words, if asked", max: 2000 }).optional(),
}).rule("codes", "A code is 2 to 12 letters and digits, like P0171; several with a space between", ({ codes }) =>
  codesOf(codes).every((code) => CODE.test(code)),
);
export type QuickStart = RecordOf<typeof quickStartFields>;

/** The two facts that every instrument needs; registration, story and the rest can follow. */
export const quickStartForm = formOf<undefined>()(quickStartFields);

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
