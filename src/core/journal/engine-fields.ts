import type { Option } from "../form";

/** The two facts that nothing begins without, as every form asks them. */
export const displacementField = {
  type: "quantity",
  label: "Engine displacement",
  band: "displacement",
  unit: "L",
  units: ["L", "mL"],
  example: "1.6",
} as const;

export const fuelField = {
  type: "choice",
  label: "Fuel",
  options: [
    ["petrol", "Petrol"],
    ["diesel", "Diesel"],
  ] satisfies readonly Option[],
  holds: () => "petrol",
} as const;
