import { engineTruth } from "../car";
import { type OperatingState, PracticeEngine } from "../engine";
import type { Driving } from "../engine-truth";
import { type Bay, shown } from "./bay";

export const IDLE: Driving = {};

export const held = (rpm: number): Driving => ({ foot: rpm });

export const WIDE = 3500;

/** Spread of what the instruments show, as shares or in their units. */
const METER = 0.012;

export const ambientOf = ({ car }: Bay) => shown(car.ambient, "hPa", 1, "absolute");

export const airOf = ({ car }: Bay) => shown(car.temperature, "°C", 1);

/** Speed that swings from stroke to stroke, to the next 10. */
export const rpmOf = ({ noise }: Bay, state: OperatingState) => Math.round((state.rpm + noise.normal(8)) / 10) * 10;

export const meterOf = ({ noise }: Bay, state: OperatingState, spread = METER) =>
  shown(state.meter * (1 + noise.normal(spread)), "g/s", 0.01);

export const mapOf = ({ noise }: Bay, state: OperatingState) => shown(state.map + noise.normal(300), "kPa", 0.1, "absolute");

/** Trim of all banks at a point, percent. */
export const trimOf = (state: OperatingState) => (100 * state.trims.reduce((a, b) => a + b, 0)) / state.trims.length;

/** How long a full pull is driven on, s. */
const PULL = 12;

/** When limp mode sets in on a full pull, where it does, s into it. */
export function limpOf(car: Bay["car"]): { readonly limp?: { readonly at: number } } {
  const engine = new PracticeEngine(engineTruth(car), car.seed);
  engine.driving = { road: { rpm: 3000 } };
  for (let at = 0.5; at <= PULL; at += 0.5) {
    engine.advance(at);
    if (engine.limp) return { limp: { at } };
  }
  return {};
}
