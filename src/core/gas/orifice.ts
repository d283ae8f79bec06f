import { GAMMA, R_AIR } from "./air";

/** Discharge coefficient at which every leak size is quoted: a sharp-edged hole. */
export const SHARP_EDGED = 0.61;

/** Pressure ratio at and below which the hole is choked: (2/(γ+1))^(γ/(γ−1)) = 0.52828. */
export const CRITICAL_RATIO = (2 / (GAMMA + 1)) ** (GAMMA / (GAMMA - 1));

const CHOKED = Math.sqrt(GAMMA / R_AIR) * (2 / (GAMMA + 1)) ** ((GAMMA + 1) / (2 * (GAMMA - 1)));
const SUBSONIC = (2 * GAMMA) / ((GAMMA - 1) * R_AIR);
const EXPONENT = 1 / GAMMA;

/** Pressure drop as a share below which r^(1/γ) = 1 − e·s(e) goes by its binomial series: no difference of near equals. */
const SMALL_DROP = 0.2;
/** Terms of s, the last first; what is left out is below 1e−10 of the flow. */
const SERIES = (() => {
  const terms = [EXPONENT];
  for (let k = 1; k < 12; k++) terms.unshift(((terms[0] as number) * (k - EXPONENT)) / (k + 1));
  return Float64Array.from(terms);
})();

/** r^(2/γ) − r^((γ+1)/γ) at r = 1 − e: one power x = r^(1/γ), since it is x·(x − r). */
function nozzleTerm(e: number): number {
  if (e > SMALL_DROP) {
    const x = (1 - e) ** EXPONENT;
    return x * (x - (1 - e));
  }
  let s = 0;
  for (let k = 0; k < SERIES.length; k++) s = s * e + (SERIES[k] as number);
  return (1 - e * s) * e * (1 - s);
}

/**
 * Mass flux ψ = ṁ/(Cd·A) through a hole, kg/(s·m²), positive from `p1` to `p2`.
 * Isentropic nozzle flow with critical limit (ISO 6358-1; Saint-Venant & Wantzel 1839).
 * @param p1 Pa absolute; @param p2 Pa absolute; @param temperature K, of the gas on the higher side.
 * Valid for dry air, 200–600 K. Near p1 = p2 the slope is infinite: solvers must not step across it blindly.
 * Throws RangeError for negative pressures or a temperature not above 0 K.
 */
export function massFlux(p1: number, p2: number, temperature: number): number {
  if (!(p1 >= 0) || !(p2 >= 0)) throw new RangeError("Orifice pressures must be absolute and not negative");
  if (!(temperature > 0)) throw new RangeError("Orifice temperature must be above 0 K");
  if (p2 > p1) return -massFlux(p2, p1, temperature);
  if (p1 === 0) return 0;
  const r = p2 / p1;
  if (r <= CRITICAL_RATIO) return (p1 * CHOKED) / Math.sqrt(temperature);
  return p1 * Math.sqrt((SUBSONIC / temperature) * nozzleTerm((p1 - p2) / p1));
}

/** Area of a round hole, m², from its diameter in m. */
export const holeArea = (diameter: number) => (Math.PI / 4) * diameter ** 2;
/** Diameter of a round hole, m, from its area in m²; an area below 0 counts as 0. */
export const holeDiameter = (area: number) => Math.sqrt((4 / Math.PI) * Math.max(0, area));

export interface OrificeFlow {
  /** kg/s, positive from upstream to downstream */
  readonly massFlow: number;
  readonly choked: boolean;
}

/**
 * Flow through a hole: ṁ = Cd·A·ψ (see `massFlux`).
 * @param hole upstream and downstream Pa absolute, temperature K, diameter m, dischargeCoefficient 0…1.
 * Throws RangeError for a negative diameter or a coefficient outside (0, 1].
 */
export function orificeFlow(hole: {
  upstream: number;
  downstream: number;
  temperature: number;
  diameter: number;
  dischargeCoefficient?: number;
}): OrificeFlow {
  const cd = hole.dischargeCoefficient ?? SHARP_EDGED;
  if (!(hole.diameter >= 0)) throw new RangeError("A hole's diameter cannot be negative");
  if (!(cd > 0 && cd <= 1)) throw new RangeError("The discharge coefficient is between 0 and 1");
  const massFlow = cd * holeArea(hole.diameter) * massFlux(hole.upstream, hole.downstream, hole.temperature);
  const [high, low] = hole.upstream > hole.downstream ? [hole.upstream, hole.downstream] : [hole.downstream, hole.upstream];
  return { massFlow, choked: high > 0 && low / high <= CRITICAL_RATIO };
}

/**
 * The equivalent sharp-edged hole (Cd 0.61) that passes `massFlow`: the inverse of `orificeFlow`.
 * @param flow massFlow kg/s ≥ 0 from upstream to downstream (Pa absolute), temperature K.
 * @returns diameter in m. Throws RangeError when there is no pressure to drive the flow.
 */
export function leakDiameter(flow: { massFlow: number; upstream: number; downstream: number; temperature: number }): number {
  const flux = massFlux(flow.upstream, flow.downstream, flow.temperature);
  if (!(flow.massFlow >= 0)) throw new RangeError("The flow out of a leak cannot be negative");
  if (!(flux > 0)) throw new RangeError("There is no pressure across the leak: a size needs flow and pressure together");
  return holeDiameter(flow.massFlow / (SHARP_EDGED * flux));
}
