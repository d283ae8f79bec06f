import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { type InstrumentUse, instrumentField, rpmField } from "../fields";

/** Manometer on the dipstick tube, engine idling; suction is negative. */
export interface CrankcaseReading {
  /** Gauge, signed */
  readonly idle: Quantity;
  readonly rpm: number;
  /** Gauge, signed, at about 2500 1/min */
  readonly raised?: Quantity;
  readonly warm: boolean;
  /** Oil cap on, dipstick tube sealed round the hose */
  readonly sealed: boolean;
  readonly instrument: InstrumentUse;
}

export const crankcaseSchema = strictObject({
  idle: quantitySchema("crankcase").required("Type the pressure at idle; suction is negative"),
  rpm: rpmField,
  raised: quantitySchema("crankcase").optional().default(undefined),
  warm: yup.boolean().required(),
  sealed: yup.boolean().required(),
  instrument: instrumentField("pressure").required(),
});
