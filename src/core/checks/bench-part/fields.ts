import { answer, choice, fields, quantity, type RecordOf, text } from "../../form";
import { checkForm } from "../check-form";
import { duration, gauge } from "../fields";

export const PART_STATES = { old: "The old one, taken off", new: "The new one, before it goes on" } as const;
export const WAYS = { dip: "Under water", soap: "Soaped", smoke: "Filled with smoke" } as const;

const pressure = (label: string, example: string, missing: string, column?: string) =>
  quantity("benchPressure", {
    label,
    units: ["bar", "psi", "kPa", "inH2O"],
    example,
    missing,
    ...(column ? { column } : {}),
  });

/** A part that is off the car: plugged, put under regulated pressure, and looked over. It says nothing of the car. */
export const benchPartFields = fields({
  part: text({ name: "The part", label: "Part", missing: "Name the part", max: 80, example: "charge-air cooler" }),
  state: choice(PART_STATES, { name: "The part", label: "It is" }),
  way: choice(WAYS, { name: "How it was tried", label: "Tried by" }),
  /** Gauge, by the regulator */
  pressure: pressure("Pressure on it, gauge", "0.8", "Type the pressure that was on it", "pressure on the part"),
  /** Rated pressure of part, plugs and hose, gauge */
  rating: pressure(
    "Part, plugs and hose are rated for, gauge",
    "1.2",
    "Type what part, plugs and hose are rated for",
  ).notGauged(),
  seconds: duration("How long it was watched", { label: "Watched for, s", example: "60", column: "watched" }),
  /** Every opening was plugged, and no plug let anything by */
  plugged: answer({
    label: "Its openings",
    yes: "All plugged, no plug leaks",
    no: "One open, or a plug leaks",
    missing: "Say whether every opening was plugged and no plug leaked",
  }),
  /** Where it came out; nothing where it did not */
  leaksAt: text({
    name: "Where it came out",
    label: "Came out at",
    hint: "Left empty: nowhere",
    example: "the crimp of its left end tank",
  }).optional(),
  instrument: gauge("boost"),
});
export type BenchPart = RecordOf<typeof benchPartFields>;

export const benchPartForm = checkForm(benchPartFields);
