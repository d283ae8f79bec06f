import { STANDARD_DENSITY, STANDARD_PRESSURE } from "../gas/air";
import { type Quantity, toSi, UNITS, type UnitId, unitsOf } from "../units";
import { type ChannelId, channelById } from "./channels";
import { inStandardWords } from "./headers";
import type { HeaderMatch } from "./match-header";

/** Known facts of the engine that a log is of. */
export interface LoggedEngine {
  /** m³ */
  readonly displacement?: number;
  readonly induction?: "natural" | "turbo";
  readonly fuel?: "petrol" | "diesel";
}

/** Facts that a log's units are checked against: a vehicle's displacement, induction and fuel, nothing where there is no vehicle. */
export const loggedEngine = (
  vehicle: (Required<Pick<LoggedEngine, "induction" | "fuel">> & { readonly displacement: Quantity }) | undefined,
): LoggedEngine =>
  vehicle ? { displacement: toSi(vehicle.displacement), induction: vehicle.induction, fuel: vehicle.fuel } : {};

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
  // Behind the compressor it is hot, behind the cooler as warm as outside.
  "charge-temperature": (low, high) => low > 248 && high < 460,
  "tank-pressure": (low, high) => low > -9e3 && high < 9e3,
};

/** A name that can be one of the standard's: capitals alone. */
const ACRONYM = /^[A-Z0-9_]+$/;

/** Displacements of cars, m³. */
const SMALLEST = 0.6e-3;
const LARGEST = 6.5e-3;

/**
 * How full of outside air an engine's cylinders can be, as a share of its displacement at the density outside: at its least, at its least
 * in a log that may be one of full load alone, and at its most; at idle; and what it takes at the least to stand at speed with no load. A petrol
 * engine is throttled, a diesel is not. Gas that is let back in and a leak behind the MAF leave less to be metered.
 */
const FILL = {
  petrol: { least: 0.1, idle: [0.09, 0.5], pull: 0.15 },
  diesel: { least: 0.28, idle: [0.28, 1.1], pull: 0.3 },
} as const;
const FULL = { natural: [1.05, 1.15], turbo: [2.2, 3.2] } as const;
/** Fresh air in the cylinders, as a share of what the manifold's own density would fill. */
const VOLUMETRIC = [0.4, 1.25] as const;
/** 1/min: below it idles, from there on it stands at speed. */
const IDLES = 1100;
const AT_SPEED = 2500;
const TURNS = 400;
/** Rows from which a part of a log counts. */
const ENOUGH = 3;
/** Air flow at a free idle where nobody logged its speed, kg/s per m³ of displacement. */
const IDLE_FLOW = { petrol: [0.55, 2], diesel: [2, 9] } as const;

/** Rows of a log that an air flow can be held against: flow in kg/s, speed in 1/min, manifold pressure in Pa; NaN where there is none. */
interface AirRows {
  readonly flow: readonly number[];
  readonly rpm: readonly number[] | undefined;
  readonly map: readonly number[] | undefined;
}

/** Whether an air flow fits the engine: its displacement, fuel and induction where they are known, any car's otherwise. */
function airFits({ flow, rpm, map }: AirRows, engine: LoggedEngine): boolean {
  const [small, large] = engine.displacement === undefined ? [SMALLEST, LARGEST] : [engine.displacement, engine.displacement];
  const fuels = engine.fuel ? [engine.fuel] : (["petrol", "diesel"] as const);
  const [alone, most] = FULL[engine.induction ?? "turbo"];
  const flows = sorted(flow);
  if (flows.length === 0) return false;
  if (!rpm) {
    const [idle, top] = [quantile(flows, 0.05), quantile(flows, 0.98)];
    // No engine breathes more at the top of its range than 7000 1/min of its displacement.
    if (top > (most * STANDARD_DENSITY * large * 7000) / 120) return false;
    return fuels.some((fuel) => idle >= IDLE_FLOW[fuel][0] * small && idle <= IDLE_FLOW[fuel][1] * large);
  }
  // The volume of outside air that a cycle takes, m³: fill times displacement.
  const rows = flow.flatMap((kg, i) => {
    const speed = rpm[i] ?? Number.NaN;
    const volume = (120 * kg) / (STANDARD_DENSITY * speed);
    return speed > TURNS && Number.isFinite(volume) ? [{ speed, volume, pressure: map?.[i] ?? Number.NaN }] : [];
  });
  if (rows.length < ENOUGH) return false;
  const volumes = (of: readonly (typeof rows)[number][]) => sorted(of.map((r) => r.volume));
  const all = volumes(rows);
  const idle = volumes(rows.filter((r) => r.speed < IDLES));
  const fast = volumes(rows.filter((r) => r.speed >= AT_SPEED));
  const dense = sorted(rows.map((r) => (r.volume * STANDARD_PRESSURE) / r.pressure));
  /** Displacements that a quantile allows, where it is so many of the whole at the least and at the most. */
  const allows = (list: readonly number[], share: number, [least, top]: readonly [number, number]) =>
    list.length < ENOUGH
      ? [0, Number.POSITIVE_INFINITY]
      : [quantile(list, share) / top, least > 0 ? quantile(list, share) / least : Number.POSITIVE_INFINITY];
  return fuels.some((fuel) => {
    const { least, idle: atIdle, pull } = FILL[fuel];
    const bounds = [
      allows(all, 0.05, [least, alone]),
      allows(all, 0.98, [0, most]),
      allows(idle, 0.5, atIdle),
      allows(fast, 0.98, [pull, most]),
      allows(dense, 0.5, VOLUMETRIC),
    ];
    return (
      Math.max(small, ...bounds.map(([low]) => low as number)) <= Math.min(large, ...bounds.map(([, high]) => high as number))
    );
  });
}

const inSi = (value: number, unit: UnitId) => toSi({ value, unit });

/**
 * Takes no unit in silence: where a log names none, every unit of the channel is held against what an engine can show.
 * One that fits alone is taken and said to be worked out; where another fits as well, or none does, it is asked.
 */
export function checkUnits(matches: readonly HeaderMatch[], sample: Sample, engine: LoggedEngine = {}): HeaderMatch[] {
  /** A channel's numbers in SI, where its unit is known. */
  const known = (id: ChannelId): number[] | undefined => {
    const match = matches.find((m) => m.channel === id && m.unit && m.unitFrom !== "assumed" && m.unitFrom !== "asked");
    return match && sample[match.column]?.map((value) => inSi(value, match.unit as UnitId));
  };
  const speeds = sample[matches.find((m) => m.channel === "rpm")?.column ?? -1];
  /** Units that fit; undefined for a channel that nothing is known of to hold them against. */
  const fits = (id: ChannelId, values: readonly number[]): UnitId[] | undefined => {
    const band = FITS[id];
    if (!band && id !== "maf") return undefined;
    const list = sorted(values);
    if (list.length === 0) return [];
    const [low, high] = [quantile(list, 0.02), quantile(list, 0.98)];
    const { measures } = channelById(id);
    const all = unitsOf(measures as Parameters<typeof unitsOf>[0]).filter((u) => USUAL[id]?.includes(u) ?? true);
    return all.filter((unit) =>
      id === "maf"
        ? airFits({ flow: values.map((value) => inSi(value, unit)), rpm: speeds, map: known("map") }, engine)
        : band?.(inSi(low, unit), inSi(high, unit), engine),
    );
  };
  const coolant = matches.find((m) => m.channel === "coolant");
  const standard = matches.some((m) => inStandardWords(m.header));
  const checked = matches.map((match): HeaderMatch => {
    if (!match.channel || match.unitFrom !== "assumed") return match;
    const fitting = fits(match.channel, sample[match.column] ?? []);
    if (!fitting) return { ...match, unitFrom: "asked" };
    const units = distinct(fitting);
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
  const other = checked.find((m) => m.column === coolant?.column);
  return checked.map((m) =>
    (m.channel === "intake-temperature" || m.channel === "charge-temperature") &&
    m.unitFrom === "asked" &&
    other?.unit &&
    other.unitFrom !== "asked"
      ? { ...m, unit: other.unit, unitFrom: "worked-out" }
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
