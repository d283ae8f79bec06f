import * as yup from "yup";
import { type Quantity, quantitySchema } from "../../units";
import { type RecordSource, sourceField } from "../fields";

/** One steady operating point of a fuel-trim survey; trims in percent as the scan tool shows them. */
export interface TrimPoint {
  readonly rpm: number;
  readonly maf: Quantity;
  /** Absolute; without it the manifold pressure is reckoned from air flow and engine speed. */
  readonly map?: Quantity;
  /** Absolute, turbo only */
  readonly chargePressure?: Quantity;
  readonly coolant?: Quantity;
  /** False when the ECU said open loop; absent when it was not recorded. */
  readonly closedLoop?: boolean;
  /** First and last second of the steady window in its log */
  readonly window?: { readonly from: number; readonly to: number };
  readonly banks: readonly {
    /** Absent only where the tool shows nothing but the total */
    readonly short?: number;
    /** Absent where the log or the tool did not give it: then nobody knows the total */
    readonly long?: number;
    /** As the tool adds them up itself, where it shows nothing else */
    readonly total?: number;
    /** sd of the window's mean total trim, percent */
    readonly scatter?: number;
  }[];
}

export interface TrimSurvey {
  readonly source: RecordSource;
  /** Where this ECU stops correcting, percent; found from repeated extremes, or taken as usual, where nobody asked */
  readonly stop?: number;
  /** Absolute */
  readonly ambient: Quantity;
  readonly intakeTemperature: Quantity;
  readonly points: readonly TrimPoint[];
}

const percent = (name: string) =>
  yup
    .number()
    .typeError(`${name} is a number in percent`)
    .min(-100, `${name} cannot lie below −100 %`)
    .max(100, `${name} cannot lie above 100 %`)
    .required(`${name} is missing`);

export const trimPointSchema = yup
  .object({
    rpm: yup.number().min(200, "RPM lies below any idle").max(12000, "RPM lies above any engine's").required("RPM is missing"),
    maf: quantitySchema("mafFlow").required("Air meter flow is missing"),
    map: quantitySchema("manifold").optional().default(undefined),
    chargePressure: quantitySchema("chargePressure").optional().default(undefined),
    coolant: quantitySchema("coolant").optional().default(undefined),
    closedLoop: yup.boolean().optional(),
    window: yup.object({ from: yup.number().required(), to: yup.number().required() }).noUnknown().optional().default(undefined),
    banks: yup
      .array()
      .of(
        yup
          .object({
            short: percent("Short-term trim").optional().notRequired(),
            long: percent("Long-term trim").optional().notRequired(),
            total: percent("Total trim").optional().notRequired(),
            scatter: yup.number().min(0).max(100).optional(),
          })
          .noUnknown()
          .strict()
          .test(
            "total",
            "Type either the short-term trim, or the total where the tool shows only that",
            (b) => !b || (b.total === undefined ? typeof b.short === "number" : b.short === undefined && b.long === undefined),
          )
          .required(),
      )
      .min(1, "Give the trims of at least one bank")
      .max(2, "There are one or two banks")
      .required(),
  })
  .noUnknown()
  .strict();

/** The points of a survey, all of them of the same banks. */
export const trimPointsSchema = yup
  .array()
  .of(trimPointSchema.required())
  .min(1, "A survey needs at least one steady point")
  .max(400, "A survey holds at most 400 steady points")
  // What is no list of points yet has its own complaint.
  .test("banks", "Every point must give the same number of banks", (points) => {
    const banks = (points ?? []).map((p) => p?.banks).filter(Array.isArray);
    return new Set(banks.map((b) => b.length)).size <= 1;
  })
  .required();

export const trimSurveySchema = yup
  .object({
    source: sourceField.required(),
    stop: yup.number().min(8, "No ECU stops correcting below 8 %").max(60, "No ECU corrects beyond 60 %").optional(),
    ambient: quantitySchema("ambient").required("Ambient pressure is missing"),
    intakeTemperature: quantitySchema("airTemperature").required("Intake temperature is missing"),
    points: trimPointsSchema,
  })
  .noUnknown()
  .strict();
