import { airDensity } from "./air";

/**
 * Air a four-stroke engine breathes, kg/s: ṁ = η·ρ·V_d·n/120 (speed-density; Heywood 1988, eq. 2.27).
 * @param engine displacement m³, rpm 1/min, efficiency (volumetric, 0…1.3), pressure Pa absolute and
 * temperature K of the air the efficiency is referred to (ambient or manifold).
 */
export function engineAirflow(engine: {
  displacement: number;
  rpm: number;
  efficiency: number;
  pressure: number;
  temperature: number;
}): number {
  return (engine.efficiency * airDensity(engine.pressure, engine.temperature) * engine.displacement * engine.rpm) / 120;
}
