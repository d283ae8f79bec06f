import type { FaultFamily } from "../family";
import { CAUSES } from "./causes";
import { CODES } from "./codes";
import { rows } from "./rows";
import { CONFIRM_MINUTES } from "./traits";

/** Causes that keep secondary air from the exhaust of a cold engine, or let exhaust back. */
export const secondaryAir = {
  fitted: ({ fitted }) => fitted.includes("secondary-air"),
  causes: () => CAUSES,
  leaksInto: { "air-hose": "air-leak" },
  confirmMinutes: CONFIRM_MINUTES,
  apart: true,
  commanded: ["air-pump", "air-solenoid"],
  codes: CODES,
  symptoms: [["pump-howl", "Howl or rattle after a cold start"]],
  rows,
} as const satisfies FaultFamily;
