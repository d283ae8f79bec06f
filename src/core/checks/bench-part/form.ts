import type { UnitId } from "../../units";
import { checkForm, gaugeField, optionsOf } from "../known";
import { type BenchPart, benchPartSchema, PART_STATES, type PartState, WAYS, type Way } from "./record";

const UNITS: readonly UnitId[] = ["bar", "psi", "kPa", "inH2O"];
const pressure = (label: string, example: string) =>
  ({ type: "quantity", label, band: "benchPressure", unit: "bar", units: UNITS, example }) as const;

/** A part by itself under regulated pressure. */
export const benchPartForm = checkForm<BenchPart>()({
  schema: benchPartSchema,
  fields: {
    part: { type: "text", label: "Part", example: "charge-air cooler" },
    state: { type: "choice", label: "It is", options: optionsOf(Object.keys(PART_STATES) as PartState[], PART_STATES) },
    way: { type: "choice", label: "Tried by", options: optionsOf(Object.keys(WAYS) as Way[], WAYS) },
    pressure: pressure("Pressure on it, gauge", "0.8"),
    rating: pressure("Part, plugs and hose bear, gauge", "1.2"),
    seconds: { type: "number", label: "Watched for, s", bare: "s", example: "60" },
    plugged: { type: "tick", label: "Every opening plugged, no plug lets air by" },
    leaksAt: { type: "text", label: "Came out at", hint: "Left empty: nowhere", example: "the crimp of its left end tank" },
    instrument: gaugeField("boost"),
  },
});
