import { fields, formOf, group, list, number, quantity, type RecordOf, tick } from "../../form";
import { standsStill } from "../../gas/boost-log";
import { isQuantity, type Quantity, toSi } from "../../units";
import { type CheckFacts, checkForm } from "../check-form";
import { egrFlows, egrState } from "../egr-state";
import { ambient, moment, percent, reads, rpm, takenSource, warm } from "../fields";

const pressure = (label: string, example: string, band: "manifold" | "asked", column: string) =>
  quantity(band, { label, units: ["kPa", "bar", "psi", "hPa"], example, column }).optional();

/** How fast a moment of a log moves: charge pressure, kPa/s; charge temperature, K/s; metered flow, share of it in a second. */
const moving = group({
  pressure: number({ name: "The change of pressure" }),
  temperature: number({ name: "The change of temperature" }),
  flow: number({ name: "The change of flow" }),
});

/** A moment of a log or a typed one, steady unless it says how it moves; pressures absolute. */
export const boostPointFields = fields({
  time: moment("The time of a point").optional().taken("Time"),
  rpm: rpm({ label: "Engine speed, rpm", example: "2400", column: "engine speed" }),
  map: pressure("Manifold pressure, absolute", "196", "manifold", "manifold pressure"),
  charge: pressure("Charge pressure, absolute", "198", "manifold", "charge pressure"),
  asked: pressure("Requested boost, absolute", "215", "asked", "requested charge pressure"),
  maf: quantity("mafFlow", {
    label: "MAF",
    units: ["g/s", "kg/h", "lb/min"],
    example: "84",
    column: "MAF flow",
  }).optional(),
  chargeTemperature: quantity("chargeTemperature", {
    label: "Charge air",
    units: ["°C", "°F"],
    example: "42",
    missing: "Type the charge air's temperature",
    column: "charge air temperature",
  }),
  /** Percent */
  actuator: group({ command: percent("The command", 0, 100), position: percent("The position", 0, 100) }).optional(),
  moving: moving.optional(),
  /** Percent: short- and long-term together, mean of the banks, while the loop is closed */
  trim: percent("The trim", -60, 60).optional().taken("Trim"),
  /** Percent, where the log says how far exhaust was led back */
  egr: percent("EGR", 0, 100).optional(),
}).rule(
  "whole",
  "Type manifold or charge pressure, absolute: without one a point says nothing",
  ({ map, charge }) => map !== undefined || charge !== undefined,
);
export type BoostPointRead = RecordOf<typeof boostPointFields>;

/** Whether exhaust was led back at this point: then the meter misses a part of what the engine breathed. */
export const egrOpen = ({ egr }: Pick<BoostPointRead, "egr">): boolean => egrFlows(egr);

/** Whether boost stands still at a moment: what is on its way is not yet what was asked. */
export const isSteady = ({ moving }: Pick<BoostPointRead, "moving">): boolean =>
  moving === undefined || standsStill(1e3 * moving.pressure);

/** How long boost stayed beyond what matters, and between which speeds. */
const stretch = group({
  seconds: number({
    name: "The stretch",
    min: [0, "The stretch cannot be negative"],
    max: [7200, "The stretch is longer than two hours"],
  }),
  from: rpm(),
  to: rpm(),
});
export type Stretch = (typeof stretch)["value"];

const standing = (label: string, band: "ambient" | "manifold" | "exhaustPressure", example: string, column: string) =>
  quantity(band, { label: `Key on: ${label}`, units: ["kPa", "bar", "psi", "hPa"], example, column }).optional();

/** With the key on and the engine standing: every sensor shows the air outside, and the filter's nothing. */
const keyOn = group({
  map: standing("Manifold pressure, absolute", "manifold", "100.9", "manifold pressure, key on"),
  charge: standing("Charge pressure, absolute", "manifold", "101.1", "charge pressure, key on"),
  /** The ECU's own sensor of the air outside */
  ambient: standing("ECU's ambient pressure, absolute", "ambient", "100.8", "ECU's ambient pressure, key on"),
  exhaust: standing("Exhaust pressure, absolute", "exhaustPressure", "100.9", "exhaust pressure, key on"),
  filter: quantity("filterPressure", {
    label: "Key on: filter pressure difference",
    units: ["hPa", "mbar", "kPa", "psi"],
    example: "0",
    column: "filter pressure, key on",
  }).optional(),
});
export type KeyOnRead = (typeof keyOn)["value"];

/** Claim and delivered, one in gauge and one in absolute: the air outside lies between them. */
function mixes(points: unknown, air: unknown): boolean {
  if (!Array.isArray(points) || !isQuantity(air)) return false;
  const outside = toSi(air);
  return points.some((p: Partial<BoostPointRead> | undefined) => {
    const got = p?.charge ?? p?.map;
    return isQuantity(p?.asked) && isQuantity(got) && toSi(p.asked as Quantity) < 0.6 * outside && toSi(got) > 0.95 * outside;
  });
}

/** The charge side as a log shows it, or as points were typed one by one. */
export const boostFields = fields({
  source: takenSource({ kind: "typed" }),
  keyOn: keyOn.optional(),
  points: list(boostPointFields.group, { label: "Points", min: [1, "Read a log, or type a point"], max: 400, empty: [] }),
  /** Longest stretch that boost fell short, or went over, where a log tells */
  short: stretch.optional().taken("Short"),
  over: stretch.optional().taken("Over"),
  /** Delivered boost swung about what was asked */
  hunts: tick().optional().taken("Swings"),
  /** Boost was no longer asked for from here on: s on the log's clock, and how far it had gone */
  limp: group({ at: moment("The onset"), after: quantity("odometer").optional() })
    .optional()
    .taken("Limp mode"),
  /** Percent, on manifold density */
  ownEfficiency: percent("VE", 40, 130, {
    label: "Known good VE of this engine, %",
    example: "86",
    hint: "From an earlier log of this engine: with it a MAF that reads wrong shows too",
  }).optional(),
  egr: egrState(),
  warm: warm(),
  ambient: ambient(),
}).rule(
  "whole",
  "The requested boost lies far below the air outside while as much or more is delivered: it is gauge pressure beside absolute. Choose the unit and kind of that column again",
  (record) => !mixes(record.points, record.ambient),
);
export type BoostRecord = RecordOf<typeof boostFields>;

const filtered = ({ known }: { readonly known: CheckFacts }) => known.context.vehicle.fitted.includes("particulate-filter");

export const boostForm = checkForm(boostFields, {
  aside: { reads: reads("log") },
  ask: {
    "keyOn.exhaust": { when: filtered },
    "keyOn.filter": { when: filtered },
    egr: {
      defaultValue: ({ known }) => (known.context.vehicle.fitted.includes("egr") ? "unknown" : "shut"),
      hint: ({ value }) => (value("egr") === "shut" ? undefined : "Then no leak can be told from the MAF: command it shut"),
    },
  },
});

/** One point, typed. */
export const boostPointForm = formOf<{ readonly metered: boolean }>()(boostPointFields, {
  ask: { maf: { when: ({ known }) => known.metered } },
});
