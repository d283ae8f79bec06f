import * as yup from "yup";
import {
  answer,
  choice,
  Field,
  type FormState,
  instrument,
  list,
  number,
  type Option,
  oneOf,
  pattern,
  plain,
  quantity,
  type ReadsTo,
  type Shown,
  text,
  tick,
  variants,
} from "../form";
import { needed, SHA256 } from "../input";
import { inSentence } from "../sentence";
import { type UnitId, unitsOf } from "../units";
import { JOINT_IDS, ZONE_IDS, type ZoneId } from "../vehicle";
import type { CheckFacts } from "./check-form";

export type { InstrumentUse } from "../form";

/** A joint of the vehicle, named by its id. */
const jointId = needed("The joint", "Name the joint", 60).test({
  name: "known",
  message: ({ value }) => `No vehicle has a joint "${value}"`,
  skipAbsent: true,
  test: (id) => id === "" || JOINT_IDS.has(id),
});
export const joint = (missing = "Name the joint"): Field<string> => plain<string>(jointId, missing);
const jointList = yup.array().of(jointId).max(60);
/** Joints that are picked by hand. */
export const joints = (more: Shown & { readonly list?: true } = {}): Field<readonly string[]> =>
  new Field({ base: jointList, required: (base) => base.required(), input: { type: "marks", ...more } });

/** The part or place that a check is done at: the proposed one, until another is taken. */
export const place = (label: string, name = "joint", missing?: string): Field<string> =>
  joint(missing).asked({
    type: "place",
    label,
    among: ({ known }: FormState<CheckFacts>) => known.places,
    defaultValue: ({ known }: FormState<CheckFacts>) => known.place?.id ?? known.places[0]?.id,
    hint: ({ known, value }: FormState<CheckFacts>) => (value(name) === known.place?.id ? known.place?.because : undefined),
  });

/** A place that nobody takes for granted, unless it is owed there: shut off at the wrong one, a reading says something false of another. */
export const placeToChoose = (label: string, missing: string): Field<string> =>
  joint(missing).asked({
    type: "place",
    label,
    among: ({ known }: FormState<CheckFacts>) => known.places,
    defaultValue: ({ known }: FormState<CheckFacts>) => (known.place?.wanted || known.again ? known.place?.id : undefined),
    hint: ({ known: { place, places }, value }: FormState<CheckFacts>) => {
      const name = places.find((p) => p.id === place?.id)?.name;
      return name && value("joint") !== place?.id ? `Best next: ${inSentence(name)}` : place?.because;
    },
  });

/** A zone of the vehicle, named by its id. */
export const zone = (): Field<ZoneId> => plain<ZoneId>(yup.mixed<ZoneId>().oneOf(ZONE_IDS, "No such zone"), "Name the zone");

/** A moment in a record, s from its own zero, within two hours of it. */
export const moment = (name: string, more: Shown = {}): Field<number> =>
  number({
    name,
    bare: "s",
    wrong: `${name} is a number of seconds`,
    min: [-7200, `${name} is more than two hours before the start`],
    max: [7200, `${name} is more than two hours after the start`],
    ...more,
  });

/** How long something lasted, s. */
export const duration = (name: string, more: Shown = {}): Field<number> =>
  number({
    name,
    bare: "s",
    wrong: `${name} is a number of seconds`,
    min: [0, `${name} cannot be negative`],
    max: [7200, `${name} is longer than two hours`],
    ...more,
  });

/** Engine speed, 1/min. */
export const rpm = (more: Shown & { readonly swings?: true } = {}): Field<number> =>
  number({
    name: "RPM",
    bare: "rpm",
    min: [200, "RPM is below any idle"],
    max: [12000, "RPM is above any engine's"],
    ...more,
  });
/** Engine speed while it idles. */
export const idleSpeed = (more: Shown = {}): Field<number> => rpm({ label: "Idle speed, rpm", example: "740", ...more });

/** A percentage between two bounds. */
export const percent = (name: string, low = -100, high = 100, more: Shown & { readonly swings?: true } = {}): Field<number> =>
  number({
    name,
    bare: "%",
    wrong: `${name} is a number in percent`,
    min: [low, `${name} cannot be below ${String(low).replace("-", "−")} %`],
    max: [high, `${name} cannot be above ${high} %`],
    ...more,
  });

/** A unit of pressure that a record's readings are in. @param offered those that the form offers. */
export const pressureUnit = (offered: readonly UnitId[] = [], more: Shown = {}): Field<UnitId> =>
  oneOf<UnitId>(unitsOf("pressure"), more.label ?? "The unit", more)
    .asked({ options: unitOptions(offered) })
    .setUp();
/** Units to choose from, as options of a choice. */
export const unitOptions = (units: readonly string[]): readonly Option[] => units.map((u) => [u, u]);

/** A column of a series, and between which values any of it lies. */
interface SeriesColumn {
  readonly name: string;
  readonly low: number;
  readonly high: number;
}
/** The column that a series follows, s from the record's own zero. */
const TIME: SeriesColumn = { name: "The time", low: -7200, high: 7200 };

const wrongNumber = ({ name, low, high }: SeriesColumn, value: number): string | undefined => {
  if (!Number.isFinite(value)) return `${name} is a number`;
  if (value < low) return low === 0 ? `${name} cannot be negative` : `${name} cannot be below ${low}`;
  return value > high ? `${name} cannot be above ${high}` : undefined;
};

/** Everything wrong with a series, and where; undefined where all is well. */
function wrongRow(
  list: readonly unknown[],
  columns: readonly SeriesColumn[],
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
export const series = <T extends readonly number[]>(
  columns: readonly SeriesColumn[],
  longest: number,
  more: Shown & {
    readonly atLeast?: readonly [number, string];
    readonly rising?: "rising" | "not falling";
    readonly kind?: "gauge" | "vacuum" | "absolute";
    readonly empty?: readonly T[];
  } = {},
): Field<readonly T[]> => {
  const { atLeast, rising = "rising", column, kind, label, empty } = more;
  let base = yup.array<yup.AnyObject, T>().max(longest);
  if (atLeast) base = base.min(...atLeast);
  base = base.test("rows", function (rows) {
    const wrong = wrongRow(rows ?? [], [TIME, ...columns], rising);
    return !wrong || this.createError({ path: `${this.path}${wrong[0]}`, message: wrong[1] });
  });
  return new Field({
    base,
    required: (schema) => schema.required(),
    ...(label ? { input: { type: "taken", label, ...(empty ? { empty } : {}) } } : {}),
    column: column === undefined ? undefined : { reading: column, ...(kind ? { kind } : {}) },
  });
};

/** Pressure or vacuum over time: [s, in the record's unit], rising in time. */
export const samples = (
  more: Shown & {
    readonly atLeast?: readonly [number, string];
    readonly kind?: "gauge" | "vacuum";
    readonly empty?: readonly Sample[];
  } = {},
): Field<readonly Sample[]> => series<Sample>([{ name: "A reading", low: -1e5, high: 1e6 }], 5000, more);
type Sample = readonly [number, number];

/** A list of numbers. */
export const numbers = (longest: number, missing?: string): Field<readonly number[]> =>
  plain<readonly number[]>(
    yup
      .array<yup.AnyObject, number>()
      .max(longest)
      .test("numbers", function (all) {
        const at = (all ?? []).findIndex((value: unknown) => !Number.isFinite(value));
        return at < 0 || this.createError({ path: `${this.path}[${at}]`, message: "A series holds numbers only" });
      }),
    missing,
  );

const extractor = number({ name: "The extractor's version" });
/** Where readings of a record come from: typed by hand, read from a log that is kept by its hash, or taken live from a device. */
export const source = () =>
  variants(
    "kind",
    {
      typed: {},
      log: {
        file: text({ name: "The file", max: 255 }),
        sha256: pattern(SHA256, "A file's SHA-256 has 64 hexadecimal digits"),
        extractor,
      },
      device: { device: text({ name: "The device", max: 100 }), simulated: tick() },
    },
    {
      name: "The source",
      incomplete: {
        log: "Readings from a log name its file, its SHA-256 and the extractor's version",
        device: "Readings from a device name it, and say whether it is simulated",
      },
    },
  );
export type RecordSource = ReturnType<typeof source>["value"];
/** The same, as a form keeps it beside points that were taken. */
export const takenSource = (empty?: RecordSource) => source().taken("Where they come from", empty);

/** The simulated device that a record was read from; undefined where it was read on a car. */
export function simulatedDevice(record: object): string | undefined {
  const { source: from } = record as { readonly source?: RecordSource };
  return from?.kind === "device" && from.simulated ? from.device : undefined;
}

/** Where readings come from once one is typed beside others: what was simulated stays so while any of it is left. */
export const typedBeside = (from: RecordSource | undefined, left: number): RecordSource =>
  left > 0 && from?.kind === "device" && from.simulated ? from : { kind: "typed" };

/** How large readings get, SI: intake vacuum, crankcase, the vapour system's, a cap's and a charge side's pressure, volts. */
const REACH = {
  vacuum: 90e3,
  crankcase: 5e3,
  lowPressure: 2.4e3,
  cap: 8e3,
  boost: 150e3,
  backPressure: 60e3,
  volts: 15,
} as const;

/** Checks whose gauge must read one way; the others take one of either. */
const READS: Partial<Readonly<Record<keyof typeof REACH, ReadsTo>>> = {
  vacuum: "vacuum",
  cap: "pressure",
  boost: "pressure",
  backPressure: "pressure",
};

const used = (measures: "pressure" | "voltage", of: keyof typeof REACH) =>
  instrument(measures, {
    label: measures === "voltage" ? "Meter" : "Gauge",
    reach: REACH[of],
    ...(READS[of] ? { reads: READS[of] } : {}),
    shop: ({ known }: FormState<CheckFacts>) => known.instruments,
  })
    .notGauged()
    .equipment();
/** The gauge that was read, with its division and what it showed before; the shop's finest that reaches so far is proposed. */
export const gauge = (reach: Exclude<keyof typeof REACH, "volts">) => used("pressure", reach);
export const meter = () => used("voltage", "volts");

/** Gas space shut in between pump and part: with it a loss is the size of a hole. */
export const trappedVolume = () =>
  quantity("trapped", {
    label: "Trapped volume between pump and part, if known",
    units: ["mL", "L"],
    example: "60",
    hint: "Then a loss is given as the hole it comes through",
  })
    .setUp()
    .optional();

/** Whether the engine is warm: as the conditions have it. */
export const warm = (): Field<boolean> =>
  answer({ label: "Engine", yes: "Warm", no: "Not warm", missing: "Say whether the engine is warm" }).asked({
    defaultValue: ({ known }: FormState<CheckFacts>) => (known.warm === undefined ? undefined : known.warm ? "yes" : "no"),
    hint: ({ known }: FormState<CheckFacts>) => (known.warm === undefined ? undefined : "As the conditions have it"),
  });

const CONDITIONS = "Set the conditions first";
/** The air outside as the conditions have it. */
export const ambient = () =>
  quantity("ambient", { missing: "Ambient pressure is missing" })
    .notGauged()
    .known(({ known }: FormState<CheckFacts>) => known.ambient, `${CONDITIONS}: this goes by ambient pressure.`);
export const airTemperature = (missing = "Bay temperature is missing") =>
  quantity("airTemperature", { missing }).known(
    ({ known }: FormState<CheckFacts>) => known.temperature,
    `${CONDITIONS}: this goes by the bay's temperature.`,
  );

/** SHA-256 of pictures kept with the job. */
export const pictures = (most: number, empty?: readonly string[]): Field<readonly string[]> =>
  list(pattern(SHA256, "A picture is named by its SHA-256"), {
    label: "Pictures",
    max: most,
    ...(empty ? { empty } : {}),
  });

/** Where a check's points come from: each way in has its own part of the screen, and none of the record. */
export const reads = (defaultValue: "log" | "typed", more: Readonly<Record<string, string>> = {}) =>
  choice({ log: "From a log", typed: "Typed by hand", ...more }, { label: "Where the points come from", defaultValue });

/** The label and unit of a reading in the record's own unit. @param unit of the record, as its form has it. */
export const inUnit = <Name extends string>(unit: Name, label: string, kind: "gauge" | "vacuum") => {
  const of = ({ value }: FormState<unknown, Name>) => value(unit) as UnitId;
  return { label: (state: FormState<unknown, Name>) => `${label}, ${of(state)} ${kind}`, unit: of };
};
