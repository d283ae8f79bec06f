import { toSi } from "../units";
import type { VehicleFacts } from "./facts";

/** An engine by what makes it one: the maker, its size, fuel and breathing; empty where the maker is not known. */
export function engineOf({ make, displacement, fuel, induction }: VehicleFacts): string {
  const name = make?.trim().toLowerCase();
  return name ? [name, (1000 * toSi(displacement)).toFixed(1), fuel, induction].join(" ") : "";
}
