import { checkForm, meterField } from "../known";
import { type TankSensorRecord, tankSensorSchema } from "./record";

const volts = (label: string, example: string) =>
  ({ type: "quantity", label, band: "voltage", unit: "V", units: ["V", "mV"], example }) as const;

/** The tank-pressure sensor: cap off, then under a known pressure. */
export const tankSensorForm = checkForm<TankSensorRecord>()({
  schema: tankSensorSchema,
  fields: {
    keyOn: { type: "tick", label: "Key on, engine off" },
    capOff: { type: "tick", label: "Filler cap off" },
    zero: volts("Signal, cap off", "1.5"),
    "second.pressure": {
      type: "quantity",
      label: "A known pressure put on it, if any",
      band: "tankPressure",
      unit: "inH2O",
      units: ["inH2O", "kPa", "mbar"],
      example: "8",
    },
    "second.signal": volts("Signal under it", "2.7"),
    instrument: meterField,
  },
});
