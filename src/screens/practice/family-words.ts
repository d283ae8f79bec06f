import type { Family } from "@/core/faults";

/** Families of faults, as a player chooses them. */
export const FAMILY_NAMES: Readonly<Record<Family, string>> = {
  engine: "Intake, vacuum and mixture",
  boost: "Boost",
  egr: "EGR",
  evap: "Vapour system",
  filter: "Particulate filter",
  "secondary-air": "Secondary air",
};
