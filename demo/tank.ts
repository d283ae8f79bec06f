import type { DecayRecord } from "@/core/checks/decay";
import { type EvapSetup, requiredOf } from "@/core/checks/evap-fields";
import type { EvapSmokeRun } from "@/core/checks/evap-smoke";
import type { PulldownRecord } from "@/core/checks/pulldown";
import { decayTrace, pulldownTrace, type Tank } from "@/core/gas/network/tank";
import { seededNoise } from "@/core/maths/random";
import { SmokeFill } from "@/core/practice/smoke-fill";
import { fromSi, toSi } from "@/core/units";
import {
  entryZone,
  type FillSetup,
  type Layout,
  layoutOf,
  reachOf,
  requiredLeakOf,
  usualSetup,
  type VehicleFacts,
  vapourVolume,
  type ZoneId,
} from "@/core/vehicle";
import { inUse } from "./readings";
import { MACHINES, readOff } from "./smoke";

/** The hidden truth of a made-up vapour system. SI; a hole of 0 is none. */
export interface HiddenTank {
  readonly leaks: readonly { readonly joint: string; readonly diameter: number }[];
  /** Percent of the rated volume */
  readonly fuelLevel: number;
  /** Holes of the vent shut and open, of purge open and shut */
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

const tankOf = ({ facts, tank }: VapourCar, leak: number): Tank => ({
  ...tank,
  leak,
  volume: vapourVolume(facts.evap as NonNullable<VehicleFacts["evap"]>, tank.fuelLevel / 100).volume,
});

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

/** A hose on a port that lets nothing in: one shut space of a third of a litre. */
const hoseOf = (layout: Layout, setup: FillSetup): Layout => ({
  ...layout,
  zones: layout.zones.filter((z) => z.id === entryZone(layout, setup)).map((z) => ({ ...z, volume: 3e-4 })),
  joints: layout.joints.filter((j) => j.id === setup.entry),
});

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
    /** Gauge with the hose clamped, inH2O */
    proof?: number;
  },
  change: Partial<EvapSmokeRun> = {},
): EvapSmokeRun {
  const machine = MACHINES[0] as (typeof MACHINES)[number];
  const setup = recordedSetup(car, story.entry);
  const layout = layoutOf(car.facts);
  const push = { ratedPressure: toSi(machine.ratedPressure), maxFlow: toSi(machine.maxFlow) };
  // Past a core that is not pressed there is only the hose.
  const into = story.coreShut ? hoseOf(layout, setup) : layout;
  const fill = new SmokeFill(into, setup, push, story.coreShut ? [] : car.tank.leaks, car.tank, story.seed);
  const samples = readOff(fill, story.seconds);
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
  const tank = tankOf(car, leakOf(car, setup));
  const run = (reference: number) => {
    const drift = noise.uniform(-0.08, 0.08);
    return decayTrace(tank, { pressure: 2490, held: 120, duration: 150, every: 5, drift, reference }).map(
      ([t, gauge]): [number, number] => [t, Math.round((gauge / 249.0889 + noise.normal(0.006)) * 100) / 100],
    );
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
  const phases = { ventShutAt: 8, purgeOpenAt: 20, purgeShutAt: 42 };
  const { points } = pulldownTrace(
    tankOf(car, leakOf(car)),
    { ...tank, ventShut: story.vent === "plug" ? 0 : tank.ventShut, manifold: 34e3 },
    { ...phases, holds: 40, relieves: 20 },
  );
  const times = { ...phases, ventOpenAt: 82 };
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
