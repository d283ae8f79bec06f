import { answer, choice, type FormState, fields, number, type Option, quantity, type RecordOf, taken } from "../../form";
import { isQuantity, toSi } from "../../units";
import { type CheckFacts, checkForm } from "../check-form";
import { gauge, joints, place, pressureUnit, samples, trappedVolume } from "../fields";

export const HOLD_PART_NAMES = {
  actuator: "Actuator",
  line: "Line or hose",
  reservoir: "Reservoir",
  "check-valve": "Check valve",
} as const;

const REACHES = { full: "All the way", short: "Not all the way" } as const;
const BACKS = { free: "At once, to its stop", slow: "Slowly", sticks: "Sticks on the way" } as const;
const VENTINGS = { free: "Free, filter clean", blocked: "Blocked, or its filter full" } as const;

const travel = (label: string, example: string) =>
  quantity("vacuum", { label: `${label}, vacuum`, units: ["inHg", "kPa", "mbar"], example }).optional();

/** Hand pump on an actuator, line, reservoir or check valve. */
export const holdFields = fields({
  joint: place("Part"),
  part: choice(HOLD_PART_NAMES, { name: "The part", label: "It is", defaultValue: "actuator" }).setUp(),
  /** [s, vacuum in `unit`], left alone */
  still: samples({
    label: "Left alone",
    atLeast: [2, "Write the vacuum down at the start and at the end"],
    empty: [],
    column: "vacuum, still",
    kind: "vacuum",
  }),
  /** The same while the pipe ends were wiggled */
  wiggled: samples({ label: "While wiggled", empty: [], column: "vacuum, wiggled", kind: "vacuum" }),
  /** Strokes until it began to move; absent when it has nothing to move */
  strokes: number({
    name: "The strokes",
    label: "Moves after how many strokes",
    bare: "strokes",
    integer: "Strokes are a whole number",
    min: [1, "It moves after one stroke at least"],
    max: [200, "More than 200 strokes: it does not move"],
  }).optional(),
  /** Whether it moved at all under vacuum */
  moved: answer({
    label: "Moves under vacuum",
    yes: "Moves",
    no: "Does not",
    open: "Nothing to move",
    defaultValue: "open",
  }).optional(),
  /** Whether its lever moves freely by hand */
  freeByHand: answer({ label: "Lever by hand", yes: "Free", no: "Stiff", open: "Not tried", defaultValue: "open" }).optional(),
  /** Vacuum that it starts to move at, and that it is fully drawn in at */
  startsAt: travel("Starts to move at", "5"),
  fullAt: travel("Fully drawn in at", "14"),
  /** Whether it came all the way, and how it went back */
  reach: choice(REACHES, { label: "Comes" }).optional(),
  back: choice(BACKS, { label: "Released, it returns" }).optional(),
  /** A solenoid's venting port and its filter, where one works it */
  venting: choice(VENTINGS, { label: "Its solenoid's vent port" }).optional(),
  /** Branches that were shut off from a shared supply while it was held */
  isolated: joints({
    label: "Branches shut off from the supply meanwhile",
    hint: "A diagnostic bypass: record it in Fix, it stays on the list until it is undone",
  }).optional(),
  unit: pressureUnit(),
  instrument: gauge("vacuum"),
  /** Gas space between pump and part: with it a loss is a hole */
  volume: trappedVolume(),
}).rule(
  "startsAt",
  "It cannot be fully drawn in before it starts to move: look at both readings",
  ({ startsAt, fullAt }) => !isQuantity(startsAt) || !isQuantity(fullAt) || toSi(startsAt) <= toSi(fullAt),
);
export type HoldRecord = RecordOf<typeof holdFields>;

const moves = ({ value }: FormState<unknown, "moved">) => value("moved") === "yes";
const branches = ({ context: { layout } }: CheckFacts) =>
  layout.joints.filter((j) => j.from === "vacuum-supply" && j.to !== "outside");
const onSupply = ({ known, value }: FormState<CheckFacts, "joint">) =>
  known.context.layout.joints.some((j) => j.id === value("joint") && j.from === "vacuum-supply");

export const holdForm = checkForm(holdFields, {
  aside: {
    gauge: number({ name: "The gauge", label: "Gauge, inHg vacuum", unit: "inHg", defaultValue: "0" }),
    /** Which of the two is watched, and when each began, ms since 1970 */
    watch: taken("Watching it"),
    began: taken("Began"),
  },
  ask: {
    startsAt: { when: moves },
    fullAt: { when: moves },
    reach: { when: moves },
    back: { when: moves },
    venting: { when: moves },
    isolated: {
      options: ({ known }) => branches(known).map((j): Option => [j.id, j.name]),
      when: (state) => onSupply(state) && branches(state.known).length > 1,
      counts: ({ value }) => Array.isArray(value("isolated")) && (value("isolated") as []).length > 0,
    },
  },
  computed: { unit: () => "inHg" as const },
});
