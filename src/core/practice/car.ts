import type { CheckContext } from "../checks";
import type { Cause, Trait } from "../faults";
import { toSi } from "../units";
import type { VehicleFacts } from "../vehicle";
import { type OperatingState, operatingState } from "./engine";
import type { Driving, EngineTruth } from "./engine-truth";
import type { HiddenHole } from "./smoke-fill";

/** One thing that is wrong with a car: a cause, and how bad it is, 0 to 1. */
export interface Fault {
  readonly cause: Cause;
  readonly size: number;
}

/** A car as it stands in the bay. SI. */
export interface Car {
  readonly seed: number;
  readonly context: CheckContext;
  readonly faults: readonly Fault[];
  /** Pa absolute and K */
  readonly ambient: number;
  readonly temperature: number;
  /** Percent of the rated volume */
  readonly fuelLevel: number;
}

/** Holes that faults of a trait make, mm from the smallest to the largest; those marked grow with the engine. */
const HOLES: Partial<Record<Trait, readonly [number, number, "scaled"?]>> = {
  "manifold-leak": [1.5, 3, "scaled"],
  "branch-leak": [1.5, 3.2, "scaled"],
  "booster-leak": [1.5, 3, "scaled"],
  "crankcase-leak": [1.5, 3, "scaled"],
  "pcv-passes": [1.5, 3, "scaled"],
  "purge-leak": [1.2, 2.6, "scaled"],
  "actuator-leak": [0.5, 1.6],
  "supply-weak": [0.5, 1.6],
  "duct-leak": [13, 20, "scaled"],
  "charge-leak": [4.5, 9],
  "inside-leak": [2.6, 4.4, "scaled"],
  "exhaust-air": [3.4, 5.2, "scaled"],
  "vapour-leak": [0.6, 1.8],
  "vent-open": [2, 6],
  "air-leak": [4, 8],
  "egr-cooler-leak": [1.5, 3],
};
const LITRES = 1.6;

/** The hole that a fault is, m; none where it is no hole. */
export function holeOf({ cause, size }: Fault, { displacement }: Pick<VehicleFacts, "displacement">): number {
  const [low, high, scaled] = HOLES[cause.trait] ?? [0, 0];
  const by = scaled ? Math.sqrt((toSi(displacement) * 1e3) / LITRES) : 1;
  return (low + (high - low) * size) * 1e-3 * by;
}

const between = (low: number, high: number, size: number) => low + (high - low) * size;

/** Traits that let air into the manifold of a petrol engine. */
const INTO_MANIFOLD: readonly Trait[] = [
  "manifold-leak",
  "branch-leak",
  "booster-leak",
  "crankcase-leak",
  "pcv-passes",
  "purge-leak",
];
/** Where what works a turbocharger's vanes or gate sits. */
const WORKS_BOOST: readonly string[] = ["boost-pipe", "boost-diaphragm", "boost-solenoid", "flap-line", "vacuum-pump"];

/** What its faults do to the engine. */
export function engineTruth({ context, faults, ambient, temperature, seed }: Car): EngineTruth {
  const { vehicle } = context;
  const petrol = vehicle.fuel === "petrol";
  const turbo = vehicle.induction === "turbo";
  let truth: EngineTruth = {
    displacement: toSi(vehicle.displacement),
    ambient,
    temperature,
    banks: vehicle.banks,
    hole: 0,
    diesel: !petrol,
    speedDensity: vehicle.metering === "map",
    ...(turbo ? { boost: vehicle.maxBoost ? toSi(vehicle.maxBoost) : petrol ? 80e3 : 110e3 } : {}),
    // No two engines are fuelled or blown quite alike.
    turbineRatio: 1.17 + 0.12 * Math.sin(seed * 78.233),
    fuelError: petrol ? 0.012 * Math.sin(seed * 12.9898) : 0,
  };
  const change = (more: Partial<EngineTruth>) => {
    truth = { ...truth, ...more };
  };
  for (const fault of faults) {
    const { cause, size } = fault;
    const { trait } = cause;
    const hole = holeOf(fault, vehicle);
    const area = (also: number | undefined) => Math.hypot(also ?? 0, hole);
    if (INTO_MANIFOLD.includes(trait) || (trait === "actuator-leak" && petrol))
      change({ hole: area(truth.hole), ...(cause.bank ? { holeBank: cause.bank - 1 } : {}) });
    if (trait === "duct-leak") change({ ductHole: area(truth.ductHole) });
    if (trait === "charge-leak") change({ chargeHole: area(truth.chargeHole) });
    if (trait === "exhaust-air") change({ exhaustHole: area(truth.exhaustHole) });
    if (trait === "inside-leak" && cause.id !== "bypass-valve") change({ backflow: area(truth.backflow) });
    if (trait === "restriction") change({ intakeBlock: between(18, 45, size) });
    if (trait === "exhaust-restriction") change({ exhaustBlock: between(15, 30, size) });
    if (trait === "filter-loaded") change({ exhaustBlock: between(1.2, 2.4, size) });
    if (trait === "ports-coked") change({ coked: between(0.15, 0.28, size) });
    if (trait === "engine-mechanical") change({ worn: between(0.12, 0.2, size) });
    if (trait === "meter-low") change({ meterLow: between(0.1, 0.2, size) });
    if (trait === "meter-range") change({ meterRange: between(0.2, 0.35, size) });
    if (trait === "sensor-bias" || trait === "fuel-pressure")
      change({ fuelError: (truth.fuelError ?? 0) + between(0.08, 0.18, size) });
    if (trait === "fuel-supply") change({ supplyShort: between(0.15, 0.3, size) });
    if (trait === "idle-control") change({ idleStuck: between(0.3, 0.8, size) });
    if (trait === "boost-over") change({ boostShare: between(1.25, 1.4, size) });
    if (trait === "boost-lazy" || cause.id === "bypass-valve" || WORKS_BOOST.includes(cause.joint ?? ""))
      change({ boostShare: between(0.78, 0.55, size) });
  }
  return truth;
}

/** Traits whose cause is a hole at its joint, that lets gas in or out there. */
const AT_JOINT: readonly Trait[] = [
  ...INTO_MANIFOLD,
  "actuator-leak",
  "supply-weak",
  "duct-leak",
  "charge-leak",
  "inside-leak",
  "exhaust-air",
  "vapour-leak",
  "air-leak",
  "egr-cooler-leak",
];

/** The holes of a car, each at its joint. */
export const holesOf = ({ faults, context }: Pick<Car, "faults" | "context">): HiddenHole[] =>
  faults.flatMap((fault) =>
    fault.cause.joint && AT_JOINT.includes(fault.cause.trait)
      ? [{ joint: fault.cause.joint, diameter: holeOf(fault, context.vehicle) }]
      : [],
  );

/** States that were worked out once, by car. */
const states = new WeakMap<Car, Map<string, OperatingState>>();

/** How the car's engine stands at a point. @param change what is different about it just now: a branch shut off, a valve commanded. */
export function stateAt(car: Car, driving: Driving, change: Partial<EngineTruth> = {}): OperatingState {
  const known = states.get(car) ?? new Map<string, OperatingState>();
  states.set(car, known);
  const key = JSON.stringify([driving, change]);
  const state = known.get(key) ?? operatingState({ ...engineTruth(car), ...change }, driving, car.seed);
  known.set(key, state);
  return state;
}

export const hasTrait = (car: Pick<Car, "faults">, ...traits: readonly Trait[]): Fault | undefined =>
  car.faults.find((f) => traits.includes(f.cause.trait));

/** Faults at a joint or part: its own, and those of the device that sits there. */
export const faultsAt = (car: Pick<Car, "faults">, place: string): Fault[] =>
  car.faults.filter(({ cause }) => [cause.joint, cause.id, cause.device].includes(place));
