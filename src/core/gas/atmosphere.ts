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

/** Lapse of temperature with altitude, K/m, and g·M/(R·L) of dry air (ISO 2533). */
const LAPSE = 0.0065;
const POWER = 5.25588;

/**
 * Station pressure from the pressure at sea level: by the hypsometric formula where the air's temperature at the station is
 * known, p = p₀·(1 − L·h/(T + L·h))^5.25588 (WMO-No. 8, part I, 3.7), else by the ISA ratio at the station's altitude.
 * @param seaLevel Pa absolute, reduced to sea level; @param altitude m, −500…11 000; @param temperature K, of the air outside.
 * @returns Pa absolute. At 1500 m and 30 °C the two differ by 12 hPa.
 */
export function stationPressure(seaLevel: AbsolutePressure, altitude: number, temperature?: number): AbsolutePressure {
  const standard = ambientAtAltitude(altitude);
  if (temperature === undefined) return absolute((seaLevel * standard) / 101325);
  const rise = LAPSE * altitude;
  return absolute(seaLevel * (1 - rise / (temperature + rise)) ** POWER);
}
