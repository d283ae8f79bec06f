import type { FaultFamily } from "../family";
import { CAUSES } from "./causes";
import { CODES } from "./codes";
import { rows } from "./rows";
import { CONFIRM_MINUTES } from "./traits";

/** Causes that keep boost from being what is asked for. */
export const boost = {
  fitted: ({ induction }) => induction === "turbo",
  causes: () => CAUSES,
  leaksInto: { "vacuum-supply": "supply-weak" },
  confirmMinutes: CONFIRM_MINUTES,
  alsoOn: ["symptom:low-power", "symptom:hiss-load", "symptom:black-smoke"],
  commanded: ["boost-solenoid"],
  codes: CODES,
  symptoms: [],
  rows,
} as const satisfies FaultFamily;
