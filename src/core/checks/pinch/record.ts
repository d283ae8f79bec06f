import * as yup from "yup";
import { strictObject } from "../../input";
import type { UnitId } from "../../units";
import { jointField, oneOfField } from "../fields";

/** What was watched while the branch was shut off. */
export const PINCH_READS = ["trim", "rpm", "flow", "vacuum"] as const;
export type PinchReads = (typeof PINCH_READS)[number];
export const PINCH_READ_NAMES: Record<PinchReads, string> = {
  trim: "Total trim",
  rpm: "Idle speed",
  flow: "Flow ball of a smoke run",
  vacuum: "Intake vacuum",
};

/** A branch pinched or capped off, the reading before, while and after. */
export interface PinchRecord {
  readonly joint: string;
  readonly how: "pinch" | "cap";
  /** The clamp or cap was shown to hold by itself */
  readonly blankProved: boolean;
  readonly reads: PinchReads;
  /** Of flow and vacuum; trim is in percent, speed in 1/min */
  readonly unit?: UnitId;
  readonly before: number;
  readonly shut: number;
  readonly released: number;
}

const value = (name: string) =>
  yup.number().typeError(`${name} is a number`).min(-1e5).max(1e5).required(`Type the reading ${name.toLowerCase()}`);

export const pinchSchema = strictObject<PinchRecord>({
  joint: jointField,
  how: oneOfField("How", ["pinch", "cap"] as const),
  blankProved: yup.boolean().required(),
  reads: oneOfField("What was watched", PINCH_READS),
  unit: yup.mixed<UnitId>().oneOf(["L/min", "cc/min", "SCFH", "inHg", "mmHg", "kPa", "hPa", "mbar", "psi"]).optional(),
  before: value("Before"),
  shut: value("While shut off"),
  released: value("After release"),
}).test(
  "unit",
  "A flow or a vacuum needs its unit",
  (record) => !["flow", "vacuum"].includes(String(record?.reads)) || record?.unit !== undefined,
);
