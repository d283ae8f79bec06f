import type { Field, Members } from "../form";
import { formatQuantity, fromSi, isQuantity, type Quantity, toSi, UNITS, type UnitId } from "../units";
import type { InstrumentUse } from "./fields";
import { type Verdict, voidVerdict } from "./verdict";

/** Readings over time, s and in the record's own unit. */
export const isSeries = (value: unknown): value is readonly (readonly [number, number])[] =>
  Array.isArray(value) &&
  value.length > 0 &&
  value.every((row) => Array.isArray(row) && row.length === 2 && row.every((n) => typeof n === "number"));

/** Conversion of a reading, SI to SI; where it stands in a series, how long after the first of it, s. */
type Shows = (si: number, seconds?: number) => number;

/**
 * A record with every reading of its instrument changed, as its fields say which those are: quantities of what it measures,
 * series and numbers in the record's own unit.
 * @param own unit of the instrument; @param shows is asked in the order of a series.
 */
export function withReadings(fields: Members, record: object, own: UnitId, shows: Shows): object {
  const { dimension } = UNITS[own];
  const inUnit = (value: number, unit: UnitId | undefined, seconds?: number) =>
    unit && UNITS[unit].dimension === dimension
      ? Number(fromSi(shows(toSi({ value, unit }), seconds), unit).value.toFixed(6))
      : value;
  const walk = (value: unknown, field: Field<unknown, boolean> | undefined, unit: UnitId | undefined): unknown => {
    if (field?.parts.gauged === false) return value;
    if (isQuantity(value))
      return UNITS[value.unit].dimension === dimension && value.kind !== "absolute"
        ? { ...value, value: inUnit(value.value, value.unit) }
        : value;
    if (isSeries(value)) {
      const [[from]] = value as [readonly [number, number]];
      return value.map(([t, v]) => [t, inUnit(v, unit, t - from)]);
    }
    const members = field?.parts.members;
    if (Array.isArray(value)) return value.map((row) => (members ? walkAll(members, row, unit) : walk(row, undefined, unit)));
    if (typeof value === "number" && field?.parts.gauged) return inUnit(value, unit);
    return typeof value === "object" && value !== null ? walkAll(members ?? {}, value, unit) : value;
  };
  const walkAll = (members: Members, part: object, outer: UnitId | undefined): object => {
    const { unit = outer } = part as { readonly unit?: UnitId };
    return Object.fromEntries(Object.entries(part).map(([name, value]) => [name, walk(value, members[name], unit)]));
  };
  return walkAll(fields, record, undefined);
}

/** The largest reading of the record's instrument, either way from nothing, SI; undefined where its scale's end is not said. */
function furthest(
  fields: Members,
  record: object,
): { readonly use: InstrumentUse; readonly end: Quantity; readonly reading: number } | undefined {
  const { instrument: use } = record as { readonly instrument?: InstrumentUse };
  if (!use?.end) return undefined;
  let reading = 0;
  withReadings(fields, record, use.division.unit, (si) => {
    reading = Math.max(reading, Math.abs(si));
    return si;
  });
  return { use, end: use.end, reading };
}

/** A verdict on readings within their instrument's scale: what stands at its end is that or more, and clears nothing; beyond it nothing is read. */
export function onScale<V extends Verdict>(verdict: V, fields: Members, record: object): V | Verdict {
  const far = furthest(fields, record);
  if (!far || verdict.outcome === "void") return verdict;
  const { use, end, reading } = far;
  const [most, division] = [Math.abs(toSi(end)), Math.abs(toSi(use.division))];
  if (reading > most + division * (1 + 1e-9))
    return voidVerdict(
      "The reading cannot be",
      `${use.name} ends at ${formatQuantity(end)}: it shows no more than that. Look at the reading, its unit and which gauge it was`,
    );
  if (reading < most - division / 2) return verdict;
  const why = `${use.name} stood at the end of its scale, ${formatQuantity(end)}: it was that or more. Take one that reads further`;
  if (verdict.outcome !== "pass") return { ...verdict, reasons: [why, ...verdict.reasons] };
  const { observation, also, tested, word, ...shown } = verdict;
  return { ...shown, outcome: "unsure", headline: `${use.name} stood at its end: not sure yet`, reasons: [why], zones: [] };
}
