import { R_AIR } from "../gas/air";
import { Network, OUTSIDE } from "../gas/network/network";
import { pulldownTrace, type Tank } from "../gas/network/tank";
import { holeArea, massFlux, SHARP_EDGED } from "../gas/orifice";
import { vapourVolume } from "../vehicle";
import { type Car, hasTrait, holeOf, stateAt } from "./car";

/** Gas space above the fuel with canister and lines, m³. */
export const gasSpaceOf = ({ context, fuelLevel }: Car): number =>
  context.vehicle.evap ? vapourVolume(context.vehicle.evap, fuelLevel / 100).volume : 0.04;

/** Walls' time constant of a tank, s. */
export const WALLS = 25;
/** Holes of a vent and a purge valve, open, m. */
export const VENT = 9e-3;
export const PURGE = 1e-3;

/** All leaks of its vapour system as one hole, m. */
const vapourLeakOf = ({ faults, context }: Car): number =>
  Math.hypot(...faults.filter((f) => f.cause.trait === "vapour-leak").map((f) => holeOf(f, context.vehicle)));

const tankOf = (car: Car): Tank => ({
  volume: gasSpaceOf(car),
  leak: vapourLeakOf(car),
  wallTime: WALLS,
  ambient: car.ambient,
  temperature: car.temperature,
});

/** The monitor by engine vacuum pulls so long at the most, s, or so deep, Pa. */
const PULLS = 60;
const DEEP = 2000;
/** Then it watches: as late as there is something left, since walls that give their heat look like a leak; s after purge shut. */
const WATCHES = [
  [60, 100],
  [30, 45],
  [15, 22],
  [2, 8],
] as const;
/** So much has to be left for a look, share; and so much to have been pulled at all, Pa. */
const LEFT = 0.3;
const PULLED = 250;

/**
 * By engine vacuum: vent shut, purge opened until the vacuum is there, shut, and watched. What comes back in is sized by dp/dt = R·T/V·ṁ.
 */
function byEngineVacuum(car: Car): number {
  const tank = tankOf(car);
  const { points, purgeShutAt } = pulldownTrace(
    tank,
    { manifold: stateAt(car, {}).map, purgeOpen: PURGE, purgeShut: 0, ventOpen: VENT, ventShut: 0 },
    { ventShutAt: 0, purgeOpenAt: 1, purgeShutAt: 1 + PULLS, holds: WATCHES[0][1], relieves: 0, deep: DEEP },
  );
  const at = (seconds: number) => (points[purgeShutAt + seconds] as readonly [number, number])[1];
  if (at(0) > -PULLED) return Number.POSITIVE_INFINITY;
  const [from, to] = WATCHES.find(([begins]) => at(begins) < LEFT * at(0)) ?? WATCHES[3];
  const mean = tank.ambient + (at(from) + at(to)) / 2;
  const flow = ((at(to) - at(from)) / (to - from)) * (tank.volume / (R_AIR * tank.temperature));
  const area = flow / (SHARP_EDGED * massFlux(tank.ambient, mean, tank.temperature));
  return Math.sqrt(Math.max(0, area) * (4 / Math.PI));
}

/** The canister's own pump: what it gives, m³/s, and the pressure at which it gives no more, Pa gauge. */
const PUMP = { flow: 3e-5, stall: 3200 } as const;
/** Its reference orifice, m, and how long each is blown into, s. */
const REFERENCE = 0.5e-3;
const BLOWN = { reference: 20, system: 600 } as const;

/** Pressure that the pump comes to against a hole, Pa gauge. */
function pumpedUp({ ambient, temperature }: Car, volume: number, hole: number, seconds: number): number {
  const network = new Network({
    ambient,
    temperature,
    isothermal: true,
    zones: [{ id: "space", volume, pressure: ambient, temperature }],
    joints: [
      {
        id: "pump",
        from: OUTSIDE,
        to: "space",
        law: { type: "pump", maxFlow: (PUMP.flow * ambient) / (R_AIR * temperature), stallPressure: PUMP.stall },
      },
      { id: "hole", from: "space", to: OUTSIDE, law: { type: "orifice", effectiveArea: SHARP_EDGED * holeArea(hole) } },
    ],
  });
  network.advance(seconds);
  return network.pressure(0) - ambient;
}

/**
 * By a pump in the canister: what it comes to against its own reference orifice, and against the whole system. A pump's flow falls with
 * what it works against; A ∝ Q/√p sizes what the system loses.
 */
function byPump(car: Car): number {
  const [alone, system] = [
    pumpedUp(car, 1e-3, REFERENCE, BLOWN.reference),
    pumpedUp(car, gasSpaceOf(car), vapourLeakOf(car), BLOWN.system),
  ];
  const flow = (p: number) => Math.max(0, 1 - p / PUMP.stall);
  return REFERENCE * Math.sqrt((flow(system) / flow(alone)) * Math.sqrt(alone / Math.max(1, system)));
}

/** Findings on a car, by car: the same system is tested once. */
const found = new WeakMap<Car, number>();

/** Result of the car's own EVAP monitor: all leaks as one hole, m; Infinity where nothing could be pulled. */
export function evapMonitor(car: Car): number {
  const known = found.get(car) ?? (car.context.vehicle.evap?.monitor === "canister-pump" ? byPump(car) : byEngineVacuum(car));
  found.set(car, known);
  return known;
}

/** Share of the secondary air that arrives at the exhaust ports when the ECU runs its pump; none where the pump is dead or the valve is not drawn open. */
export function airArrives(car: Car, openedBy: "command" | "hand-vacuum" = "command"): number {
  const dead = car.faults.some((f) => f.cause.trait === "air-pump-dead" || f.cause.id === "pump-circuit");
  const unworked =
    car.faults.some((f) => f.cause.joint === "air-diaphragm") ||
    // A hand pump on the valve goes round the pipe and what feeds it.
    (openedBy === "command" && car.faults.some((f) => ["air-pipe", "air-solenoid"].includes(f.cause.joint ?? "")));
  if (dead || unworked) return 0;
  const leak = hasTrait(car, "air-leak");
  return leak ? 0.75 - 0.5 * leak.size : 1;
}
