import * as yup from "yup";
import { strictObject } from "../../input";
import { quantitySchema, type UnitId, unitsOf } from "../../units";
import { type EvapSetup, requiredField, ventField } from "../evap-fields";
import { percentField, type RecordSource, secondsField, seriesField, sourceField } from "../fields";

/** Tank pressure while the idling engine pulls the shut system down, through its four phases. Times in s. */
export interface PulldownRecord extends Pick<EvapSetup, "vent" | "fuelLevel" | "required" | "ambient" | "temperature"> {
  readonly source: RecordSource;
  readonly unit: UnitId;
  /** [s, tank pressure, gauge: below ambient is negative] */
  readonly points: readonly (readonly [number, number])[];
  readonly ventShutAt: number;
  readonly purgeOpenAt: number;
  readonly purgeShutAt: number;
  readonly ventOpenAt: number;
  /** The engine idled the whole time, foot off */
  readonly idled: boolean;
}

const FEWEST = 8;

export const pulldownSchema = strictObject<PulldownRecord>({
  vent: ventField.required(),
  fuelLevel: percentField("The fuel level", 0, 100),
  required: requiredField.optional().default(undefined),
  ambient: quantitySchema("ambient").required("Ambient pressure is missing"),
  temperature: quantitySchema("airTemperature").required("Bay temperature is missing"),
  source: sourceField.required(),
  unit: yup.mixed<UnitId>().oneOf(unitsOf("pressure")).required(),
  points: seriesField<[number, number]>([{ name: "Tank pressure", low: -1e5, high: 1e5 }], 20_000).min(
    FEWEST,
    `A trace needs at least ${FEWEST} readings over its phases`,
  ),
  ventShutAt: secondsField("Vent shut"),
  purgeOpenAt: secondsField("Purge open"),
  purgeShutAt: secondsField("Purge shut"),
  ventOpenAt: secondsField("Vent open"),
  idled: yup.boolean().required(),
}).test(
  "phases",
  "The phases follow each other: vent shut, purge open, purge shut, vent open",
  (r) => !r || (r.ventShutAt <= r.purgeOpenAt && r.purgeOpenAt < r.purgeShutAt && r.purgeShutAt < r.ventOpenAt),
);
