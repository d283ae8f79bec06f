import * as yup from "yup";
import { line, needed, strictObject } from "../../input";
import { type Calibration, calibrationSchema } from "../../shop/machine";
import { type Quantity, quantitySchema, type UnitId } from "../../units";
import type { ZoneId } from "../../vehicle";
import {
  intoField,
  jointField as joint,
  jointsField as joints,
  type RecordSource,
  secondsField as seconds,
  seriesField,
  sourceField,
  zoneField,
} from "../fields";

/** One low-pressure smoke run, as it went. Times in s from the moment the hose went on. */
export interface SmokeRun {
  readonly machine: {
    readonly name: string;
    /** Gauge */
    readonly ratedPressure: Quantity;
    readonly maxFlow: Quantity;
    /** s after switching on until heater or pump stops by itself */
    readonly autoOff: number;
    /** One division of the ball's scale */
    readonly division?: Quantity;
    /** It has neither ball nor gauge: it can find, it cannot clear */
    readonly plain?: true;
    /** The machine's own curve; without it its scale is taken at its word */
    readonly calibration?: Calibration;
  };
  /** Hose clamped, before the run, earlier in the session or after the run; absent when it was not done */
  readonly proof?: {
    /** A plain machine has no gauge to read it on */
    readonly pressure?: Quantity;
    readonly ballAtBottom: boolean;
    readonly smokeSeen: boolean;
    /** ISO time, where it was taken for another run of the session, or after this one */
    readonly takenAt?: string;
  };
  /** Joint smoke was let in at */
  readonly entry: string;
  /** Which side of it, where it is not the usual one */
  readonly into?: ZoneId | undefined;
  readonly blocked: readonly string[];
  readonly heldOpen: readonly string[];
  /** Where the crank stood: another position is another opening of the valves */
  readonly crank?: string;
  /** When the heater was switched on, s (negative: before the hose went on) */
  readonly heaterOnAt: number;
  readonly units: { readonly flow: UnitId; readonly pressure: UnitId };
  /** [s, flow, gauge pressure] in `units` */
  readonly samples: readonly (readonly [number, number, number])[];
  /** Far ends opened until smoke came out, then shut again */
  readonly arrivals: readonly { readonly zone: ZoneId; readonly at: number }[];
  readonly seen: readonly { readonly joint: string; readonly at: number }[];
  /** Everything was looked at under good light and nothing showed */
  readonly noSmokeOutside: boolean;
  /** Blocks that came off or commands that dropped out during the run */
  readonly cameUndone: readonly string[];
  /** Joints tightened or touched before the run */
  readonly touchedBefore: readonly string[];
  readonly adapterLeaks: boolean;
  readonly draughtOrGlare: boolean;
  /** Gauge and ball at zero before the run */
  readonly zeroed: boolean;
  readonly ambient: Quantity;
  readonly temperature: Quantity;
  readonly endedAt: number;
  /** The device that ball and gauge were read from, where no hand did */
  readonly source?: RecordSource | undefined;
}

/** What a run of any circuit records. */
export const smokeRunFields = {
  machine: yup
    .object({
      name: needed("The machine", "Name the smoke machine", 60),
      ratedPressure: quantitySchema("ratedPressure").required("State the machine's rated pressure"),
      maxFlow: quantitySchema("smokeFlow").required("State the machine's flow with the hose open"),
      autoOff: yup.number().min(10).max(7200).required("State the machine's auto-off time"),
      division: quantitySchema("smokeFlow").optional().default(undefined),
      plain: yup.boolean().oneOf([true]).optional(),
      calibration: calibrationSchema.optional().default(undefined),
    })
    .noUnknown()
    .strict()
    .required(),
  proof: yup
    .object({
      pressure: quantitySchema("smokePressure").optional().default(undefined),
      ballAtBottom: yup.boolean().required(),
      smokeSeen: yup.boolean().required(),
      takenAt: yup
        .string()
        .matches(/^\d{4}-\d\d-\d\dT[\d:.]{8,12}Z$/, "${path} must be an ISO time in UTC")
        .optional(),
    })
    .noUnknown()
    .strict()
    .optional()
    .default(undefined),
  entry: joint,
  into: intoField,
  blocked: joints,
  heldOpen: joints,
  crank: line("The crank's position", 60).optional(),
  heaterOnAt: seconds("Heater on"),
  units: yup
    .object({
      flow: yup.mixed<UnitId>().oneOf(["L/min", "cc/min", "SCFH"]).required(),
      pressure: yup
        .mixed<UnitId>()
        .oneOf(["Pa", "hPa", "kPa", "mbar", "bar", "psi", "inHg", "mmHg", "inH2O", "mmH2O"])
        .required(),
    })
    .noUnknown()
    .strict()
    .required(),
  samples: seriesField<[number, number, number]>(
    [
      { name: "Flow", low: 0, high: 1e5 },
      { name: "Pressure", low: -1e5, high: 1e5 },
    ],
    20_000,
    "not falling",
  ),
  arrivals: yup
    .array()
    .of(
      yup
        .object({ zone: zoneField, at: seconds("Arrival") })
        .noUnknown()
        .strict()
        .required(),
    )
    .max(60)
    .required(),
  seen: yup
    .array()
    .of(
      yup
        .object({ joint, at: seconds("Smoke seen") })
        .noUnknown()
        .strict()
        .required(),
    )
    .max(60)
    .required(),
  noSmokeOutside: yup.boolean().required(),
  cameUndone: joints,
  touchedBefore: joints,
  adapterLeaks: yup.boolean().required(),
  draughtOrGlare: yup.boolean().required(),
  zeroed: yup.boolean().required(),
  ambient: quantitySchema("ambient").required("Ambient pressure is missing"),
  temperature: quantitySchema("airTemperature").required("Bay temperature is missing"),
  endedAt: seconds("End of the run"),
  source: sourceField.optional().default(undefined),
};

export const smokeRunSchema = strictObject(smokeRunFields);
