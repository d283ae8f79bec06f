import type { Given, Option } from "../../form";
import { checkForm, gaugeField, type Known, optionsOf, placeField, trappedField } from "../known";
import {
  BACKS,
  type Back,
  HOLD_PART_NAMES,
  HOLD_PARTS,
  type HoldRecord,
  holdSchema,
  REACHES,
  type Reach,
  VENTINGS,
  type Venting,
} from "./record";

const moves = ({ holds }: Given<Known>) => holds("moved") === "yes";
const travel = (label: string, example: string) =>
  ({
    type: "quantity",
    label: `${label}, vacuum`,
    band: "vacuum",
    unit: "inHg",
    units: ["inHg", "kPa", "mbar"],
    example,
    when: moves,
  }) as const;
const branches = ({ context: { layout } }: Known) =>
  layout.joints.filter((j) => j.from === "vacuum-supply" && j.to !== "outside");
const onSupply = ({ known, holds }: Given<Known>) =>
  known.context.layout.joints.some((j) => j.id === holds("joint") && j.from === "vacuum-supply");

/** Hand pump and gauge: the readings are taken against the clock, the rest is said. */
export const holdForm = checkForm<HoldRecord>()({
  schema: holdSchema,
  fields: {
    joint: placeField("Part"),
    part: { type: "choice", label: "It is", options: optionsOf(HOLD_PARTS, HOLD_PART_NAMES), holds: () => "actuator" },
    gauge: { type: "number", label: "Gauge, inHg vacuum", unit: "inHg", aside: true, holds: () => "0" },
    /** Which of the two is watched, and when each began, ms since 1970 */
    watch: { type: "taken", label: "Watching it", aside: true },
    began: { type: "taken", label: "Began", aside: true },
    still: { type: "taken", label: "Left alone", empty: [] },
    wiggled: { type: "taken", label: "While wiggled", empty: [] },
    strokes: { type: "number", label: "Moves after how many strokes", bare: "strokes" },
    moved: {
      type: "answer",
      label: "Moves under vacuum",
      yes: "Moves",
      no: "Does not",
      open: "Nothing to move",
      holds: () => "open",
    },
    freeByHand: { type: "answer", label: "Lever by hand", yes: "Free", no: "Stiff", open: "Not tried", holds: () => "open" },
    startsAt: travel("Starts to move at", "5"),
    fullAt: travel("Fully drawn in at", "14"),
    reach: { type: "choice", label: "Comes", options: optionsOf(Object.keys(REACHES) as Reach[], REACHES), when: moves },
    back: { type: "choice", label: "Let go, it goes back", options: optionsOf(Object.keys(BACKS) as Back[], BACKS), when: moves },
    venting: {
      type: "choice",
      label: "Its solenoid's venting port",
      options: optionsOf(Object.keys(VENTINGS) as Venting[], VENTINGS),
      when: moves,
    },
    isolated: {
      type: "marks",
      label: "Branches shut off from the supply meanwhile",
      options: ({ known }) => branches(known).map((j): Option => [j.id, j.name]),
      when: (given) => onSupply(given) && branches(given.known).length > 1,
      counts: ({ holds }) => Array.isArray(holds("isolated")) && (holds("isolated") as []).length > 0,
      hint: "A diagnostic bypass: record it in Fix, it stays on the list until it is undone",
    },
    instrument: gaugeField("vacuum"),
    volume: trappedField,
  },
  also: () => ({ unit: "inHg" }),
});
