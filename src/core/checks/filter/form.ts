import type { UnitId } from "../../units";
import { airOf, checkForm, optionsOf, warmField } from "../known";
import { EGR_IDS, EGR_STATES } from "../led-back";
import { type FilterRecord, filterSchema, PIPE_STATES, type PipeState } from "./record";

const UNITS: readonly UnitId[] = ["hPa", "mbar", "kPa", "psi"];
const pressure = (label: string, example: string) =>
  ({ type: "quantity", label, band: "filterPressure", unit: "hPa", units: UNITS, example }) as const;
const speed = (label: string, example: string) => ({ type: "number", label, bare: "1/min", example }) as const;
const meter = (state: string, example: string) =>
  ({
    type: "quantity",
    label: `Air meter ${state}, if there is one`,
    band: "mafFlow",
    unit: "g/s",
    units: ["g/s", "kg/h"],
    example,
  }) as const;
const heat = (state: string, example: string) =>
  ({
    type: "quantity",
    label: `Gas before the filter ${state}, if shown`,
    band: "exhaustTemperature",
    unit: "°C",
    units: ["°C", "°F"],
    example,
  }) as const;

/** The scan tool's display, three times: standing, idling, held. */
export const filterForm = checkForm<FilterRecord>()({
  schema: filterSchema,
  fields: {
    source: { type: "taken", label: "Where they come from" },
    keyOn: pressure("Key on, engine standing", "0"),
    "idle.pressure": pressure("At idle", "6"),
    "idle.rpm": speed("Idle speed, 1/min", "800"),
    "idle.maf": meter("at idle", "8"),
    "idle.exhaustTemperature": heat("at idle", "120"),
    "held.pressure": pressure("Held, without load", "35"),
    "held.rpm": speed("Held at, 1/min", "3000"),
    "held.maf": meter("held", "45"),
    "held.exhaustTemperature": heat("held", "200"),
    division: pressure("One division of the display", "1"),
    egr: {
      type: "choice",
      label: "Exhaust led back meanwhile",
      options: optionsOf(EGR_IDS, EGR_STATES),
      holds: () => "unknown",
    },
    pipes: {
      type: "choice",
      label: "Its two pressure pipes",
      options: optionsOf(Object.keys(PIPE_STATES) as PipeState[], PIPE_STATES),
      holds: () => "not-looked",
    },
    warm: warmField,
    sootModel: { type: "number", label: "Soot by the ECU's model, g", example: "18" },
    sootMeasured: { type: "number", label: "Soot by the pressure, g", example: "20" },
  },
  also: (_, given) => airOf(given, "intakeTemperature"),
  keeps: ["ambient", "intakeTemperature"],
});
