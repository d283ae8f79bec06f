import { fields, quantity, type RecordOf } from "../../form";
import { checkForm } from "../check-form";
import { gauge, warm } from "../fields";

const pressure = (label: string, example: string, column: string) =>
  quantity("backPressure", { label, units: ["kPa", "mbar", "psi", "hPa"], example, column }).optional();

/** A gauge in the place of the sensor before the catalyst: at idle, held at 2500 1/min, and the top of a snap. */
export const backPressureFields = fields({
  idle: pressure("At idle, gauge", "2", "exhaust pressure, idle"),
  raised: pressure("At 2500 rpm, gauge", "6", "exhaust pressure, 2500 rpm"),
  snap: pressure("Top of a snap, gauge", "14", "exhaust pressure, snap"),
  warm: warm(),
  instrument: gauge("backPressure"),
}).rule(
  "whole",
  "Read it at 2500 rpm, and better at idle and in a snap as well",
  ({ idle, raised }) => idle !== undefined || raised !== undefined,
);
export type BackPressure = RecordOf<typeof backPressureFields>;

export const backPressureForm = checkForm(backPressureFields);
