import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { type InstrumentUse, instrumentField } from "../fields";

/** A tank-pressure sensor tried with the cap off, and if possible at one known pressure. */
export interface TankSensorRecord {
  readonly keyOn: boolean;
  readonly capOff: boolean;
  /** Its signal, cap off */
  readonly zero: Quantity;
  /** Its signal under a known gauge pressure */
  readonly second?: { readonly pressure: Quantity; readonly signal: Quantity };
  readonly instrument: InstrumentUse;
}

export const tankSensorSchema = strictObject({
  keyOn: yup.boolean().required(),
  capOff: yup.boolean().required(),
  zero: quantitySchema("voltage").required("Type the sensor's volts with the cap off"),
  second: strictObject({
    pressure: quantitySchema("tankPressure").required("Type the known pressure"),
    signal: quantitySchema("voltage").required("Type the sensor's volts under it"),
  })
    .optional()
    .default(undefined),
  instrument: instrumentField("voltage").required(),
});
