import type { Members } from "../form";
import { isQuantity } from "../units";
import type { Reading } from "./contract";
import { isSeries } from "./readings";

/**
 * The readings of a record, one number each, in the units they were taken in: what its fields call a column.
 * @param unit of readings that have no unit of their own: the record's; @param point which of several read alike this is.
 */
export function columnsOf(members: Members, record: object, unit?: string, point?: number): Reading[] {
  const all = record as Readonly<Record<string, unknown>>;
  const own = typeof all.unit === "string" ? all.unit : unit;
  const at = point === undefined ? {} : { point };
  return Object.entries(members).flatMap(([name, { parts }]): Reading[] => {
    const value = all[name];
    if (value === undefined) return [];
    if (parts.column) {
      const { kind } = parts.column;
      const reading = parts.column.reading.replace(/\{(\w+)\}/g, (_, member: string) => String(all[member]));
      if (isQuantity(value)) return [{ reading, value: value.value, unit: value.unit, ...kindOf(kind ?? value.kind), ...at }];
      if (isSeries(value))
        return value.map(([seconds, number], i) => ({
          reading,
          value: number,
          unit: own ?? "",
          ...kindOf(kind),
          point: i,
          seconds,
        }));
      if (typeof value === "number") return [{ reading, value, unit: parts.column.unit ?? own ?? "", ...kindOf(kind), ...at }];
      return [];
    }
    const inner = parts.members;
    if (!inner) return [];
    if (Array.isArray(value)) return value.flatMap((row: object, i) => columnsOf(inner, row, own, i));
    return typeof value === "object" ? columnsOf(inner, value as object, own, parts.point ?? point) : [];
  });
}

const kindOf = (kind: string | undefined) => (kind === undefined ? {} : { kind });
