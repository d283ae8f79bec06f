import { type Field, type Form, formOf, type Given, type Option } from "../form";
import type { Instrument, ReadsTo } from "../shop/settings";
import type { Quantity } from "../units";
import type { Joint } from "../vehicle";
import type { CheckContext } from "./check";
import type { EvapSetup } from "./evap-fields";

/** What a check need not ask, because the job or the shop has it already. */
export interface Known {
  readonly context: CheckContext;
  readonly instruments: readonly Instrument[];
  /** Of the bay, as the conditions have it */
  readonly ambient?: Quantity;
  readonly temperature?: Quantity;
  /** Whether the engine is warm; undefined where nobody said */
  readonly warm?: boolean;
  /** The leak that a check of the vapour system is held against */
  readonly required?: NonNullable<EvapSetup["required"]>;
  /** Percent of the tank, as it was typed last in this job */
  readonly fuelLevel?: number;
  /** Joints that the check can be done at, the likeliest first */
  readonly places: readonly Joint[];
  /** The one it is proposed at, and why */
  readonly place?: { readonly id: string; readonly because: string };
}

export type CheckForm<Body extends object, Name extends string = string> = Form<Body, Known, Name>;
type KnownField = Field<Known>;

export const checkForm = <Body extends object>() => formOf<Body, Known>();

/** Where a check's points come from: each way in has its own part of the screen, and none of the record. */
export const readsField = (holds: "log" | "typed", ...more: readonly Option[]): KnownField => ({
  type: "choice",
  label: "Where the points come from",
  options: [["log", "From a log"], ["typed", "Typed by hand"], ...more],
  holds: () => holds,
  aside: true,
});

/** Ids with their names, as options of a choice. */
export const optionsOf = <T extends string>(ids: readonly T[], names: Readonly<Record<T, string>>): readonly Option[] =>
  ids.map((id) => [id, names[id]]);

/** Units to choose from, as options of a choice. */
export const unitOptions = (units: readonly string[]): readonly Option[] => units.map((u) => [u, u]);

/** The part or place that a check is done at, under its name in the form: the proposed one, until another is taken. */
export const placeField = (label: string, name = "joint"): KnownField => ({
  type: "place",
  label,
  among: ({ known }) => known.places,
  holds: ({ known }) => known.place?.id ?? known.places[0]?.id,
  hint: ({ known, holds }) => (holds(name) === known.place?.id ? known.place?.because : undefined),
});

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

const instrument = (measures: "pressure" | "voltage", of: keyof typeof REACH): KnownField => ({
  type: "instrument",
  label: measures === "voltage" ? "Meter" : "Gauge",
  measures,
  reach: REACH[of],
  ...(READS[of] ? { reads: READS[of] } : {}),
  shop: ({ known }) => known.instruments,
});
export const gaugeField = (reach: Exclude<keyof typeof REACH, "volts">): KnownField => instrument("pressure", reach);
export const meterField: KnownField = instrument("voltage", "volts");

/** Gas space shut in between pump and part: with it a loss is the size of a hole. */
export const trappedField: KnownField = {
  type: "quantity",
  label: "Shut in between pump and part, if known",
  band: "trapped",
  unit: "mL",
  units: ["mL", "L"],
  example: "60",
  hint: "Then a loss is given as the hole it comes through",
};

/** Engine speed while it idles. */
export const idleField: KnownField = { type: "number", label: "Idle speed, 1/min", bare: "1/min", example: "740" };

/** Whether the engine is warm: as the conditions have it. */
export const warmField: KnownField = {
  type: "answer",
  label: "Engine",
  yes: "Warm",
  no: "Not warm",
  holds: ({ known }) => (known.warm === undefined ? undefined : known.warm ? "yes" : "no"),
  hint: ({ known }) => (known.warm === undefined ? undefined : "As the conditions have it"),
};

export const fuelLevelField: KnownField = {
  type: "number",
  label: "Fuel level, % of the tank",
  bare: "%",
  example: "45",
  holds: ({ known }) => (known.fuelLevel === undefined ? undefined : String(known.fuelLevel)),
  hint: ({ known: { context, fuelLevel }, holds }) => {
    const { evapFuelLow: low, evapFuelHigh: high } = context.limits;
    const counts = `Counts between ${Math.round(100 * low.value)} and ${Math.round(100 * high.value)} % (${low.source})`;
    return fuelLevel !== undefined && holds("fuelLevel") === String(fuelLevel) ? `As typed last. ${counts}` : counts;
  },
};

const CONDITIONS = "Set the conditions first (top right)";
/** What to do about air outside that nobody wrote down. */
export const AIR_ELSEWHERE = {
  ambient: `${CONDITIONS}: this goes by ambient pressure.`,
  temperature: `${CONDITIONS}: this goes by the bay's temperature.`,
  intakeTemperature: `${CONDITIONS}: this goes by the bay's temperature.`,
} as const;

/** The air outside as the conditions have it, left out where nobody set them. */
export const airOf = ({ known }: Given<Known>, temperature: "temperature" | "intakeTemperature") => ({
  ...(known.ambient ? { ambient: known.ambient } : {}),
  ...(known.temperature ? { [temperature]: known.temperature } : {}),
});

/** Only where it has something. */
export const given = <K extends string, V>(key: K, value: V | undefined): { [P in K]?: V } =>
  (value === undefined ? {} : { [key]: value }) as { [P in K]?: V };
