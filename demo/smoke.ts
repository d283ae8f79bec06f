import type { SmokeRun } from "@/core/checks/smoke";
import { airDensity, STANDARD_DENSITY, standardFlow } from "@/core/gas/air";
import { orificeFlow } from "@/core/gas/orifice";
import { settleTimeConstant } from "@/core/gas/vessel";
import { seededNoise } from "@/core/maths/random";
import type { Machine } from "@/core/shop/settings";
import { fromSi, toSi } from "@/core/units";
import { type Layout, reachOf, type ZoneId } from "@/core/vehicle";
import type { HiddenEngine } from "./engine";

/** Reference holes (inch) and the ball height that this cart shows with each at 13 inH2O, L/min on its scale. */
const CALIBRATION = [
  [0.02, 0.6],
  [0.04, 2.2],
  [0.06, 4.9],
  [0.08, 8.6],
  [0.094, 11.9],
] as const;

export const MACHINES: readonly Machine[] = [
  {
    id: "fen",
    name: "Fen smoker, cart 1",
    ratedPressure: { value: 13, unit: "inH2O", kind: "gauge" },
    maxFlow: { value: 12, unit: "L/min" },
    autoOff: 300,
    kind: "evap-safe",
    calibration: {
      on: "2026-08-14",
      pressure: { value: 13, unit: "inH2O", kind: "gauge" },
      points: CALIBRATION.map(([inch, flow]) => ({ diameter: { value: inch, unit: "in" }, height: flow })),
    },
    service: [
      { on: "2026-03-02", what: "fluid", note: "clean fluid, level to the mark" },
      { on: "2026-08-14", what: "check", note: "calibrated with the reference plate" },
    ],
  },
  {
    id: "reed",
    name: "Reed smoker, cart 2",
    ratedPressure: { value: 1, unit: "psi", kind: "gauge" },
    maxFlow: { value: 15, unit: "L/min" },
    autoOff: 600,
    kind: "low-pressure",
    service: [],
  },
];

/** Open engine valves as one hole, m: what most standing engines pass into the exhaust. */
const USUAL_VALVES = 1.9e-3;

export interface SmokeStory {
  seed: number;
  entry: string;
  blocked: string[];
  heldOpen: string[];
  arrivals: ZoneId[];
  seen: string[];
  /** s after which the heater had stopped; leaves the run void */
  heaterOnAt?: number;
  seconds: number;
  /** What the hose clamped showed, inH2O */
  proof?: number;
}

/** A smoke run as the machine, the engine's valves and the hole would make it, read off the ball every few seconds. */
export function simulateSmoke(engine: HiddenEngine, layout: Layout, story: SmokeStory): SmokeRun {
  const noise = seededNoise(story.seed);
  const machine = MACHINES[0] as Machine;
  const rated = toSi(machine.ratedPressure);
  const maxFlow = toSi(machine.maxFlow);
  const reach = reachOf(layout, story);
  // A hole of which the joint is known passes only where the fill gets at it.
  const hole = engine.manifoldHole;
  const open = hole && (!hole.joint || reach.tested.some((j) => j.id === hole.joint));
  const holes = [open ? hole.diameter : 0, reach.zones.includes("cylinders") ? (engine.valvesPass ?? USUAL_VALVES) : 0];
  const flowAt = (pressure: number) =>
    holes.reduce(
      (sum, diameter) =>
        sum +
        standardFlow(
          orificeFlow({
            upstream: engine.ambient + pressure,
            downstream: engine.ambient,
            temperature: engine.temperature,
            diameter,
          }).massFlow,
        ),
      0,
    );
  // The regulator holds its pressure until the pump gives all it has.
  let pressure = rated;
  while (flowAt(pressure) > maxFlow) pressure *= 0.99;
  const settled = flowAt(pressure);
  const tau = Math.max(4, 3 * settleTimeConstant({ volume: reach.volume, setPressure: rated, ambient: engine.ambient, maxFlow }));
  const stops = story.heaterOnAt === undefined ? Number.POSITIVE_INFINITY : story.heaterOnAt + machine.autoOff;
  const samples: [number, number, number][] = [];
  for (let t = 1; t <= story.seconds; t += 5) {
    const rush = Math.exp(-t / tau);
    const alive = t > stops ? Math.exp(-(t - stops) / 6) : 1;
    const flow = (settled + (maxFlow - settled) * rush) * alive + noise.normal(0.004 * maxFlow);
    const p = pressure * (1 - rush) * alive + noise.normal(0.004 * rated);
    // The ball floats higher or lower with the gas it floats in: its scale is true at standard density only.
    const scale = flow / Math.sqrt(airDensity(engine.ambient + p, engine.temperature) / STANDARD_DENSITY);
    samples.push([t, Math.round(Math.max(0, scale) * 6e4 * 10) / 10, Math.round((Math.max(0, p) / 249.0889) * 10) / 10]);
  }
  return {
    machine: { name: machine.name, ratedPressure: machine.ratedPressure, maxFlow: machine.maxFlow, autoOff: machine.autoOff },
    proof: { pressure: { value: story.proof ?? 12.6, unit: "inH2O", kind: "gauge" }, ballAtBottom: true, smokeSeen: true },
    entry: story.entry,
    blocked: story.blocked,
    heldOpen: story.heldOpen,
    heaterOnAt: story.heaterOnAt ?? -60,
    units: { flow: "L/min", pressure: "inH2O" },
    samples,
    arrivals: story.arrivals.map((zone, i) => ({ zone, at: 30 + 8 * i })),
    seen: story.seen.map((joint) => ({ joint, at: story.seconds - 20 })),
    noSmokeOutside: story.seen.length === 0,
    cameUndone: [],
    touchedBefore: [],
    adapterLeaks: false,
    draughtOrGlare: false,
    zeroed: true,
    ambient: fromSi(engine.ambient, "hPa", "absolute"),
    temperature: { value: Math.round(engine.temperature - 273.15), unit: "°C" },
    endedAt: story.seconds,
  };
}
