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
