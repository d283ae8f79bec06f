import * as yup from "yup";
import { needed, strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { jointField, oneOfField, percentField } from "../fields";

/** One port or passage, graded by eye. */
export interface Port {
  readonly name: string;
  /** Share open, percent, looking straight in */
  readonly straight: number;
  /** The same from the side, past the first bend */
  readonly side?: number;
  /** How far the tool went in until it stood at the port: the next one need not be felt for */
  readonly depth?: Quantity;
}

export interface BorescopeRecord {
  /** Passage that was looked into */
  readonly joint: string;
  readonly when: "as-found" | "after-cleaning";
  readonly ports: readonly Port[];
  /** SHA-256 of pictures kept with the job */
  readonly pictures: readonly string[];
}

/** Names that mean one port: written as one hand or another writes it. */
export const portKey = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[/@\s]+/g, " ")
    .trim();

export const borescopeSchema = strictObject({
  joint: jointField,
  when: oneOfField("When", ["as-found", "after-cleaning"] as const),
  ports: yup
    .array()
    .of(
      strictObject<Port>({
        name: needed("The port", "Name the port", 40),
        straight: percentField("Share open, straight", 0, 100).required("Grade every port, straight at least"),
        depth: quantitySchema("toolDepth").optional().default(undefined),
        side: percentField("Share open, from the side", 0, 100).optional().notRequired(),
      }).required(),
    )
    .min(1, "Grade at least one port")
    .max(32)
    .required()
    .test("once", "Two ports have one name: number them, so that each is found again after cleaning", (ports) => {
      const names = (ports ?? []).flatMap((p) => (typeof p?.name === "string" ? [portKey(p.name)] : []));
      return new Set(names).size === names.length;
    }),
  pictures: yup
    .array()
    .of(
      yup
        .string()
        .matches(/^[0-9a-f]{64}$/)
        .required(),
    )
    .max(50)
    .required(),
});
