import type { FaultFamily } from "../family";
import { CAUSES } from "./causes";
import { CODES } from "./codes";
import { rows } from "./rows";
import { CONFIRM_MINUTES } from "./traits";

/** Causes that load or break a particulate filter, and what lies about it. */
export const filter = {
  fitted: ({ fitted }) => fitted.includes("particulate-filter"),
  causes: () => CAUSES,
  leaksInto: {},
  confirmMinutes: CONFIRM_MINUTES,
  apart: true,
  commanded: [],
  codes: CODES,
  symptoms: [
    ["regenerates-often", "Regenerates often, fan runs on"],
    ["oil-rises", "Oil level rises"],
  ],
  rows,
} as const satisfies FaultFamily;
