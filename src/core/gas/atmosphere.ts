import { type AbsolutePressure, absolute } from "../units";

/**
 * Ambient pressure at an altitude: ISA troposphere, p = 101325·(1 − 2.25577e−5·h)^5.25588 (ISO 2533).
 * @param altitude m above sea level, −500…11 000. Throws RangeError outside.
 * @returns Pa absolute.
 */
export function ambientAtAltitude(altitude: number): AbsolutePressure {
  if (!(altitude >= -500 && altitude <= 11000)) throw new RangeError("Altitude must be between −500 and 11 000 m");
  return absolute(101325 * (1 - 2.25577e-5 * altitude) ** 5.25588);
}

/**
 * Station pressure from a weather report's sea-level pressure, by the ISA ratio at the station's altitude.
 * @param seaLevel Pa absolute, reduced to sea level; @param altitude m.
 * @returns Pa absolute. Good to about 1 hPa below 1500 m.
 */
export function stationPressure(seaLevel: AbsolutePressure, altitude: number): AbsolutePressure {
  return absolute((seaLevel * ambientAtAltitude(altitude)) / 101325);
}
