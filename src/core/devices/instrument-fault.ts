import { UNITS, type UnitId } from "../units";

/** Instruments that lie in a bay and can be out of order. */
export const BAY_INSTRUMENTS = {
  "smoke-machine": "Smoke machine",
  gauge: "Gauges and testers",
  meter: "Multimeter and test lamp",
} as const;
export type BayInstrument = keyof typeof BAY_INSTRUMENTS;

/** How an instrument fails, as it is told once somebody has looked it over. */
export const INSTRUMENT_FAULTS = {
  "heater-out": "its heater was out: it pushed air, and no smoke. A new fuse is in",
  "ball-stuck": "oil held its ball up: it showed flow where there was none. The tube is clean",
  "battery-flat": "its battery was nearly flat: it sank while it was read, and did not stand at zero. A new one is in",
  "unit-wrong": "it was set to another unit than is printed on it. It is set back",
} as const;
export type InstrumentFault = keyof typeof INSTRUMENT_FAULTS;

/** The faults that each of them can have. */
export const FAULTS_OF: Readonly<Record<BayInstrument, readonly InstrumentFault[]>> = {
  "smoke-machine": ["heater-out", "ball-stuck"],
  gauge: ["battery-flat", "unit-wrong"],
  meter: ["battery-flat"],
};

/** A stuck ball stands at so much of its scale at the least. */
const STUCK_AT = 0.42;
/** A nearly flat battery shows so much of what there is, sinks by so much more in a minute, and stands so many divisions off zero. */
const FLAT = { shows: 0.96, sinks: 0.02, off: 4 } as const;

/** Reading of a ball in its tube. @param flow and @param top in one unit. */
export const ballShows = (flow: number, top: number, fault: InstrumentFault | undefined): number =>
  fault === "ball-stuck" ? Math.max(flow, STUCK_AT * top) : flow;

/** The unit that a display is set to by mistake: what is read off it is taken for the one that is printed there. */
const MISTAKEN: Readonly<Partial<Record<UnitId, UnitId>>> = {
  inHg: "kPa",
  kPa: "psi",
  bar: "psi",
  psi: "kPa",
  hPa: "inH2O",
  mbar: "inH2O",
  inH2O: "hPa",
};

/**
 * Reading of a display of a value in its unit.
 * @param value in `unit`; @param seconds since it was switched to it. @returns in the unit that is printed on it.
 */
export function displayShows(value: number, unit: UnitId, seconds: number, fault: InstrumentFault | undefined): number {
  if (fault === "battery-flat") return value * Math.max(0, FLAT.shows - (FLAT.sinks * seconds) / 60);
  const set = fault === "unit-wrong" ? MISTAKEN[unit] : undefined;
  return set ? (value * UNITS[unit].scale) / UNITS[set].scale : value;
}

/** Divisions that it stands off with nothing on it. */
export const zeroOff = (fault: InstrumentFault | undefined): number => (fault === "battery-flat" ? FLAT.off : 0);
