import type { DecayRecord } from "@/core/checks/decay";
import { type EvapSetup, requiredOf } from "@/core/checks/evap-fields";
import type { EvapSmokeRun } from "@/core/checks/evap-smoke";
import type { PulldownRecord } from "@/core/checks/pulldown";
import { airDensity, STANDARD_DENSITY, standardFlow } from "@/core/gas/air";
import { orificeFlow } from "@/core/gas/orifice";
import { simulatePulldown, simulateTank } from "@/core/gas/simulated-tank";
import { settleTimeConstant } from "@/core/gas/vessel";
import { seededNoise } from "@/core/maths/random";
import { fromSi, toSi } from "@/core/units";
import {
  type FillSetup,
  layoutOf,
  reachOf,
  requiredLeakOf,
  usualSetup,
  type VehicleFacts,
  vapourVolume,
  type ZoneId,
} from "@/core/vehicle";
import { inUse } from "./readings";
import { MACHINES } from "./smoke";

/** The hidden truth of a made-up vapour system. SI; a hole of 0 is none. */
export interface HiddenTank {
  readonly leaks: readonly { readonly joint: string; readonly diameter: number }[];
  /** Percent of the rated volume */
  readonly fuelLevel: number;
  /** What the vent passes shut and open, what purge passes open and shut */
  readonly ventShut: number;
  readonly ventOpen: number;
  readonly purgeOpen: number;
  readonly purgeShut: number;
  readonly wallTime: number;
  readonly ambient: number;
  readonly temperature: number;
}

export interface VapourCar {
  readonly facts: VehicleFacts;
  readonly tank: HiddenTank;
}

const volumeOf = ({ facts, tank }: VapourCar) =>
  vapourVolume(facts.evap as NonNullable<VehicleFacts["evap"]>, tank.fuelLevel / 100).volume;

/** All leaks that a setup puts to the test, as the area-equal one hole, m; the entry hides its own. */
function leakOf({ facts, tank }: VapourCar, setup?: FillSetup): number {
  const tested = setup && reachOf(layoutOf(facts), setup).tested.map((j) => j.id);
  return Math.sqrt(tank.leaks.filter((l) => tested?.includes(l.joint) ?? true).reduce((sum, l) => sum + l.diameter ** 2, 0));
}

/** Setup, conditions and what the check is held against, as the shop would record them. */
function recordedSetup(car: VapourCar, entry: string): EvapSetup {
  const leak = requiredLeakOf(car.facts, []);
  return {
    ...usualSetup(layoutOf(car.facts), entry),
    blocked: ["vent-filter"],
    vent: { by: "plug" },
    fuelLevel: car.tank.fuelLevel,
    ...(leak ? { required: requiredOf(leak) } : {}),
    touchedBefore: [],
    adapterLeaks: false,
    ambient: fromSi(car.tank.ambient, "hPa", "absolute"),
    temperature: { value: Math.round(car.tank.temperature - 273.15), unit: "°C" },
  };
}

/** A smoke run of the system as the cart and the holes would make it; a port whose core is not pressed lets nothing in. */
export function evapSmokeOf(
  car: VapourCar,
  story: {
    seed: number;
    entry: string;
    arrivals: readonly ZoneId[];
    seen: readonly string[];
    seconds: number;
    coreShut?: boolean;
    /** What the hose clamped showed, inH2O */
    proof?: number;
  },
  change: Partial<EvapSmokeRun> = {},
): EvapSmokeRun {
  const noise = seededNoise(story.seed);
  const machine = MACHINES[0] as (typeof MACHINES)[number];
  const { ambient, temperature } = car.tank;
  const setup = recordedSetup(car, story.entry);
  const rated = toSi(machine.ratedPressure);
  const maxFlow = toSi(machine.maxFlow);
  const hole = story.coreShut ? 0 : leakOf(car, setup);
  const flowAt = (pressure: number) =>
    standardFlow(orificeFlow({ upstream: ambient + pressure, downstream: ambient, temperature, diameter: hole }).massFlow);
  let pressure = rated;
  while (flowAt(pressure) > maxFlow) pressure *= 0.99;
  const settled = flowAt(pressure);
  const tau = story.coreShut
    ? 0.2
    : Math.max(2, settleTimeConstant({ volume: volumeOf(car), setPressure: rated, ambient, maxFlow }));
  const samples: [number, number, number][] = [];
  for (let t = 1; t <= story.seconds; t += 5) {
    const rush = Math.exp(-t / tau);
    const flow = settled + (maxFlow - settled) * rush + noise.normal(0.003 * maxFlow);
    const p = pressure * (1 - rush) + noise.normal(0.003 * rated);
    const scale = flow / Math.sqrt(airDensity(ambient + p, temperature) / STANDARD_DENSITY);
    samples.push([t, Math.round(Math.max(0, scale) * 6e4 * 10) / 10, Math.round((Math.max(0, p) / 249.0889) * 10) / 10]);
  }
  return {
    ...setup,
    machine: { name: machine.name, ratedPressure: machine.ratedPressure, maxFlow: machine.maxFlow, autoOff: machine.autoOff },
    proof: { pressure: { value: story.proof ?? 12.6, unit: "inH2O", kind: "gauge" }, ballAtBottom: true, smokeSeen: true },
    heaterOnAt: -60,
    units: { flow: "L/min", pressure: "inH2O" },
    samples,
    arrivals: story.arrivals.map((zone, i) => ({ zone, at: 40 + 20 * i })),
    seen: story.seen.map((joint) => ({ joint, at: story.seconds - 15 })),
    noSmokeOutside: story.seen.length === 0,
    cameUndone: [],
    draughtOrGlare: false,
    zeroed: true,
    endedAt: story.seconds,
    gas: "inert",
    capOffs: [],
    ...change,
  };
}

/** A decay of the system, held for two minutes; with a reference hole (m) a second run beside it. */
export function decayOf(
  car: VapourCar,
  story: { seed: number; entry: string; reference?: number },
  change: Partial<DecayRecord> = {},
): DecayRecord {
  const noise = seededNoise(story.seed);
  const setup = recordedSetup(car, story.entry);
  const run = (extraHole: number) => {
    const { times, pressures } = simulateTank({
      volume: volumeOf(car),
      diameter: leakOf(car, setup),
      extraHole,
      wallTime: car.tank.wallTime,
      held: 120,
      drift: noise.uniform(-0.08, 0.08),
      pressure: 2490,
      ambient: car.tank.ambient,
      temperature: car.tank.temperature,
      duration: 150,
      every: 5,
    });
    return times.map((t, i): [number, number] => [
      t,
      Math.round(((pressures[i] as number) / 249.0889 + noise.normal(0.006)) * 100) / 100,
    ]);
  };
  return {
    ...setup,
    source: { kind: "typed" },
    unit: "inH2O",
    held: 120,
    samples: run(0),
    ...(story.reference ? { reference: { diameter: fromSi(story.reference, "mm"), samples: run(story.reference) } } : {}),
    instrument: inUse("low"),
    ...change,
  };
}

/** A pull-down trace on the idling engine, read by the scan tool every second. */
export function pulldownOf(
  car: VapourCar,
  story: { seed: number; vent: "command" | "plug" },
  change: Partial<PulldownRecord> = {},
): PulldownRecord {
  const noise = seededNoise(story.seed);
  const { tank } = car;
  const phases = { ventShutAt: 8, purgeOpenAt: 20, purgeShutAt: 42, ventOpenAt: 82, end: 102 };
  const points = simulatePulldown({
    ...tank,
    volume: volumeOf(car),
    leak: leakOf(car),
    ventShut: story.vent === "plug" ? 0 : tank.ventShut,
    manifold: 34e3,
    phases,
    every: 1,
  });
  const { end: _, ...times } = phases;
  const { vent: __, fuelLevel, required, ambient, temperature } = recordedSetup(car, "filler-cap");
  return {
    source: { kind: "typed" },
    unit: "Pa",
    points: points.map(([t, p]): [number, number] => [t, Math.round(p + noise.normal(5))]),
    ...times,
    vent: story.vent === "plug" ? { by: "plug" } : { by: "command", at: times.ventShutAt, seconds: 90 },
    fuelLevel,
    ...(required ? { required } : {}),
    idled: true,
    ambient,
    temperature,
    ...change,
  };
}
