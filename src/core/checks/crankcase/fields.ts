import { answer, fields, quantity, type RecordOf } from "../../form";
import { checkForm } from "../check-form";
import { gauge, idleSpeed, warm } from "../fields";

const pressure = (label: string, example: string, column: string) =>
  quantity("crankcase", {
    label,
    units: ["hPa", "mbar", "inH2O", "kPa"],
    example,
    column,
    missing: "Type the pressure at idle; suction is negative",
  });

/** A manometer on the dipstick tube, engine idling; suction is negative. */
export const crankcaseFields = fields({
  /** Gauge, signed */
  idle: pressure("Crankcase at idle; suction is negative", "-3", "crankcase pressure, idle"),
  /** Gauge, signed, at about 2500 1/min */
  raised: pressure("At 2500 rpm, if read", "-2", "crankcase pressure, raised speed").optional(),
  rpm: idleSpeed(),
  /** Oil cap on, dipstick tube sealed round the hose */
  sealed: answer({
    label: "Oil cap and dipstick tube",
    yes: "On, hose sealed round the tube",
    no: "Open",
    missing: "Say whether the oil cap was on and the hose sealed round the dipstick tube",
  }),
  warm: warm(),
  instrument: gauge("crankcase"),
});
export type CrankcaseReading = RecordOf<typeof crankcaseFields>;

export const crankcaseForm = checkForm(crankcaseFields);
