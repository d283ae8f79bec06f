/**
 * The units the trade mixes, each with its factor to SI.
 *
 * Factors: NIST SP 811 (2008) appendix B; conventional inch of mercury at 0 °C and inch of water at 4 °C.
 */

export type Dimension =
  | "pressure"
  | "volume-flow"
  | "mass-flow"
  | "length"
  | "torque"
  | "temperature"
  | "distance"
  | "volume"
  | "time"
  | "voltage";

/** How a pressure is counted: above ambient, below ambient (positive down), or from nothing. */
export type PressureKind = "gauge" | "vacuum" | "absolute";

export interface Unit {
  readonly id: string;
  readonly dimension: Dimension;
  /** SI = value · scale + offset. SI: Pa, m³/s, kg/s, m, N·m, K, m (distance), m³, s, V. */
  readonly scale: number;
  readonly offset: number;
  /** Other spellings people type, lower case, without spaces. */
  readonly aliases: readonly string[];
  /** Decimals that show what the instrument of this unit can resolve. */
  readonly decimals: number;
}

const unit = (id: string, dimension: Dimension, scale: number, decimals: number, aliases: string[] = [], offset = 0): Unit => ({
  id,
  dimension,
  scale,
  offset,
  decimals,
  aliases,
});

const INCH = 0.0254;
const CUBIC_FOOT = 0.028316846592;

/** 0 °C, K (ITS-90). */
export const ZERO_CELSIUS = 273.15;

/** SCFH meters are often stated at 60 °F; that is a fact of the meter, so the bare unit stays at 20 °C. */
export const UNITS = {
  Pa: unit("Pa", "pressure", 1, 0, ["pascal", "pascals"]),
  hPa: unit("hPa", "pressure", 100, 1),
  kPa: unit("kPa", "pressure", 1000, 2),
  mbar: unit("mbar", "pressure", 100, 1, ["mb", "millibar"]),
  bar: unit("bar", "pressure", 1e5, 3),
  psi: unit("psi", "pressure", 6894.757293, 2, ["lb/in2", "lbf/in2"]),
  inHg: unit("inHg", "pressure", 3386.389, 1, ['"hg', "in.hg"]),
  mmHg: unit("mmHg", "pressure", 133.322387, 0, ["torr"]),
  inH2O: unit("inH2O", "pressure", 249.0889, 2, ['"h2o', "inwc", '"wc', "inaq", "in.h2o", "iwg"]),
  mmH2O: unit("mmH2O", "pressure", 9.80665, 1, ["mmwc"]),

  "L/min": unit("L/min", "volume-flow", 1e-3 / 60, 2, ["lpm", "l/m", "litre/min", "liter/min", "slpm"]),
  "cc/min": unit("cc/min", "volume-flow", 1e-6 / 60, 0, ["ccm", "ml/min", "sccm", "cm3/min"]),
  SCFH: unit("SCFH", "volume-flow", CUBIC_FOOT / 3600, 2, ["cfh", "ft3/h"]),

  "g/s": unit("g/s", "mass-flow", 1e-3, 2, ["gps"]),
  "kg/h": unit("kg/h", "mass-flow", 1 / 3600, 1, ["kg/hr"]),
  "lb/min": unit("lb/min", "mass-flow", 0.45359237 / 60, 2, ["lbs/min"]),

  mm: unit("mm", "length", 1e-3, 2),
  in: unit("in", "length", INCH, 3, ["inch", "inches", '"']),
  thou: unit("thou", "length", INCH / 1000, 0, ["mil"]),

  N·m: unit("N·m", "torque", 1, 0, ["nm", "n.m", "n*m"]),
  lb·ft: unit("lb·ft", "torque", 1.355817948, 0, ["lbft", "ftlb", "lb-ft", "ft-lb", "lb.ft"]),
  lb·in: unit("lb·in", "torque", 0.112984829, 0, ["lbin", "inlb", "lb-in", "in-lb", "lb.in"]),

  "°C": unit("°C", "temperature", 1, 0, ["c", "degc", "celsius"], ZERO_CELSIUS),
  "°F": unit("°F", "temperature", 5 / 9, 0, ["f", "degf", "fahrenheit"], 459.67 * (5 / 9)),
  K: unit("K", "temperature", 1, 0, ["kelvin"]),

  m: unit("m", "distance", 1, 0, ["metre", "metres", "meter", "meters"]),
  ft: unit("ft", "distance", 0.3048, 0, ["foot", "feet"]),
  km: unit("km", "distance", 1000, 0),
  mi: unit("mi", "distance", 1609.344, 0, ["mile", "miles"]),

  L: unit("L", "volume", 1e-3, 1, ["l", "litre", "liter", "litres", "liters"]),
  mL: unit("mL", "volume", 1e-6, 0, ["ml", "cc", "cm3", "cm³"]),
  gal: unit("gal", "volume", 3.785411784e-3, 1, ["usgal", "gallon", "gallons"]),

  s: unit("s", "time", 1, 0, ["sec", "seconds"]),
  min: unit("min", "time", 60, 1, ["minutes"]),

  V: unit("V", "voltage", 1, 2, ["volt", "volts"]),
  mV: unit("mV", "voltage", 1e-3, 0, ["millivolt"]),
} as const satisfies Record<string, Unit>;

export type UnitId = keyof typeof UNITS;

export const UNIT_IDS = Object.keys(UNITS) as UnitId[];

/** The units of one dimension, in the order the trade lists them. */
export function unitsOf(dimension: Dimension): UnitId[] {
  return UNIT_IDS.filter((id) => UNITS[id].dimension === dimension);
}

const BY_NAME: ReadonlyMap<string, UnitId> = (() => {
  const names = new Map<string, UnitId>();
  for (const id of UNIT_IDS) {
    names.set(id.toLowerCase(), id);
    for (const alias of UNITS[id].aliases) names.set(alias, id);
  }
  return names;
})();

/** Finds a unit by any spelling ("inhg", "LPM", "ft-lb"); undefined when we do not know it. */
export function findUnit(text: string): UnitId | undefined {
  const key = text
    .trim()
    .toLowerCase()
    .replace(/\s+/g, "")
    .replace(/[₂²]/g, "2")
    .replace(/³/g, "3")
    .replace(/[″”“]/g, '"')
    .replace(/º/g, "°");
  return BY_NAME.get(key) ?? BY_NAME.get(key.replace(/°/g, "deg"));
}
