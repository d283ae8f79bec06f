import type { SmokeRun } from "@/core/checks/smoke";
import { SmokeFill } from "@/core/practice/smoke-fill";
import type { Machine } from "@/core/shop/settings";
import { fromSi, toSi } from "@/core/units";
import type { Layout, ZoneId } from "@/core/vehicle";
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
  /** Gauge with the hose clamped, inH2O */
  proof?: number;
}

/** Ball and gauge of a fill as they are read off every five seconds. @param stops when nothing is pushed any more, s. */
export function readOff(fill: SmokeFill, seconds: number, stops = Number.POSITIVE_INFINITY): [number, number, number][] {
  const samples: [number, number, number][] = [];
  let pushing = true;
  for (let t = 1; t <= seconds; t += 5) {
    if (pushing && t > stops) {
      fill.advance(Math.max(stops, 0));
      fill.stop();
      pushing = false;
    }
    fill.advance(t);
    const { flow, pressure } = fill.read();
    samples.push([t, Math.round(flow * 6e4 * 10) / 10, Math.round((pressure / 249.0889) * 10) / 10]);
  }
  return samples;
}

/** Where a hole is that no job asks the place of. */
const SOMEWHERE = "manifold-gasket";

/** A smoke run as the machine, the engine's valves and its holes make it, read off the ball every few seconds. */
export function simulateSmoke(engine: HiddenEngine, layout: Layout, story: SmokeStory): SmokeRun {
  const machine = MACHINES[0] as Machine;
  const { hole, holeAt = SOMEWHERE, exhaustHole = 0, valvesPass } = engine;
  const holes = [
    { joint: holeAt, diameter: hole },
    { joint: holeAt, diameter: exhaustHole },
  ].filter((one) => one.diameter > 0);
  const push = { ratedPressure: toSi(machine.ratedPressure), maxFlow: toSi(machine.maxFlow) };
  const fill = new SmokeFill(layout, story, push, holes, engine, story.seed, valvesPass);
  const stops = story.heaterOnAt === undefined ? undefined : story.heaterOnAt + machine.autoOff;
  const samples = readOff(fill, story.seconds, stops);
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

/** Smoke by the metered duct, with what closes and opens it, and where it came out. */
export const throughDuct = (seed: number, seen: string[], more: Partial<SmokeStory> = {}): SmokeStory => ({
  seed,
  entry: "air-meter",
  blocked: ["tailpipe"],
  heldOpen: ["throttle"],
  arrivals: ["metered-duct", "manifold", "crankcase", "breather"],
  seen,
  seconds: 96,
  ...more,
});
