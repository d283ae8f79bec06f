import { choice, type FormState, fields, formOf, group, number, quantity, type RecordOf, text, tick } from "../../form";
import { isQuantity, toSi } from "../../units";
import { entryKind } from "./entry-kind";

/** A coolant so far above the air is no cold engine's, K. */
const WARM_START = 10;

/** A drive between clearing the codes and reading them again, with what it was to set off. */
const driveFields = fields({
  minutes: number({
    name: "How long it was driven",
    label: "Driven, minutes",
    bare: "min",
    wrong: "How long it was driven is a number of minutes",
    min: [1, "A drive lasts at least a minute"],
    max: [1440, "A drive lasts a day at most"],
    missing: "Say how many minutes it was driven",
  }),
  distance: quantity("odometer", { label: "Distance", units: ["km", "mi"], example: "18" }).optional(),
  /** The complaint came back on it, after so far */
  cameBackAfter: quantity("driven", {
    label: "The complaint came back after",
    hint: "Left empty: it stayed away",
    units: ["km", "mi"],
    example: "7",
  }).optional(),
  conditions: text({
    name: "The conditions",
    label: "Conditions",
    example: "town, then the hill to the light",
    max: 300,
  }).optional(),
  /** Driving conditions: what sets in under load is not answered by a stroll */
  load: choice(
    { town: "Town", steady: "Steady road", hills: "Hills, under load" },
    { label: "Driving conditions", silent: ["unsaid"] },
  ).optional(),
  coldStart: tick({ label: "From a cold start" }).optional(),
  /** Conditions no shop can make: the customer's own road */
  byCustomer: tick({ label: "Driven by the customer" }).optional(),
  /** Engine and air as it was started, from the scan tool: what is warm is no cold start */
  start: group({
    coolant: quantity("coolant", {
      label: "Coolant at the start",
      units: ["°C", "°F"],
      example: "9",
      missing: "Type the coolant's temperature at the start",
    }),
    air: quantity("airTemperature", {
      label: "Air at the start",
      units: ["°C", "°F"],
      example: "8",
      missing: "Type the air's temperature at the start",
    }),
  }).optional(),
  /** Pending codes as they were read after it */
  pending: choice(
    { none: "None", came: "It came back" },
    { label: "Pending codes read after it", silent: ["not-read", "Not read"] },
  ).optional(),
  /** Ignition off and on again before it */
  keyCycle: tick({ label: "Ignition off and on before it" }).optional(),
})
  .rule(
    "whole",
    "Coolant that much above the air is a warm engine: a warm restart is no cold start. Take the tick out, or let it stand",
    ({ coldStart, start }) => {
      const { coolant, air } = (start ?? {}) as { readonly coolant?: unknown; readonly air?: unknown };
      return !coldStart || !isQuantity(coolant) || !isQuantity(air) || toSi(coolant) - toSi(air) <= WARM_START;
    },
  )
  .rule(
    "whole",
    "It came back within the drive: no later than its distance",
    ({ distance, cameBackAfter }) =>
      !isQuantity(distance) || !isQuantity(cameBackAfter) || toSi(cameBackAfter) <= toSi(distance) * (1 + 1e-9),
  );
export type Drive = RecordOf<typeof driveFields>;

const fromCold = ({ value }: FormState<unknown, "coldStart">) => value("coldStart") === true;

export const driveForm = formOf<undefined>()(driveFields, {
  ask: { "start.coolant": { when: fromCold }, "start.air": { when: fromCold }, pending: { when: fromCold } },
});

/** The time a drive took that has just ended, ISO 8601. */
export function driven({ minutes }: Pick<Drive, "minutes">, now: Date): { readonly from: string; readonly to: string } {
  return { from: new Date(now.getTime() - minutes * 60_000).toISOString(), to: now.toISOString() };
}

export const drive = entryKind(driveFields, {
  words: (b) =>
    `Driven ${b.byCustomer ? "by the customer for " : ""}${b.minutes} min${b.distance ? `, ${b.distance.value} ${b.distance.unit}` : ""}${b.coldStart ? ", cold start" : ""}${b.conditions ? `: ${b.conditions}` : ""}`,
});
