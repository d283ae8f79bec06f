import { type Parsed, parseNumber, parseQuantity } from "./parse";
import { formatQuantity, type Quantity, toSi } from "./quantity";
import { type Dimension, type PressureKind, UNITS, type UnitId, unitsOf } from "./units";

/** The range a field's reading lies in on any car we know of; outside it, somebody slipped. */
export interface Band {
  readonly dimension: Dimension;
  readonly kind?: PressureKind;
  /** SI, inclusive. */
  readonly low: number;
  readonly high: number;
  /** Name of the field when we ask back. */
  readonly name: string;
  /** Unit that people leave out: a bare number that the field's own cannot mean is taken in it */
  readonly unsaid?: UnitId;
}

const pressure = (name: string, kind: PressureKind, low: number, high: number): Band => ({
  dimension: "pressure",
  kind,
  low,
  high,
  name,
});

/** Plausible bands by field: wide enough for any healthy or broken car, narrow enough for a unit slip. */
export const BANDS = {
  ambient: pressure("ambient pressure", "absolute", 55e3, 110e3),
  smokePressure: pressure("smoke pressure", "gauge", -500, 14e3),
  ratedPressure: pressure("rated pressure", "gauge", 300, 14e3),
  manifold: pressure("manifold pressure", "absolute", 8e3, 450e3),
  /** Boost asked by an ECU: gauge pressure in it shows by lying far below the air outside */
  asked: pressure("requested boost", "absolute", 0, 450e3),
  chargePressure: pressure("charge pressure", "absolute", 50e3, 450e3),
  /** Signed: pipes on the wrong way round read below nothing */
  filterPressure: pressure("pressure difference of a filter", "gauge", -30e3, 60e3),
  exhaustPressure: pressure("exhaust pressure", "absolute", 50e3, 450e3),
  backPressure: pressure("exhaust back pressure", "gauge", -2e3, 250e3),
  boost: pressure("boost pressure", "gauge", 10e3, 350e3),
  /** A part by itself: a few inches of water to what a boost test has */
  benchPressure: pressure("pressure on the part", "gauge", 100, 600e3),
  /** A boost pressure test and what stands under it */
  testPressure: pressure("test pressure", "gauge", 2e3, 600e3),
  supplyPressure: pressure("supply pressure", "gauge", 50e3, 1.6e6),
  testFlow: { dimension: "volume-flow", low: 0, high: 1 / 60, name: "flow of test air" },
  smokeFlow: { dimension: "volume-flow", low: 0, high: 60e-3 / 60, name: "smoke flow" },
  blownFlow: { dimension: "volume-flow", low: 0, high: 0.2 / 60, name: "flow blown through" },
  airTemperature: { dimension: "temperature", low: 233.15, high: 353.15, name: "air temperature" },
  /** Behind the compressor, before or without a cooler */
  chargeTemperature: { dimension: "temperature", low: 233.15, high: 448.15, name: "charge air temperature" },
  coolant: { dimension: "temperature", low: 233.15, high: 403.15, name: "coolant temperature" },
  exhaustTemperature: { dimension: "temperature", low: 253.15, high: 1273.15, name: "exhaust temperature" },
  bearable: { dimension: "temperature", low: 233.15, high: 1473.15, name: "rated temperature of the material" },
  mafFlow: { dimension: "mass-flow", low: 0, high: 0.6, name: "MAF flow" },
  tank: { dimension: "volume", low: 8e-3, high: 0.25, name: "fuel tank volume" },
  /** Signed: a purged tank stands below ambient */
  tankPressure: pressure("tank pressure", "gauge", -9e3, 9e3),
  evapPressure: pressure("EVAP test pressure", "gauge", 50, 9e3),
  capPressure: pressure("cap test pressure", "gauge", 500, 20e3),
  /** Of a simulated network: from a fitting to a hall */
  gasVolume: { dimension: "volume", low: 1e-9, high: 1e3, name: "volume of a zone" },
  gasTemperature: { dimension: "temperature", low: 150, high: 1500, name: "gas temperature" },
  volume: { dimension: "volume", low: 0.05e-3, high: 0.3, name: "volume" },
  trapped: { dimension: "volume", low: 0.5e-6, high: 20e-3, name: "trapped volume" },
  hole: { dimension: "length", low: 0.05e-3, high: 60e-3, name: "hole" },
  toolDepth: { dimension: "length", low: 5e-3, high: 2, name: "depth of the tool" },
  displacement: { dimension: "volume", low: 0.4e-3, high: 9e-3, name: "engine displacement", unsaid: "mL" },
  altitude: { dimension: "distance", low: -450, high: 5500, name: "altitude" },
  odometer: { dimension: "distance", low: 0, high: 3e9, name: "odometer" },
  driven: { dimension: "distance", low: 50, high: 3e7, name: "distance driven" },
  vacuum: pressure("vacuum", "vacuum", 0, 102e3),
  /** Signed: below ambient is negative */
  crankcase: pressure("crankcase pressure", "gauge", -12e3, 12e3),
  voltage: { dimension: "voltage", low: -1, high: 33, name: "voltage" },
  torque: { dimension: "torque", low: 0.2, high: 400, name: "torque" },
} as const satisfies Record<string, Band>;

export type BandId = keyof typeof BANDS;

/** Null when plausible; otherwise the question to ask, with the neighbour units it would fit. */
export interface Query {
  readonly message: string;
  readonly suggestions: readonly Quantity[];
}

const inBand = (q: Quantity, band: Band) => {
  const si = toSi(q);
  return si >= band.low && si <= band.high;
};

/**
 * Parser for what is typed into a field: "2.0", "1998 cc" and, where people leave the unit out, "1998".
 * @param unit taken when the text names none. The message of a refusal says what was wrong and what to do.
 */
export function parseField(text: string, field: BandId, unit: UnitId): Parsed<Quantity> {
  const band: Band = BANDS[field];
  const parsed = parseQuantity(text, { dimension: band.dimension, unit, ...(band.kind ? { kind: band.kind } : {}) });
  if (!parsed.ok || !band.unsaid || !parseNumber(text).ok || inBand(parsed.value, band)) return parsed;
  const other = { ...parsed.value, unit: band.unsaid };
  return inBand(other, band) ? { ok: true, value: other } : parsed;
}

/**
 * Asks back for a value out of its field's band (the classic slip is the right number in a neighbour unit) and for a
 * pressure of another kind than the field's.
 * @returns null when the reading is plausible.
 */
export function plausibility(q: Quantity, field: BandId): Query | null {
  const band: Band = BANDS[field];
  if (band.kind && q.kind && q.kind !== band.kind) {
    const typed = formatQuantity(q, decimalsOf(q));
    return {
      message: `${typed} is no ${band.kind} pressure, which ${band.name} is counted in: convert it first`,
      suggestions: [],
    };
  }
  if (inBand(q, band)) return null;
  const suggestions = unitsOf(band.dimension)
    .filter((unit) => unit !== q.unit)
    .map((unit): Quantity => ({ ...q, unit }))
    .filter((candidate) => inBand(candidate, band) && !sameSi(candidate, q));
  const asked = suggestions.map((s) => formatQuantity(s, decimalsOf(s))).join(" or ");
  return {
    message: asked
      ? `${formatQuantity(q, decimalsOf(q))} is out of range for ${band.name}. Did you mean ${asked}?`
      : `${formatQuantity(q, decimalsOf(q))} is out of range for ${band.name}. Check the number and the unit.`,
    suggestions,
  };
}

const sameSi = (a: Quantity, b: Quantity) => toSi(a) === toSi(b);

/** As many decimals as were typed, so that the question quotes the reading and not a rounding of it. */
function decimalsOf(q: Quantity): number {
  const typed = String(q.value).split(".")[1]?.length ?? 0;
  return Math.min(typed, UNITS[q.unit as UnitId].decimals + 3);
}

/** A typed reading once it can be trusted; undefined while it cannot be read, or lies out of its field's band. */
export function parseTrusted(typed: string, field: BandId, unit: UnitId): Quantity | undefined {
  const parsed = parseField(typed, field, unit);
  return parsed.ok && !plausibility(parsed.value, field) ? parsed.value : undefined;
}
