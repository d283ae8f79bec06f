import { formOf } from "../form";
import { type Bodies, bodySchema, MONITOR_RESULTS } from "./entries";
import type { JobState } from "./state";

/** The complaint itself, tried again after the repair. */
export const complaintTriedForm = formOf<Bodies["complaint-tried"], undefined>()({
  schema: bodySchema("complaint-tried"),
  fields: {
    how: { type: "text", long: true, label: "How it was tried", example: "Cold start, 10 min idle, drive over the pass" },
    result: {
      type: "choice",
      label: "Result",
      options: [
        ["gone", "Gone"],
        ["remains", "Remains"],
      ],
    },
  },
});

const fromCold = ({ holds }: { readonly holds: (name: string) => unknown }) => holds("coldStart") === true;

/** A drive between clearing the codes and reading them again. */
export const driveForm = formOf<Bodies["drive"], undefined>()({
  schema: bodySchema("drive"),
  fields: {
    minutes: { type: "number", label: "Driven, minutes", bare: "min" },
    distance: { type: "quantity", label: "Distance", band: "odometer", unit: "km", units: ["km", "mi"], example: "18" },
    cameBackAfter: {
      type: "quantity",
      label: "The complaint came back after",
      hint: "Left empty: it stayed away",
      band: "driven",
      unit: "km",
      units: ["km", "mi"],
      example: "7",
    },
    conditions: { type: "text", label: "Conditions", example: "town, then the hill to the light" },
    load: {
      type: "choice",
      label: "What the road asked of it",
      options: [
        ["town", "Town"],
        ["steady", "Steady road"],
        ["hills", "Hills, full load"],
      ],
      silent: "unsaid",
    },
    coldStart: { type: "tick", label: "From a cold start" },
    "start.coolant": {
      type: "quantity",
      label: "Coolant at the start",
      band: "coolant",
      unit: "°C",
      units: ["°C", "°F"],
      example: "9",
      when: fromCold,
    },
    "start.air": {
      type: "quantity",
      label: "Air at the start",
      band: "airTemperature",
      unit: "°C",
      units: ["°C", "°F"],
      example: "8",
      when: fromCold,
    },
    pending: {
      type: "choice",
      label: "Pending codes read after it",
      options: [
        ["not-read", "Not read"],
        ["none", "None"],
        ["came", "It came back"],
      ],
      silent: "not-read",
      holds: () => "not-read",
      when: fromCold,
    },
    keyCycle: { type: "tick", label: "Ignition off and on before it" },
  },
});

/** What the ECU shows of a part since it was told that it is as new. */
export const resetForm = formOf<Bodies["reset"], { readonly check: Bodies["reset"]["check"] }>()({
  schema: bodySchema("reset"),
  fields: {
    learned: { type: "text", label: "What it shows since: soot, ash, distance", example: "soot 0 g, ash 0 g, distance 0 km" },
  },
  also: (_, { known }) => ({ check: known.check }),
});

/** The time a drive took that has just ended, ISO 8601. */
export function driven({ minutes }: Pick<Bodies["drive"], "minutes">, now: Date): { readonly from: string; readonly to: string } {
  return { from: new Date(now.getTime() - minutes * 60_000).toISOString(), to: now.toISOString() };
}

interface Parked {
  /** Fuel level as it was typed last, percent */
  readonly fuelLevel?: number;
  /** The time, ISO 8601 */
  readonly now: () => string;
}

/** What is known of a car that is parked for its monitor: its fuel, as a check had it last. */
export const knownOfReadiness = ({ checks }: Pick<JobState, "checks">, now: Parked["now"]): Parked => {
  const level = checks.flatMap((c) => (c.record as { readonly fuelLevel?: number }).fuelLevel ?? []).at(-1);
  return { now, ...(level === undefined ? {} : { fuelLevel: level }) };
};

/** The car as it is parked, before its EVAP monitor is to run. */
export const readinessForm = formOf<Bodies["readiness"], Parked>()({
  schema: bodySchema("readiness"),
  fields: {
    fuelLevel: {
      type: "number",
      label: "Fuel level, %",
      bare: "%",
      holds: ({ known }) => (known.fuelLevel === undefined ? undefined : String(known.fuelLevel)),
    },
    outside: {
      type: "quantity",
      label: "Air expected at the start",
      band: "airTemperature",
      unit: "°C",
      units: ["°C", "°F"],
      example: "12",
    },
    parkedAt: { type: "text", time: "moment", label: "Engine switched off at", hint: "Left empty: now", free: true },
  },
  also: (read, { known }) => ({ parkedAt: read.parkedAt ?? known.now() }),
});

/** What the car's own monitor said, read from it. */
export const monitorForm = formOf<Bodies["monitor"], undefined>()({
  schema: bodySchema("monitor"),
  fields: {
    result: { type: "choice", label: "What the monitor said", options: Object.entries(MONITOR_RESULTS) },
    readBy: { type: "text", label: "How it was read", example: "readiness complete, no pending code, after 14 km" },
  },
});
