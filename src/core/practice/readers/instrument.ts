import type { InstrumentUse } from "../../checks/fields";
import { fromSi, isQuantity, type Quantity, toSi, UNITS, type UnitId } from "../../units";

/** Readings over time, in the record's own unit. */
const isSeries = (value: unknown): value is readonly (readonly [number, number])[] =>
  Array.isArray(value) && value.length > 0 && value.every((row) => Array.isArray(row) && row.length === 2);

const dimensionOf = (unit: UnitId) => UNITS[unit].dimension;

/**
 * What a gauge makes of a record: every reading of its kind is shown to its own division, and stands off by what it shows with nothing on
 * it. A display of whole kPa shows no tenths; a needle that does not sit at zero is off everywhere. What it does not measure stays.
 */
export function shownOn(record: object, instrument: InstrumentUse): object {
  const measures = dimensionOf(instrument.division.unit);
  const division = Math.abs(toSi(instrument.division));
  const zero = toSi(instrument.zero);
  if (!(division > 0)) return { ...record, instrument };
  const show = (si: number) => Math.round((si + zero) / division) * division;
  const quantity = (q: Quantity): Quantity =>
    dimensionOf(q.unit) === measures && q.kind !== "absolute"
      ? { ...q, value: Number(fromSi(show(toSi(q)), q.unit).value.toFixed(6)) }
      : q;
  const { unit } = record as { readonly unit?: UnitId };
  const inUnit = (value: number) =>
    unit && dimensionOf(unit) === measures ? Number((show(value * UNITS[unit].scale) / UNITS[unit].scale).toFixed(6)) : value;
  const walk = (value: unknown, name: string): unknown => {
    if (isQuantity(value)) return quantity(value);
    if (isSeries(value)) return value.map(([t, v]) => [t, Math.max(0, inUnit(v))]);
    if (Array.isArray(value)) return value.map((one) => walk(one, name));
    if (typeof value === "number" && (name === "start" || name === "end")) return inUnit(value);
    if (typeof value === "object" && value !== null)
      return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, KEEPS.includes(key) ? one : walk(one, key)]));
    return value;
  };
  return { ...(walk(record, "") as object), instrument };
}

/** Not read on a gauge: what was asked for, rated, or set. */
const KEEPS: readonly string[] = ["instrument", "ratings", "maxBoost", "required", "ambient", "temperature", "machine", "proof"];
