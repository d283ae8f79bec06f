import { answer, choice, fields, quantity, type RecordOf } from "../../form";
import { checkForm } from "../check-form";
import { ambient, gauge, idleSpeed, warm } from "../fields";

/** Needle movement at idle. */
export const NEEDLE_NAMES = {
  steady: "Steady",
  drifting: "Drifts slowly to and fro",
  "regular-flick": "Flicks down at regular beats",
  "fast-flutter": "Flutters fast",
} as const;
export type Needle = keyof typeof NEEDLE_NAMES;

/** Needle movement when the throttle is snapped open and let go. */
const SNAP_NAMES = {
  "not-tried": "Not tried",
  "drops-and-overshoots": "Drops, swings above, comes back",
  "slow-return": "Comes back slowly",
} as const;

/** The gauge on the manifold: where it stands, how its needle moves. */
export const vacuumFields = fields({
  /** Positive down */
  vacuum: quantity("vacuum", {
    label: "Vacuum at idle",
    units: ["inHg", "kPa", "mbar"],
    example: "19",
    missing: "Type the vacuum at idle",
    column: "intake vacuum",
  }),
  rpm: idleSpeed({ hint: "The band goes by it, and a high idle hides a leak", column: "engine speed" }),
  /** The port's own hose and adapter were looked at and hold */
  portSound: answer({
    label: "The port's own nipple and hose",
    yes: "Sound",
    no: "Not sound",
    missing: "Look at the port's own nipple and hose, and say whether they are sound",
  }),
  warm: warm(),
  needle: choice(NEEDLE_NAMES, { name: "The needle", label: "The needle at idle" }),
  snap: choice(SNAP_NAMES, { name: "The snap", label: "After a snap of the throttle", defaultValue: "not-tried" }),
  instrument: gauge("vacuum"),
  ambient: ambient(),
});
export type VacuumReading = RecordOf<typeof vacuumFields>;

export const vacuumForm = checkForm(vacuumFields);
