import type { FaultFamily } from "../family";
import { CAUSES } from "./causes";
import { CODES } from "./codes";
import { rows } from "./rows";
import { CONFIRM_MINUTES } from "./traits";

/** Causes that keep exhaust from being led back as asked, or lead it back unasked. */
export const egr = {
  fitted: ({ fitted }) => fitted.includes("egr") || fitted.includes("low-pressure-egr"),
  causes: () => CAUSES,
  leaksInto: { "egr-cooler": "egr-cooler-leak" },
  confirmMinutes: CONFIRM_MINUTES,
  commanded: ["egr-valve", "egr-solenoid"],
  codes: CODES,
  symptoms: [],
  rows,
} as const satisfies FaultFamily;
