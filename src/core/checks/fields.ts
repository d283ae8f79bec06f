import * as yup from "yup";
import { needed, strictObject } from "../input";
import { type Quantity, quantitySchema } from "../units";
import { JOINT_IDS, ZONE_IDS, type ZoneId } from "../vehicle";

/** A joint of the vehicle, named by its id. */
export const jointField = needed("The joint", "Name the joint", 60).test({
  name: "known",
  message: ({ value }) => `No vehicle has a joint "${value}"`,
  skipAbsent: true,
  test: (id) => id === "" || JOINT_IDS.has(id),
});
/** A zone of the vehicle, named by its id. */
export const zoneField = yup.mixed<ZoneId>().oneOf(ZONE_IDS, "There is no such zone").required("Name the zone");
/** The zone that smoke was let into, where an end has two sides. */
export const intoField = yup.mixed<ZoneId>().oneOf(ZONE_IDS, "There is no such zone").optional();
export const jointsField = yup.array().of(jointField).max(60).required();

/** A moment in a record, s from its own zero, within two hours of it. */
export const secondsField = (name: string) =>
  yup
    .number()
    .typeError(`${name} is a number of seconds`)
    .min(-7200, `${name} lies more than two hours before the start`)
    .max(7200, `${name} lies more than two hours after the start`)
    .required(`${name} is missing`);

/** How long something lasted, s. */
export const durationField = (name: string) =>
  yup
    .number()
    .typeError(`${name} is a number of seconds`)
    .min(0, `${name} cannot be negative`)
    .max(7200, `${name} is longer than two hours`)
    .required(`${name} is missing`);

/** Engine speed, 1/min. */
export const rpmField = yup
  .number()
  .typeError("RPM is a number")
  .min(200, "RPM lies below any idle")
  .max(12000, "RPM lies above any engine's")
  .required("RPM is missing");

/** A percentage between two bounds. */
export const percentField = (name: string, low = -100, high = 100) =>
  yup
    .number()
    .typeError(`${name} is a number in percent`)
    .min(low, `${name} cannot lie below ${low} %`)
    .max(high, `${name} cannot lie above ${high} %`)
    .required(`${name} is missing`);

/** One of a few words. */
export const oneOfField = <T extends string>(name: string, values: readonly T[]) =>
  yup
    .mixed<T>()
    .oneOf(values, `${name} is one of ${values.join(", ")}`)
    .required(`${name} is missing`);

/** Vacuum over time: [s, vacuum in `unit`], rising in time. */
export const samplesField = yup
  .array()
  .of(yup.tuple([secondsField("Sample time"), yup.number().min(-1e5).max(1e6).required()]).required())
  .max(5000)
  .test("rising", "Samples must rise in time", (list) =>
    (list ?? []).every((s, i, all) => i === 0 || (s?.[0] ?? 0) > (all[i - 1]?.[0] ?? 0)),
  );

/** Where points of a record come from: typed by hand, or read from a scan-tool log that is kept by its hash. */
export type RecordSource =
  | { readonly kind: "typed" }
  | { readonly kind: "log"; readonly file: string; readonly sha256: string; readonly extractor: number };

export const sourceField = strictObject({
  kind: yup.string().oneOf(["typed", "log"]).required(),
  file: yup.string().max(255).optional(),
  sha256: yup
    .string()
    .matches(/^[0-9a-f]{64}$/)
    .optional(),
  extractor: yup.number().optional(),
}).test(
  "log",
  "Readings from a log name its file, its SHA-256 and the extractor's version",
  (s) => s?.kind !== "log" || (s.file !== undefined && s.sha256 !== undefined && s.extractor !== undefined),
);

/** A gauge or meter as it was before the check: its division, and what it showed with nothing on it. */
export interface InstrumentUse {
  readonly name: string;
  readonly division: Quantity;
  readonly zero: Quantity;
}

export const instrumentField = (dimension: "pressure" | "voltage") =>
  strictObject({
    name: needed("The instrument", "Name the instrument", 60),
    division: quantitySchema({ dimension }).required("State one division of the instrument"),
    zero: quantitySchema({ dimension }).required("State what the instrument shows with nothing on it"),
  });
