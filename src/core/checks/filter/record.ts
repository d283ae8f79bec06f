import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { oneOfField, type RecordSource, rpmField, sourceField } from "../fields";
import { type EgrState, egrField } from "../led-back";

/** What the two pressure pipes were found like. */
export const PIPE_STATES = {
  sound: "Looked at: free and on",
  "front-bad": "Front one split, off or blocked",
  "rear-bad": "Rear one split, off or blocked",
  swapped: "On the wrong way round",
  "not-looked": "Not looked at",
} as const;
export type PipeState = keyof typeof PIPE_STATES;

/** A reading with the engine running; pressures are before the filter over behind it. */
export interface FilterRunning {
  readonly rpm: number;
  readonly pressure: Quantity;
  readonly maf?: Quantity;
  readonly exhaustTemperature?: Quantity;
}

/** Pressure difference of a particulate filter: key on, at idle, and held at a speed without load. */
export interface FilterRecord {
  /** The log that its readings were taken from, where they were */
  readonly source?: RecordSource;
  readonly keyOn?: Quantity;
  readonly idle?: FilterRunning;
  readonly held?: FilterRunning;
  /** One division of the display */
  readonly division: Quantity;
  readonly egr: EgrState;
  readonly pipes: PipeState;
  readonly warm: boolean;
  /** Soot in it as the ECU reckons it from how it was driven, and from the pressure, g */
  readonly sootModel?: number;
  readonly sootMeasured?: number;
  readonly ambient?: Quantity;
  readonly intakeTemperature?: Quantity;
}

const soot = (name: string) =>
  yup.number().typeError(`${name} is a number of grams`).min(0, `${name} cannot be negative`).max(500).optional();

const running = strictObject({
  rpm: rpmField,
  pressure: quantitySchema("filterPressure").required("Type the pressure difference"),
  maf: quantitySchema("mafFlow").optional().default(undefined),
  exhaustTemperature: quantitySchema("exhaustTemperature").optional().default(undefined),
})
  .optional()
  .default(undefined);

export const filterSchema = strictObject({
  source: sourceField.optional().default(undefined),
  keyOn: quantitySchema("filterPressure").optional().default(undefined),
  idle: running,
  held: running,
  division: quantitySchema("filterPressure").required("State one division of the display"),
  egr: egrField,
  pipes: oneOfField("The state of the pipes", Object.keys(PIPE_STATES) as PipeState[]),
  warm: yup.boolean().required("Say whether the engine is warm"),
  sootModel: soot("The soot"),
  sootMeasured: soot("The soot"),
  ambient: quantitySchema("ambient").optional().default(undefined),
  intakeTemperature: quantitySchema("airTemperature").optional().default(undefined),
})
  .test("read", "Read it at idle, at a held speed, or both: without a running engine it says nothing", (r) => {
    const { idle, held } = (r ?? {}) as { idle?: unknown; held?: unknown };
    return idle !== undefined || held !== undefined;
  })
  .test("faster", "The held speed lies no higher than the idle: type the one that was held", (r) => {
    const { idle, held } = (r ?? {}) as { idle?: { rpm?: unknown }; held?: { rpm?: unknown } };
    return typeof idle?.rpm !== "number" || typeof held?.rpm !== "number" || held.rpm > idle.rpm;
  });
