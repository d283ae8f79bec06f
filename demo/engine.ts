import { R_AIR } from "@/core/gas/air";
import { holeArea, massFlux, SHARP_EDGED } from "@/core/gas/orifice";
import type { Noise } from "@/core/maths/random";

/** The hidden truth of a made-up car: what its air meter and closed loop will show. SI. */
export interface HiddenEngine {
  displacement: number;
  ambient: number;
  temperature: number;
  turbo: boolean;
  banks: 1 | 2;
  /** Fuelling error b, fraction */
  fuelError: number;
  /** Hole in the manifold (m); `bank` when only one bank sees it */
  manifoldHole?: { diameter: number; bank?: 0 | 1; joint?: string };
  /** What a standing engine's open valves pass into the exhaust, as one hole, m */
  valvesPass?: number;
  /** Hole in the charge pipe, m */
  chargeHole?: number;
  /** Share of fuel missing at full flow and the flow (kg/s) where that is reached */
  supplyLimit?: { atFullFlow: number; fullFlow: number; exponent: number };
}

/** One operating point the driver holds: engine speed, manifold pressure, charge pipe pressure. */
export interface OperatingPoint {
  rpm: number;
  map: number;
  charge: number;
  coolant: number;
}

/** Air through the engine, kg/s: η·p/(R·T)·V·n/120 (four-stroke, η 0.85 on manifold density). */
export const breathing = (engine: HiddenEngine, point: OperatingPoint) =>
  (0.85 * point.map * engine.displacement * point.rpm) / (R_AIR * (engine.temperature + 15) * 120);

export interface Seen {
  /** Indicated metered flow, kg/s */
  maf: number;
  /** True total trim of each bank, fraction */
  trims: number[];
}

/** What meter and closed loop show at a point: balance of metered, unmetered and lost air per bank. */
export function seenAt(engine: HiddenEngine, point: OperatingPoint): Seen {
  const area = (d: number) => SHARP_EDGED * holeArea(d);
  const total = breathing(engine, point);
  const manifold = engine.manifoldHole
    ? area(engine.manifoldHole.diameter) * massFlux(engine.ambient, point.map, engine.temperature)
    : 0;
  const charge = engine.chargeHole ? area(engine.chargeHole) * massFlux(engine.ambient, point.charge, engine.temperature) : 0;
  const maf = total - manifold - charge;
  const perBank = maf / engine.banks;
  const supply = engine.supplyLimit
    ? engine.supplyLimit.atFullFlow * Math.min(1, maf / engine.supplyLimit.fullFlow) ** engine.supplyLimit.exponent
    : 0;
  const trims = Array.from({ length: engine.banks }, (_, bank) => {
    const own = engine.manifoldHole?.bank;
    const share = own === undefined ? manifold / engine.banks : own === bank ? manifold : 0;
    return (1 + engine.fuelError + supply) * (1 + (share + charge / engine.banks) / perBank) - 1;
  });
  return { maf, trims };
}

/** The five points of a usual survey: idle, 1500, 2500 without load, cruise, and a hard pull. */
export function usualPoints(engine: HiddenEngine, noise: Noise): OperatingPoint[] {
  const light = (rpm: number, map: number): OperatingPoint => ({
    rpm,
    map,
    charge: engine.turbo ? engine.ambient + noise.normal(60) : engine.ambient,
    coolant: 363,
  });
  const pull = engine.turbo ? engine.ambient + noise.uniform(40e3, 80e3) : engine.ambient - noise.uniform(4e3, 15e3);
  return [
    light(noise.uniform(650, 850), noise.uniform(28e3, 38e3)),
    light(1500, noise.uniform(27e3, 36e3)),
    light(2500, noise.uniform(26e3, 36e3)),
    light(noise.uniform(2000, 2600), noise.uniform(50e3, 75e3)),
    {
      rpm: noise.uniform(2800, 4200),
      map: pull,
      charge: engine.turbo ? pull + noise.uniform(2e3, 6e3) : engine.ambient,
      coolant: 363,
    },
  ];
}
