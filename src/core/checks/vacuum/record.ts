import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { type InstrumentUse, instrumentField, oneOfField, rpmField } from "../fields";

/** What the needle does at idle. */
export const NEEDLES = ["steady", "drifting", "regular-flick", "fast-flutter"] as const;
export type Needle = (typeof NEEDLES)[number];
export const NEEDLE_NAMES: Record<Needle, string> = {
  steady: "Steady",
  drifting: "Drifts slowly to and fro",
  "regular-flick": "Flicks down at regular beats",
  "fast-flutter": "Flutters fast",
};

/** What it does when the throttle is snapped open and let go. */
export const SNAPS = ["not-tried", "drops-and-overshoots", "slow-return"] as const;
export type Snap = (typeof SNAPS)[number];
export const SNAP_NAMES: Record<Snap, string> = {
  "not-tried": "Not tried",
  "drops-and-overshoots": "Drops, swings above, comes back",
  "slow-return": "Comes back slowly",
};

export interface VacuumReading {
  /** Vacuum, positive down */
  readonly vacuum: Quantity;
  readonly rpm: number;
  readonly needle: Needle;
  readonly snap: Snap;
  /** The port's own hose and adapter were looked at and hold */
  readonly portSound: boolean;
  readonly warm: boolean;
  readonly instrument: InstrumentUse;
  readonly ambient: Quantity;
}

export const vacuumSchema = strictObject({
  vacuum: quantitySchema("vacuum").required("Type the vacuum at idle"),
  rpm: rpmField,
  needle: oneOfField("The needle", NEEDLES),
  snap: oneOfField("The snap", SNAPS),
  portSound: yup.boolean().required(),
  warm: yup.boolean().required(),
  instrument: instrumentField("pressure").required(),
  ambient: quantitySchema("ambient").required("Ambient pressure is missing"),
});
