import { STANDARD_DENSITY } from "../gas/air";
import { type Quantity, toSi, UNITS, type UnitId, unitsOf } from "../units";
import { type ChannelId, channelById } from "./channels";
import { inStandardWords } from "./headers";
import type { HeaderMatch } from "./match-header";

/** Known facts of the engine that a log is of. */
export interface LoggedEngine {
  /** m³ */
  readonly displacement?: number;
  readonly induction?: "natural" | "turbo";
}

/** Facts that a log's units are checked against: a vehicle's displacement and induction, nothing where there is no vehicle. */
export const loggedEngine = (
  vehicle: { readonly displacement: Quantity; readonly induction: "natural" | "turbo" } | undefined,
): LoggedEngine => (vehicle ? { displacement: toSi(vehicle.displacement), induction: vehicle.induction } : {});

/** Numbers of a log's first rows by column, as written; NaN where there is none. */
export type Sample = readonly (readonly number[])[];

const sorted = (values: readonly number[]) => values.filter(Number.isFinite).toSorted((a, b) => a - b);
const quantile = (list: readonly number[], share: number) => list[Math.floor(share * (list.length - 1))] as number;

/** Bands that readings of a running engine lie in, SI: the lowest and the highest of the rows. */
const FITS: Partial<Record<ChannelId, (low: number, high: number, engine: LoggedEngine) => boolean>> = {
  // Warm or warming up: in a log that is worth reading it gets to 60 °C, and never past 125.
  coolant: (low, high) => low > 248 && high >= 333 && high <= 398,
  "intake-temperature": (low, high) => low > 248 && high < 345,
  barometer: (low, high) => low > 60e3 && high < 108e3,
  map: (low, high, { induction }) => low > 12e3 && low < 75e3 && high <= (induction === "natural" ? 109e3 : 330e3) && high > 22e3,
  charge: (low, high) => low > 70e3 && high < 400e3,
  "tank-pressure": (low, high) => low > -9e3 && high < 9e3,
};

/** A name that can be one of the standard's: capitals alone. */
const ACRONYM = /^[A-Z0-9_]+$/;

/** Air flow of a litre at a free idle, kg/s per m³ of displacement. */
const IDLE_LOW = 0.55;
const IDLE_HIGH = 2;
/** Displacements of cars, m³. */
const SMALLEST = 0.6e-3;
const LARGEST = 6.5e-3;

/** Whether an idle flow fits the engine: its displacement where it is known, any car's otherwise. */
function airFits(idle: number, top: number, { displacement }: LoggedEngine): boolean {
  const [small, large] = displacement === undefined ? [SMALLEST, LARGEST] : [displacement, displacement];
  // No engine breathes more at the top of its range than 7000 1/min of its displacement under boost.
  const most = (3 * STANDARD_DENSITY * large * 7000) / 120;
  return idle >= IDLE_LOW * small && idle <= IDLE_HIGH * large && top <= most;
}

const inSi = (value: number, unit: UnitId) => toSi({ value, unit });

/**
 * Takes no unit in silence: where a log names none, every unit of the channel is held against what an engine can show.
 * One that fits alone is taken and said to be worked out; where another fits as well, or none does, it is asked.
 */
export function checkUnits(matches: readonly HeaderMatch[], sample: Sample, engine: LoggedEngine = {}): HeaderMatch[] {
  const fits = (id: ChannelId, values: readonly number[]): UnitId[] => {
    const list = sorted(values);
    if (list.length === 0) return [];
    const [low, high] = [quantile(list, 0.02), quantile(list, 0.98)];
    const { measures } = channelById(id);
    const all = unitsOf(measures as Parameters<typeof unitsOf>[0]).filter((u) => USUAL[id]?.includes(u) ?? true);
    return all.filter((unit) =>
      id === "maf"
        ? airFits(inSi(quantile(list, 0.05), unit), inSi(high, unit), engine)
        : (FITS[id]?.(inSi(low, unit), inSi(high, unit), engine) ?? false),
    );
  };
  const coolant = matches.find((m) => m.channel === "coolant");
  const standard = matches.some((m) => inStandardWords(m.header));
  const checked = matches.map((match): HeaderMatch => {
    if (!match.channel || match.unitFrom !== "assumed") return match;
    const units = distinct(fits(match.channel, sample[match.column] ?? []));
    const [only] = units;
    const { unit: ofStandard } = channelById(match.channel);
    // The standard fixes the units of its own words; that the numbers could be so is seen all the same.
    const itsWord = ACRONYM.test(match.header.trim()) || inStandardWords(match.header);
    if (standard && itsWord && ofStandard && units.includes(ofStandard))
      return { ...match, unit: ofStandard, unitFrom: "worked-out" };
    if (only && units.length === 1) return { ...match, unit: only, unitFrom: "worked-out" };
    return { ...match, unitFrom: "asked", candidates: units };
  });
  // Both temperatures of a log are in one unit.
  const known = checked.find((m) => m.column === coolant?.column);
  return checked.map((m) =>
    m.channel === "intake-temperature" && m.unitFrom === "asked" && known?.unit && known.unitFrom !== "asked"
      ? { ...m, unit: known.unit, unitFrom: "worked-out" }
      : m,
  );
}

/** Units a scan tool writes a channel in; the others exist for typing by hand. */
const USUAL: Partial<Record<ChannelId, readonly UnitId[]>> = {
  maf: ["g/s", "kg/h", "lb/min"],
  map: ["kPa", "hPa", "inHg", "psi", "bar"],
  charge: ["kPa", "hPa", "inHg", "psi", "bar"],
  barometer: ["kPa", "hPa", "inHg", "psi", "bar"],
};

/** Two names of one size are one unit. */
const distinct = (units: readonly UnitId[]): UnitId[] =>
  units.filter((u, i) => units.findIndex((v) => UNITS[v].scale === UNITS[u].scale && UNITS[v].offset === UNITS[u].offset) === i);
