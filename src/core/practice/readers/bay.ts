import type { BayInstrument, InstrumentFault } from "../../devices/instrument-fault";
import type { Light } from "../../devices/light";
import type { Trait } from "../../faults";
import { Network, OUTSIDE } from "../../gas/network/network";
import { holeArea, SHARP_EDGED } from "../../gas/orifice";
import { type Noise, seededNoise } from "../../maths/random";
import { fromSi, type Quantity, type UnitId } from "../../units";
import { type Car, type Fault, faultsAt, holeOf } from "../car";

/** A car with somebody at it: what is read trembles anew each time. */
export interface Bay {
  readonly car: Car;
  readonly noise: Noise;
  /** Still air and a lamp where nobody says */
  readonly light?: Light;
  /** Instrument faults: out of order among the instruments */
  readonly instruments?: Readonly<Partial<Record<BayInstrument, InstrumentFault>>>;
}

/** Choices made before a reading is taken, by the names of the record's fields. */
export type Setup = Readonly<Record<string, unknown>>;

/** Reads a check's record off the car: what it was set up with, and what instruments and senses say. */
export type Reader = (bay: Bay, setup: Setup) => object;

/** A reading as the instrument shows it: rounded to its division. */
export function shown(si: number, unit: UnitId, division: number, kind?: Quantity["kind"]): Quantity {
  const { value } = fromSi(si, unit);
  const rounded = Number((Math.round(value / division) * division).toFixed(6));
  return { value: rounded, unit, ...(kind ? { kind } : {}) };
}

export const percent = (value: number, division = 0.1) => Number((Math.round(value / division) * division).toFixed(4));

/** Where the scales of a well-kept bay's gauges and meters end. */
const ENDS: Partial<Readonly<Record<UnitId, number>>> = { inHg: 30, inH2O: 60, hPa: 60, kPa: 100, bar: 2.5, V: 60 };

/** Gauge or meter as it lies in a well-kept bay. */
export const gaugeIn = (unit: UnitId, division: number, name = unit === "V" ? "Meter" : "Gauge", end = ENDS[unit]) => ({
  name,
  division: { value: division, unit },
  zero: { value: 0, unit },
  ...(end === undefined ? {} : { end: { value: end, unit } }),
});

/** How well a leak's place shows itself: to eye and ear, to smoke, to the probe. Places differ from car to car, not from try to try. */
const SHOWS: Partial<Record<Trait, readonly [eye: number, smoke: number, probe: number]>> = {
  "manifold-leak": [0.15, 0.85, 0.85],
  "branch-leak": [0.5, 0.93, 0.85],
  "booster-leak": [0.45, 0.88, 0.7],
  "crankcase-leak": [0.4, 0.88, 0.45],
  "pcv-passes": [0.12, 0.55, 0.65],
  "duct-leak": [0.5, 0.93, 0.5],
  "charge-leak": [0.5, 0.88, 0.05],
  "exhaust-air": [0.4, 0.8, 0.1],
  "actuator-leak": [0.35, 0.6, 0.3],
  "supply-weak": [0.3, 0.6, 0.1],
  "purge-leak": [0.02, 0.02, 0.05],
  "vapour-leak": [0.22, 0.9, 0],
  "air-leak": [0.3, 0.9, 0],
  "egr-cooler-leak": [0.1, 0.5, 0],
  "filter-pipe": [0.75, 0.3, 0],
  restriction: [0.6, 0, 0],
  "circuit-dead": [0.06, 0, 0],
};
/** From this hole on smoke pours out, m. */
const PLUME = 3.2e-3;
const SENSES = { eye: 0, smoke: 1, probe: 2 } as const;

/** Whether a fault's place can be seen, smoked out or reached by the probe at all on this car. */
export function showsTo(car: Car, fault: Fault, sense: keyof typeof SENSES): boolean {
  const { cause } = fault;
  // What blows so much smoke is seen wherever it sits.
  if (sense === "smoke" && holeOf(fault, car.context.vehicle) > PLUME) return true;
  const chance = SHOWS[cause.trait]?.[SENSES[sense]] ?? 0.04;
  let key = car.seed * 31 + SENSES[sense];
  for (const letter of cause.id) key = (key * 33 + letter.charCodeAt(0)) >>> 0;
  return seededNoise(key).uniform() < chance;
}

/**
 * Rest of a vacuum or pressure that was shut into a space with a hole, Pa gauge (negative for a vacuum), after so many s.
 * @param volume m³; @param hole m.
 */
export function leftIn(car: Pick<Car, "ambient" | "temperature">, volume: number, hole: number, start: number, seconds: number) {
  if (hole <= 0) return start;
  const { ambient, temperature } = car;
  const network = new Network({
    ambient,
    temperature,
    isothermal: true,
    zones: [{ id: "space", volume, pressure: ambient + start, temperature }],
    joints: [{ id: "hole", from: "space", to: OUTSIDE, law: { type: "orifice", effectiveArea: SHARP_EDGED * holeArea(hole) } }],
  });
  network.advance(seconds);
  return network.pressure(0) - ambient;
}

/** The place that a check was set up at. */
export const placeOf = (setup: Setup): string => (typeof setup.joint === "string" ? setup.joint : "");
export const faultsThere = ({ car }: Bay, place: string, ...traits: readonly Trait[]): Fault[] =>
  faultsAt(car, place).filter((f) => traits.length === 0 || traits.includes(f.cause.trait));
export const chosen = <T>(setup: Setup, name: string, otherwise: T): T =>
  setup[name] === undefined ? otherwise : (setup[name] as T);
