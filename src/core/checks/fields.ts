import * as yup from "yup";
import { needed, strictObject } from "../input";
import { endsAboveDivision, SCALE_ENDS } from "../shop/machine";
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

/** A column of a series, and between which values any of it lies. */
interface Column {
  readonly name: string;
  readonly low: number;
  readonly high: number;
}
/** The column that a series follows, s from the record's own zero. */
const TIME: Column = { name: "The time", low: -7200, high: 7200 };

const wrongNumber = ({ name, low, high }: Column, value: number): string | undefined => {
  if (!Number.isFinite(value)) return `${name} is a number`;
  if (value < low) return low === 0 ? `${name} cannot be negative` : `${name} cannot lie below ${low}`;
  return value > high ? `${name} cannot lie above ${high}` : undefined;
};

/** What is wrong with a series, and where; undefined where all is well. */
function wrongRow(
  list: readonly unknown[],
  columns: readonly Column[],
  rising: "rising" | "not falling",
): [string, string] | undefined {
  let before = Number.NEGATIVE_INFINITY;
  for (const [i, row] of list.entries()) {
    if (!Array.isArray(row) || row.length !== columns.length)
      return [`[${i}]`, `A reading is a list of ${columns.length} numbers`];
    for (const [c, column] of columns.entries()) {
      const wrong = wrongNumber(column, row[c]);
      if (wrong) return [`[${i}][${c}]`, wrong];
    }
    const time = row[0] as number;
    if (time < before || (time === before && rising === "rising")) return [`[${i}][0]`, "Readings must rise in time"];
    before = time;
  }
  return undefined;
}

/**
 * Readings over time, [s, …], looked through in one go: a list of thousands is validated while others wait.
 * @param columns what follows the time; @param rising whether two may have the same time.
 */
export const seriesField = <T extends readonly number[]>(
  columns: readonly Column[],
  longest: number,
  rising: "rising" | "not falling" = "rising",
) =>
  yup
    .array<yup.AnyObject, T>()
    .max(longest)
    .required()
    .test("rows", function (list) {
      const wrong = wrongRow(list ?? [], [TIME, ...columns], rising);
      return !wrong || this.createError({ path: `${this.path}${wrong[0]}`, message: wrong[1] });
    });

/** A list of numbers. */
export const numbersField = (longest: number) =>
  yup
    .array<yup.AnyObject, number>()
    .max(longest)
    .test("numbers", function (list) {
      const at = (list ?? []).findIndex((value: unknown) => !Number.isFinite(value));
      return at < 0 || this.createError({ path: `${this.path}[${at}]`, message: "A series holds numbers only" });
    });

/** Vacuum over time: [s, vacuum in `unit`], rising in time. */
export const samplesField = seriesField<[number, number]>([{ name: "A reading", low: -1e5, high: 1e6 }], 5000);

/** Where readings of a record come from: typed by hand, read from a log that is kept by its hash, or taken live from a device. */
export type RecordSource =
  | { readonly kind: "typed" }
  | { readonly kind: "log"; readonly file: string; readonly sha256: string; readonly extractor: number }
  | { readonly kind: "device"; readonly device: string; readonly simulated: boolean };

export const sourceField = strictObject<{
  kind: RecordSource["kind"];
  file?: string;
  sha256?: string;
  extractor?: number;
  device?: string;
  simulated?: boolean;
}>({
  kind: yup.string().oneOf(["typed", "log", "device"]).required(),
  file: yup.string().max(255).optional(),
  sha256: yup
    .string()
    .matches(/^[0-9a-f]{64}$/)
    .optional(),
  extractor: yup.number().optional(),
  device: yup.string().max(100).optional(),
  simulated: yup.boolean().optional(),
})
  .test(
    "log",
    "Readings from a log name its file, its SHA-256 and the extractor's version",
    (s) => s?.kind !== "log" || (s.file !== undefined && s.sha256 !== undefined && s.extractor !== undefined),
  )
  .test(
    "device",
    "Readings from a device name it, and say whether it is simulated",
    (s) => s?.kind !== "device" || (Boolean(s.device) && s.simulated !== undefined),
  );

/** The simulated device that a record was read from; undefined where it was read on a car. */
export function simulatedDevice(record: object): string | undefined {
  const { source } = record as { readonly source?: RecordSource };
  return source?.kind === "device" && source.simulated ? source.device : undefined;
}

/** Where readings come from once one is typed beside others: what was simulated stays so while any of it is left. */
export const typedBeside = (source: RecordSource | undefined, left: number): RecordSource =>
  left > 0 && source?.kind === "device" && source.simulated ? source : { kind: "typed" };

/** A gauge or meter as it was before the check: its division, what it showed with nothing on it, and where its scale ends. */
export interface InstrumentUse {
  readonly name: string;
  readonly division: Quantity;
  readonly zero: Quantity;
  /** The most that it shows, either way from nothing; not said where left out */
  readonly end?: Quantity;
}

export const instrumentField = (dimension: "pressure" | "voltage") =>
  strictObject({
    name: needed("The instrument", "Name the instrument", 60),
    division: quantitySchema({ dimension }).required("State one division of the instrument"),
    zero: quantitySchema({ dimension }).required("State what the instrument shows with nothing on it"),
    end: quantitySchema({ dimension }).optional().default(undefined),
  }).test("end", SCALE_ENDS, endsAboveDivision);
