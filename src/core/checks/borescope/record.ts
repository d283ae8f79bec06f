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

export const borescopeSchema = strictObject({
  joint: jointField,
  when: oneOfField("When", ["as-found", "after-cleaning"] as const),
  ports: yup
    .array()
    .of(
      strictObject({
        name: needed("The port", "Name the port", 40),
        straight: percentField("Share open, straight", 0, 100),
        depth: quantitySchema("toolDepth").optional().default(undefined),
        side: percentField("Share open, from the side", 0, 100).optional().notRequired(),
      }).required(),
    )
    .min(1, "Grade at least one port")
    .max(32)
    .required(),
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
