import { answer, choice, type FormState, fields, number, oneOf, type RecordOf } from "../../form";
import type { UnitId } from "../../units";
import { checkForm } from "../check-form";
import { placeToChoose, unitOptions } from "../fields";

/** Signal watched while the branch was shut off. */
export const PINCH_READ_NAMES = {
  trim: "Total trim",
  rpm: "Idle speed",
  flow: "Flow ball of a smoke run",
  vacuum: "Intake vacuum",
} as const;
export type PinchReads = keyof typeof PINCH_READ_NAMES;

const reading = (name: string) =>
  number({
    name,
    min: [-1e5, `${name} is below what anything reads`],
    max: [1e5, `${name} is above what anything reads`],
    missing: `Type the reading ${name.toLowerCase()}`,
  });

/** A branch pinched or capped off, the reading before, while and after. */
export const pinchFields = fields({
  joint: placeToChoose("Branch", "Pick the branch that is shut off"),
  how: choice(
    { pinch: "Pinched with clamps", cap: "Off and capped, both sides" },
    { label: "How", defaultValue: "pinch" },
  ).setUp(),
  reads: choice(PINCH_READ_NAMES, { name: "What was watched", label: "What is watched", defaultValue: "trim" }).setUp(),
  /** Of flow and vacuum; trim is in percent, speed in 1/min */
  unit: oneOf<UnitId>(["L/min", "cc/min", "SCFH", "inHg", "mmHg", "kPa", "hPa", "mbar", "psi"], "The unit", {
    label: "Unit",
    list: true,
  }).optional(),
  before: reading("Before"),
  shut: reading("While shut off"),
  released: reading("After release"),
  /** The clamp or cap was shown to hold by itself */
  blankProved: answer({
    label: "The clamp or cap by itself",
    yes: "Proved: it holds",
    no: "Not proved",
  }).optional(),
}).rule(
  "unit",
  "A flow or a vacuum needs its unit",
  ({ reads, unit }) => !["flow", "vacuum"].includes(String(reads)) || unit !== undefined,
);
export type PinchRecord = RecordOf<typeof pinchFields>;

const UNITS: Partial<Record<PinchReads, readonly [UnitId, ...UnitId[]]>> = {
  flow: ["L/min", "cc/min", "SCFH"],
  vacuum: ["inHg", "kPa", "mbar", "hPa"],
};

type State = FormState<unknown, "reads" | "unit">;
/** The units that what is watched can be read in, where it has a choice of them. */
const unitsOf = ({ value }: Pick<State, "value">) => UNITS[value("reads") as PinchReads];
const unitIn = (state: State): UnitId | undefined => {
  const units = unitsOf(state);
  const chosen = state.value("unit") as UnitId;
  return units && (units.includes(chosen) ? chosen : units[0]);
};
const labelled = (name: string) => ({
  label: (state: State) => {
    const reads = state.value("reads");
    return `${name}, ${reads === "trim" ? "%" : reads === "rpm" ? "rpm" : unitIn(state)}`;
  },
});

export const pinchForm = checkForm(pinchFields, {
  ask: {
    unit: {
      options: (state) => unitOptions(unitsOf(state) ?? []),
      when: (state) => unitsOf(state) !== undefined,
      defaultValue: (state) => unitsOf(state)?.[0],
    },
    before: labelled("Before"),
    shut: labelled("Shut off"),
    released: labelled("Released"),
  },
  computed: { unit: (_, state) => unitIn(state) },
});
