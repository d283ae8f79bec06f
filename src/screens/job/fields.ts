import type { JobState } from "@/core/journal";
import { type BandId, parseField, plausibility, type Quantity, type UnitId } from "@/core/units";

/** A typed reading once it can be trusted; undefined while it cannot. */
export function readField(typed: string, field: BandId, unit: UnitId): Quantity | undefined {
  const parsed = parseField(typed, field, unit);
  return parsed.ok && !plausibility(parsed.value, field) ? parsed.value : undefined;
}

/** How a reading stands in a field when it is edited again. */
export const typedQuantity = (q: Quantity | undefined) =>
  q ? `${Number(q.value.toPrecision(6))} ${q.unit}${q.kind === "absolute" ? " abs" : ""}` : "";

/** Whether the engine is warm, as the conditions have it; undefined where nobody said. */
export const warmNow = (conditions: JobState["conditions"]): boolean | undefined =>
  conditions?.engine && (conditions.engine === "warm" || conditions.engine === "hot-exhaust");
