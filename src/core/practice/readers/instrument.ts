import type { InstrumentUse } from "../../checks/fields";
import type { SmokeRun } from "../../checks/smoke";
import { ballShows, displayShows, type InstrumentFault, zeroOff } from "../../devices/instrument-fault";
import { fromSi, isQuantity, type Quantity, toSi, UNITS, type UnitId } from "../../units";

/** Readings over time, in the record's own unit. */
const isSeries = (value: unknown): value is readonly (readonly [number, number])[] =>
  Array.isArray(value) && value.length > 0 && value.every((row) => Array.isArray(row) && row.length === 2);

const dimensionOf = (unit: UnitId) => UNITS[unit].dimension;

/**
 * What a gauge makes of a record: every reading of its kind is shown to its own division, and stands off by what it shows with nothing on
 * it. A display of whole kPa shows no tenths; a needle that does not sit at zero is off everywhere. What it does not measure stays.
 * @param fault what is wrong with the instrument; one that nearly gives up is read with nothing on it first.
 */
export function shownOn(record: object, instrument: InstrumentUse, fault?: InstrumentFault): object {
  const { unit: own } = instrument.division;
  const measures = dimensionOf(own);
  const division = Math.abs(toSi(instrument.division));
  const off = zeroOff(fault) * division;
  const zero = toSi(instrument.zero) + off;
  const used = off === 0 ? instrument : { ...instrument, zero: { ...instrument.zero, ...fromSi(zero, instrument.zero.unit) } };
  if (!(division > 0)) return { ...record, instrument };
  const show = (si: number, seconds = READ_AFTER) => {
    const shown = displayShows(si / UNITS[own].scale, own, seconds, fault) * UNITS[own].scale;
    return Math.round((shown + zero) / division) * division;
  };
  const quantity = (q: Quantity): Quantity =>
    dimensionOf(q.unit) === measures && q.kind !== "absolute"
      ? { ...q, value: Number(fromSi(show(toSi(q)), q.unit).value.toFixed(6)) }
      : q;
  const { unit } = record as { readonly unit?: UnitId };
  const inUnit = (value: number, seconds?: number) =>
    unit && dimensionOf(unit) === measures
      ? Number((show(value * UNITS[unit].scale, seconds) / UNITS[unit].scale).toFixed(6))
      : value;
  const walk = (value: unknown, name: string): unknown => {
    if (isQuantity(value)) return quantity(value);
    if (isSeries(value)) return value.map(([t, v]) => [t, Math.max(0, inUnit(v, t))]);
    if (Array.isArray(value)) return value.map((one) => walk(one, name));
    if (typeof value === "number" && (name === "start" || name === "end")) return inUnit(value);
    if (typeof value === "object" && value !== null)
      return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, KEEPS.includes(key) ? one : walk(one, key)]));
    return value;
  };
  return { ...(walk(record, "") as object), instrument: used };
}

/** A reading that is no series is taken so long after the instrument was put on, s. */
const READ_AFTER = 10;

/** Voltages as a meter shows them whose battery is nearly flat. */
export function metered(record: object, fault: InstrumentFault | undefined): object {
  if (!fault) return record;
  const walk = (value: unknown): unknown => {
    if (isQuantity(value) && value.unit === "V")
      return { ...value, value: Math.round(100 * displayShows(value.value, "V", 60, fault)) / 100 };
    if (Array.isArray(value)) return value.map(walk);
    if (typeof value === "object" && value !== null)
      return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, key === "instrument" ? one : walk(one)]));
    return value;
  };
  return walk(record) as object;
}

/** A run as a smoke machine makes it that is out of order: no smoke anywhere, or a ball that does not come down. */
export function machineShows(run: SmokeRun, fault: InstrumentFault | undefined): SmokeRun {
  const smokeless = fault === "heater-out";
  return {
    ...run,
    samples: run.samples.map(([t, flow, pressure]) => [t, ballShows(flow, run.machine.maxFlow.value, fault), pressure]),
    ...(run.proof
      ? {
          proof: {
            ...run.proof,
            ballAtBottom: run.proof.ballAtBottom && fault !== "ball-stuck",
            smokeSeen: run.proof.smokeSeen && !smokeless,
          },
        }
      : {}),
    ...(smokeless ? { arrivals: [], seen: [], noSmokeOutside: run.noSmokeOutside || run.seen.length > 0 } : {}),
  };
}

/** Not read on a gauge: what was asked for, rated, or set. */
const KEEPS: readonly string[] = ["instrument", "ratings", "maxBoost", "required", "ambient", "temperature", "machine", "proof"];
