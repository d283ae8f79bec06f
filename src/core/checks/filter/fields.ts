import { choice, fields, group, number, quantity, type RecordOf } from "../../form";
import { checkForm } from "../check-form";
import { egrState } from "../egr-state";
import { airTemperature, ambient, rpm, takenSource, warm } from "../fields";

/** State of the two pressure pipes. */
export const PIPE_STATES = {
  sound: "Looked at: free and on",
  "front-bad": "Front one split, off or blocked",
  "rear-bad": "Rear one split, off or blocked",
  swapped: "On the wrong way round",
  "not-looked": "Not looked at",
} as const;
export type PipeState = keyof typeof PIPE_STATES;

const pressure = (label: string, example: string, missing?: string, column?: string) =>
  quantity("filterPressure", {
    label,
    units: ["hPa", "mbar", "kPa", "psi"],
    example,
    ...(missing ? { missing } : {}),
    ...(column ? { column } : {}),
  });

/** A reading with the engine running; pressures are before the filter over behind it. */
const running = (
  state: "idle" | "held",
  label: readonly [pressure: string, speed: string, at: string],
  example: readonly [pressure: string, speed: string, maf: string, heat: string],
) =>
  group(
    {
      rpm: rpm({ label: label[1], example: example[1], column: `engine speed, ${state}` }),
      pressure: pressure(label[0], example[0], "Type the pressure difference", `filter pressure, ${state}`),
      maf: quantity("mafFlow", {
        label: `MAF ${label[2]}, if there is one`,
        units: ["g/s", "kg/h"],
        example: example[2],
        column: `MAF flow, ${state}`,
      }).optional(),
      exhaustTemperature: quantity("exhaustTemperature", {
        label: `Gas before the filter ${label[2]}, if shown`,
        units: ["°C", "°F"],
        example: example[3],
        column: `exhaust temperature, ${state}`,
      }).optional(),
    },
    { point: state === "idle" ? 0 : 1 },
  ).optional();

/** Soot, g. */
const soot = (label: string, example: string) =>
  number({
    name: "The soot",
    wrong: "The soot is a number of grams",
    min: [0, "The soot cannot be negative"],
    max: [500, "The soot: no filter holds so much"],
    label,
    example,
  }).optional();

/** Pressure difference of a particulate filter on the scan tool's display: key on, at idle, and held at a speed without load. */
export const filterFields = fields({
  /** The log that its readings were taken from, where they were */
  source: takenSource().optional(),
  keyOn: pressure("Key on, engine standing", "0", undefined, "filter pressure, key on").optional(),
  idle: running("idle", ["At idle", "Idle speed, rpm", "at idle"], ["6", "800", "8", "120"]),
  held: running("held", ["Held, without load", "Held at, rpm", "held"], ["35", "3000", "45", "200"]),
  division: pressure("One division of the display", "1", "State one division of the display").setUp(),
  egr: egrState(),
  pipes: choice(PIPE_STATES, { name: "The state of the pipes", label: "Its two pressure pipes", defaultValue: "not-looked" }),
  warm: warm(),
  /** Soot in it as the ECU reckons it from how it was driven, and from the pressure, g */
  sootModel: soot("Soot by the ECU's model, g", "18"),
  sootMeasured: soot("Soot by the pressure, g", "20"),
  ambient: ambient().optional(),
  intakeTemperature: airTemperature().optional(),
})
  .rule(
    "whole",
    "Read it at idle, at a held speed, or both: without a running engine it says nothing",
    ({ idle, held }) => idle !== undefined || held !== undefined,
  )
  .rule("held.rpm", "The held speed lies no higher than the idle: type the one that was held", (record) => {
    const { idle, held } = record as { idle?: { rpm?: unknown }; held?: { rpm?: unknown } };
    return typeof idle?.rpm !== "number" || typeof held?.rpm !== "number" || held.rpm > idle.rpm;
  });
export type FilterRecord = RecordOf<typeof filterFields>;
export type FilterRunning = NonNullable<FilterRecord["idle"]>;

export const filterForm = checkForm(filterFields, { ask: { egr: { defaultValue: () => "unknown" } } });
