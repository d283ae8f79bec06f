import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema, type UnitId, unitsOf } from "../../units";
import { durationField, type InstrumentUse, instrumentField, oneOfField } from "../fields";

/** A filler cap by itself on a tester. */
export interface CapRecord {
  readonly part: "fitted" | "new";
  /** Gauge pressure in `unit` at the start and at the end */
  readonly start: number;
  readonly end: number;
  readonly seconds: number;
  readonly unit: UnitId;
  /** The tester held by itself with a blank in place of the cap */
  readonly testerProved: boolean;
  readonly seal: "whole" | "cracked" | "dirty";
  /** Gas space between pump and part: with it a loss is a hole */
  readonly volume?: Quantity;
  readonly instrument: InstrumentUse;
}

export const capSchema = strictObject({
  part: oneOfField("The cap", ["fitted", "new"] as const),
  start: yup
    .number()
    .typeError("The start is a number")
    .moreThan(0, "Nothing was put on it")
    .required("Type the pressure put on it"),
  end: yup.number().typeError("The end is a number").min(0).required("Type the pressure that was left"),
  seconds: durationField("The time"),
  unit: yup.mixed<UnitId>().oneOf(unitsOf("pressure")).required(),
  testerProved: yup.boolean().required(),
  seal: oneOfField("Its seal", ["whole", "cracked", "dirty"] as const),
  volume: quantitySchema("trapped").optional().default(undefined),
  instrument: instrumentField("pressure").required(),
});
