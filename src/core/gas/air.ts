import { dimensionOf, type Quantity, toSi } from "../units";

/** Dry air as an ideal gas, −40…150 °C. γ and R: ISO 2533 (standard atmosphere). */
export const GAMMA = 1.4;
/** J/(kg·K) */
export const R_AIR = 287.05;
/** State at which "standard" flow is stated: 20 °C and 101.325 kPa. */
export const STANDARD_TEMPERATURE = 293.15;
export const STANDARD_PRESSURE = 101325;

/** Density of air, kg/m³, from pressure (Pa absolute) and temperature (K). Ideal gas law. */
export const airDensity = (pressure: number, temperature: number) => pressure / (R_AIR * temperature);

/** Density at standard state, kg/m³. */
export const STANDARD_DENSITY = airDensity(STANDARD_PRESSURE, STANDARD_TEMPERATURE);

/** Volume flow (m³/s) at standard state of a mass flow (kg/s). */
export const standardFlow = (massFlow: number) => massFlow / STANDARD_DENSITY;
/** Mass flow (kg/s) of a volume flow (m³/s) stated at standard state. */
export const massFlowOfStandard = (volumeFlow: number) => volumeFlow * STANDARD_DENSITY;

/**
 * Mass flow (kg/s) of a flow reading; a volume flow counts at standard state.
 * Throws RangeError for anything that is no flow.
 */
export function massFlowOf(q: Quantity): number {
  const dimension = dimensionOf(q);
  if (dimension === "mass-flow") return toSi(q);
  if (dimension === "volume-flow") return massFlowOfStandard(toSi(q));
  throw new RangeError(`${q.unit} is no flow`);
}
