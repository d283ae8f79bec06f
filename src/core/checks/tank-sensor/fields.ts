import { answer, fields, group, quantity, type RecordOf } from "../../form";
import { checkForm } from "../check-form";
import { meter } from "../fields";

const volts = (label: string, example: string, missing: string, column: string) =>
  quantity("voltage", { label, units: ["V", "mV"], example, missing, column });

/** A tank-pressure sensor tried with the cap off, and if possible at one known pressure. */
export const tankSensorFields = fields({
  keyOn: answer({
    label: "Key",
    yes: "On, engine off",
    no: "Off",
    missing: "Say whether the key was on",
  }),
  capOff: answer({
    label: "Filler cap",
    yes: "Off",
    no: "On",
    missing: "Say whether the filler cap was off",
  }),
  /** Its signal, cap off */
  zero: volts("Signal, cap off", "1.5", "Type the sensor's volts with the cap off", "tank sensor, cap off"),
  /** Its signal under a known gauge pressure */
  second: group({
    pressure: quantity("tankPressure", {
      label: "A known pressure put on it, if any",
      units: ["inH2O", "kPa", "mbar"],
      example: "8",
      missing: "Type the known pressure",
      column: "known pressure",
    }),
    signal: volts("Signal under it", "2.7", "Type the sensor's volts under it", "tank sensor under it"),
  }).optional(),
  instrument: meter(),
});
export type TankSensorRecord = RecordOf<typeof tankSensorFields>;

export const tankSensorForm = checkForm(tankSensorFields);
