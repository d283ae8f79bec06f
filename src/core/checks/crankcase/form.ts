import type { UnitId } from "../../units";
import { checkForm, gaugeField, idleField, warmField } from "../known";
import { type CrankcaseReading, crankcaseSchema } from "./record";

const UNITS: readonly UnitId[] = ["hPa", "mbar", "inH2O", "kPa"];
const pressure = (label: string, example: string) =>
  ({ type: "quantity", label, band: "crankcase", unit: "hPa", units: UNITS, example }) as const;

/** A manometer on the dipstick tube. */
export const crankcaseForm = checkForm<CrankcaseReading>()({
  schema: crankcaseSchema,
  fields: {
    idle: pressure("Crankcase at idle; suction is negative", "-3"),
    raised: pressure("At 2500 1/min, if read", "-2"),
    rpm: idleField,
    sealed: { type: "tick", label: "Oil cap on, hose sealed round the dipstick tube" },
    warm: warmField,
    instrument: gaugeField("crankcase"),
  },
});
