import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { oneOfField, type RecordSource, rpmField, sourceField } from "../fields";

export interface AirflowPoint {
  readonly state: "idle" | "wide-open";
  readonly rpm: number;
  /** Air meter; absent on a speed-density engine */
  readonly maf?: Quantity;
  /** Manifold, absolute */
  readonly map?: Quantity;
}

/** Air meter and manifold pressure at idle and at wide open throttle. */
export interface AirflowRecord {
  readonly source: RecordSource;
  readonly points: readonly AirflowPoint[];
  readonly ambient: Quantity;
  readonly intakeTemperature: Quantity;
  readonly warm: boolean;
}

export const airflowPointSchema = strictObject({
  state: oneOfField("The point", ["idle", "wide-open"] as const),
  rpm: rpmField,
  maf: quantitySchema("mafFlow").optional().default(undefined),
  map: quantitySchema("manifold").optional().default(undefined),
});

export const airflowSchema = strictObject({
  source: sourceField.required(),
  points: yup
    .array()
    .of(airflowPointSchema.required())
    .min(1, "Give the reading at idle, at wide open throttle, or both")
    .max(20)
    .required(),
  ambient: quantitySchema("ambient").required("Ambient pressure is missing"),
  intakeTemperature: quantitySchema("airTemperature").required("Intake temperature is missing"),
  warm: yup.boolean().required(),
});
