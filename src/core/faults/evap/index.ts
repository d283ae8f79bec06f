import type { FaultFamily } from "../family";
import { CAUSES } from "./causes";
import { CODES } from "./codes";
import { rows } from "./rows";
import { CONFIRM_MINUTES } from "./traits";

/** Causes that let fuel vapour out, or keep the tank from breathing. */
export const evap = {
  fitted: ({ fitted }) => fitted.includes("evap"),
  causes: () => CAUSES,
  leaksInto: {
    "purge-line": "vapour-leak",
    canister: "vapour-leak",
    tank: "vapour-leak",
    neck: "vapour-leak",
  },
  confirmMinutes: CONFIRM_MINUTES,
  apart: true,
  commanded: ["purge-valve", "vent-valve"],
  codes: CODES,
  symptoms: [
    ["nozzle-clicks", "Pump nozzle keeps clicking off"],
    ["fuel-smell", "Smell of fuel"],
    ["hard-start-filled", "Hard to start after filling up"],
    ["cap-whoosh", "Rush of air on opening the cap"],
  ],
  rows,
} as const satisfies FaultFamily;
