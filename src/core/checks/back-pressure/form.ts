import type { UnitId } from "../../units";
import { checkForm, gaugeField, warmField } from "../known";
import { type BackPressure, backPressureSchema } from "./record";

const UNITS: readonly UnitId[] = ["kPa", "mbar", "psi", "hPa"];
const pressure = (label: string, example: string) =>
  ({ type: "quantity", label, band: "backPressure", unit: "kPa", units: UNITS, example }) as const;

/** A gauge in the sensor's place. */
export const backPressureForm = checkForm<BackPressure>()({
  schema: backPressureSchema,
  fields: {
    idle: pressure("At idle, gauge", "2"),
    raised: pressure("At 2500 1/min, gauge", "6"),
    snap: pressure("Top of a snap, gauge", "14"),
    warm: warmField,
    instrument: gaugeField("backPressure"),
  },
});
