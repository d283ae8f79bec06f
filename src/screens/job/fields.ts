import { typedQuantity as typedAgain } from "@/core/form";
import { type BandId, parseField, plausibility, type Quantity, type UnitId } from "@/core/units";

/** A typed reading once it can be trusted; undefined while it cannot. */
export function readField(typed: string, field: BandId, unit: UnitId): Quantity | undefined {
  const parsed = parseField(typed, field, unit);
  return parsed.ok && !plausibility(parsed.value, field) ? parsed.value : undefined;
}

/** How a recorded reading stands in a field when it is edited again; empty where there is none. */
export const typedQuantity = (q: Quantity | undefined): string => (q ? typedAgain(q) : "");
