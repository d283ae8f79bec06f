import * as yup from "yup";
import { line, needed, strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { durationField, type InstrumentUse, instrumentField, oneOfField } from "../fields";

export const PART_STATES = { old: "The old one, taken off", new: "The new one, before it goes on" } as const;
export type PartState = keyof typeof PART_STATES;
export const WAYS = { dip: "Dipped in water", soap: "Soaped", smoke: "Filled with smoke" } as const;
export type Way = keyof typeof WAYS;

/** A part that is off the car: plugged, put under regulated pressure, and looked over. It says nothing of the car. */
export interface BenchPart {
  readonly part: string;
  readonly state: PartState;
  readonly way: Way;
  /** Gauge, by the regulator */
  readonly pressure: Quantity;
  /** What part, plugs and hose bear at least, gauge */
  readonly rating: Quantity;
  readonly seconds: number;
  /** Every opening was plugged, and no plug let anything by */
  readonly plugged: boolean;
  /** Where it came out; nothing where it did not */
  readonly leaksAt?: string;
  readonly instrument: InstrumentUse;
}

export const benchPartSchema = strictObject({
  part: needed("The part", "Name the part", 80),
  state: oneOfField("The part", Object.keys(PART_STATES) as PartState[]),
  way: oneOfField("How it was tried", Object.keys(WAYS) as Way[]),
  pressure: quantitySchema("benchPressure").required("Type the pressure that was on it"),
  rating: quantitySchema("benchPressure").required("Type what part, plugs and hose bear"),
  seconds: durationField("How long it was watched"),
  plugged: yup.boolean().required(),
  leaksAt: line("Where it came out", 200).optional(),
  instrument: instrumentField("pressure").required(),
});
