import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { type InstrumentUse, instrumentField } from "../fields";

/** A gauge in the place of the sensor before the catalyst: at idle, held at 2500 1/min, and the top of a snap. */
export interface BackPressure {
  readonly idle?: Quantity;
  readonly raised?: Quantity;
  readonly snap?: Quantity;
  readonly warm: boolean;
  readonly instrument: InstrumentUse;
}

const pressure = quantitySchema("backPressure").optional().default(undefined);

export const backPressureSchema = strictObject({
  idle: pressure,
  raised: pressure,
  snap: pressure,
  warm: yup.boolean().required("Say whether the engine is warm"),
  instrument: instrumentField("pressure").required(),
}).test("read", "Read it at 2500 1/min, and better at idle and in a snap as well", (r) => {
  const { idle, raised } = (r ?? {}) as { idle?: unknown; raised?: unknown };
  return idle !== undefined || raised !== undefined;
});
