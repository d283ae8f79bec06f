import { formOf } from "../../form";
import type { RecordSource } from "../fields";
import { AIR_ELSEWHERE, checkForm, optionsOf, readsField, warmField } from "../known";
import { EGR_IDS, EGR_STATES } from "../led-back";
import { type BoostPointRead, type BoostRecord, boostPointSchema, boostSchema } from "./record";

const standing = (label: string, band: "ambient" | "manifold" | "exhaustPressure", example: string) =>
  ({ type: "quantity", label: `Key on: ${label}`, band, unit: "kPa", units: ["kPa", "bar", "psi", "hPa"], example }) as const;

/** What a log gave, or points typed one by one. */
export const boostForm = checkForm<BoostRecord>()({
  schema: boostSchema,
  fields: {
    points: { type: "taken", label: "Points", empty: [] },
    source: { type: "taken", label: "Where they come from", empty: { kind: "typed" } satisfies RecordSource },
    "keyOn.ambient": standing("ECU's ambient pressure, absolute", "ambient", "100.8"),
    "keyOn.map": standing("Manifold pressure, absolute", "manifold", "100.9"),
    "keyOn.charge": standing("Charge pressure, absolute", "manifold", "101.1"),
    "keyOn.exhaust": {
      ...standing("Exhaust pressure, absolute", "exhaustPressure", "100.9"),
      when: ({ known }) => known.context.vehicle.fitted.includes("particulate-filter"),
    },
    "keyOn.filter": {
      type: "quantity",
      label: "Key on: filter pressure difference",
      band: "filterPressure",
      unit: "hPa",
      units: ["hPa", "mbar", "kPa", "psi"],
      example: "0",
      when: ({ known }) => known.context.vehicle.fitted.includes("particulate-filter"),
    },
    short: { type: "taken", label: "Short" },
    over: { type: "taken", label: "Over" },
    hunts: { type: "taken", label: "Swings" },
    limp: { type: "taken", label: "Limp mode" },
    egr: {
      type: "choice",
      label: "Exhaust led back meanwhile",
      options: optionsOf(EGR_IDS, EGR_STATES),
      holds: ({ known }) => (known.context.vehicle.fitted.includes("egr") ? "unknown" : "shut"),
      hint: ({ holds }) => (holds("egr") === "shut" ? undefined : "Then no leak can be told from the air meter: command it shut"),
    },
    warm: warmField,
    reads: readsField("log"),
  },
  also: (_, { known }) => (known.ambient ? { ambient: known.ambient } : {}),
  keeps: ["ambient"],
  elsewhere: AIR_ELSEWHERE,
});

const pressure = (label: string, example: string, band: "manifold" | "asked" = "manifold") =>
  ({ type: "quantity", label, band, unit: "kPa", units: ["kPa", "bar", "psi", "hPa"], example }) as const;

/** One point, typed. */
export const boostPointForm = formOf<BoostPointRead, { readonly metered: boolean }>()({
  schema: boostPointSchema,
  fields: {
    rpm: { type: "number", label: "Engine speed, 1/min", bare: "1/min", example: "2400" },
    charge: pressure("Charge pressure, absolute", "198"),
    map: pressure("Manifold pressure, absolute", "196"),
    asked: pressure("Boost asked for, absolute", "215", "asked"),
    maf: {
      type: "quantity",
      label: "Air meter",
      band: "mafFlow",
      unit: "g/s",
      units: ["g/s", "kg/h", "lb/min"],
      example: "84",
      when: ({ known }) => known.metered,
    },
    chargeTemperature: {
      type: "quantity",
      label: "Charge air",
      band: "airTemperature",
      unit: "°C",
      units: ["°C", "°F"],
      example: "42",
    },
  },
});
