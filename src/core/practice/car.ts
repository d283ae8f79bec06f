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

/** One fault of a car, its hole as one sharp-edged one, m, and the engine as the faults before it left it. */
interface Acting extends Fault {
  readonly hole: number;
  readonly truth: EngineTruth;
}
type Effect = (acting: Acting) => Partial<EngineTruth>;

/** Holes at one place add up as their areas. */
const hole =
  (at: "hole" | "ductHole" | "chargeHole" | "exhaustHole" | "backflow"): Effect =>
  ({ truth, hole }) => ({ [at]: Math.hypot(truth[at] ?? 0, hole) });
const share =
  (at: Exclude<keyof EngineTruth, "diesel" | "speedDensity">, from: number, to: number): Effect =>
  ({ size }) => ({ [at]: between(from, to, size) });
const intoManifold: Effect = (acting) => ({
  ...hole("hole")(acting),
  ...(acting.cause.bank ? { holeBank: acting.cause.bank - 1 } : {}),
});
const leanByFuel: Effect = ({ truth, size }) => ({ fuelError: (truth.fuelError ?? 0) + between(0.08, 0.18, size) });
const LAZY = share("boostShare", 0.78, 0.55);

/** Each kind of fault by what it does to the engine; one that is not here does nothing to it. */
const EFFECTS: Partial<Readonly<Record<Trait, Effect>>> = {
  ...Object.fromEntries(INTO_MANIFOLD.map((trait) => [trait, intoManifold])),
  // A diesel's pump feeds its actuators: what they lose the engine does not breathe.
  "actuator-leak": (acting) => (acting.truth.diesel ? {} : intoManifold(acting)),
  "duct-leak": hole("ductHole"),
  "charge-leak": hole("chargeHole"),
  "exhaust-air": hole("exhaustHole"),
  "inside-leak": (acting) => (acting.cause.id === "bypass-valve" ? {} : hole("backflow")(acting)),
  restriction: share("intakeBlock", 18, 45),
  "exhaust-restriction": share("exhaustBlock", 15, 30),
  "filter-loaded": share("exhaustBlock", 1.2, 2.4),
  "ports-coked": share("coked", 0.15, 0.28),
  "engine-mechanical": share("worn", 0.12, 0.2),
  "meter-low": share("meterLow", 0.1, 0.2),
  "meter-range": share("meterRange", 0.2, 0.35),
  "sensor-bias": leanByFuel,
  "fuel-pressure": leanByFuel,
  "fuel-supply": share("supplyShort", 0.15, 0.3),
  "idle-control": share("idleStuck", 0.3, 0.8),
  "boost-over": share("boostShare", 1.25, 1.4),
  "boost-lazy": LAZY,
};

/** A car's engine with everything that its faults do to it. */
export function engineTruth({ context, faults, ambient, temperature, seed }: Car): EngineTruth {
  const { vehicle } = context;
  const petrol = vehicle.fuel === "petrol";
  const turbo = vehicle.induction === "turbo";
  const sound: EngineTruth = {
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
  let truth = sound;
  for (const fault of faults) {
    const acting = { ...fault, hole: holeOf(fault, vehicle), truth };
    const { id, joint = "", trait } = fault.cause;
    const lazy = id === "bypass-valve" || WORKS_BOOST.includes(joint);
    truth = { ...truth, ...EFFECTS[trait]?.(acting), ...(lazy ? LAZY(acting) : {}) };
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
