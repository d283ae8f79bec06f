import { R_AIR } from "./air";
import { holeDiameter, massFlux, SHARP_EDGED } from "./orifice";

/** A trapped volume under vacuum or pressure that loses some of it. SI. */
export interface HeldVolume {
  /** m³ */
  readonly volume: number;
  /** Pa absolute inside at the start and at the end */
  readonly start: number;
  readonly end: number;
  readonly seconds: number;
  /** Pa absolute outside */
  readonly ambient: number;
  /** K */
  readonly temperature: number;
}

/**
 * The sharp-edged hole (m, Cd 0.61) that a trapped volume's change of pressure makes: p·V = m·R·T isothermal, orifice flow
 * between inside and outside (`massFlux`), CdA = V·|Δp|/(R·T·∫|ψ| dt), the integral by the trapezoid between both ends.
 * Zero where the pressure moved away from ambient: nothing leaks uphill. Valid for slow losses, walls at gas temperature.
 */
export function holeOfLoss({ volume, start, end, seconds, ambient, temperature }: HeldVolume): number {
  const towards = Math.abs(ambient - start) - Math.abs(ambient - end);
  if (!(towards > 0) || !(seconds > 0)) return 0;
  const flux = (p: number) => Math.abs(massFlux(Math.max(p, ambient), Math.min(p, ambient), temperature));
  const mean = (flux(start) + 2 * flux((start + end) / 2) + flux(end)) / 4;
  return mean > 0 ? holeDiameter((volume * towards) / (R_AIR * temperature * mean * seconds) / SHARP_EDGED) : 0;
}

/** Steps of the integral below: its integrand is smooth, so that these give six digits. */
const STEPS = 64;

/**
 * Share of the pressure difference that the same hole would lose in another time, 0 to 1: p·V = m·R·T isothermal, so that the time
 * from one pressure to another goes as ∫ dp/ψ(p), ψ the orifice flow of `massFlux`, choked or not. The root of the difference is
 * the variable, in which the integrand stays finite where the pressures meet.
 * @param seconds the other time, s. NaN where nothing was lost or no time went by.
 */
export function shareLostIn({ start, end, seconds: watched, ambient, temperature }: HeldVolume, seconds: number): number {
  const outward = Math.sign(start - ambient);
  const root = (p: number) => Math.sqrt(Math.max(0, outward * (p - ambient)));
  const [from, to] = [root(start), root(end)];
  if (!(to < from) || !(watched > 0)) return Number.NaN;
  const flux = (u: number) => {
    const p = ambient + outward * u * u;
    return Math.abs(massFlux(Math.max(p, ambient), Math.min(p, ambient), temperature));
  };
  const needed = (low: number) => {
    const du = (from - low) / STEPS;
    return Array.from({ length: STEPS }, (_, i) => low + (i + 0.5) * du).reduce((sum, u) => sum + ((2 * u) / flux(u)) * du, 0);
  };
  const goal = (needed(to) * seconds) / watched;
  if (goal >= needed(0)) return 1;
  let [low, high] = [0, from];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (needed(middle) > goal) low = middle;
    else high = middle;
  }
  return 1 - (high * high) / (from * from);
}
