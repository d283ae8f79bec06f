import { smokeRun } from "../core.fixture";
import { simulatePulldown, simulateTank } from "../gas/simulated-tank.fixture";
import { seededNoise } from "../maths/random";
import type { Quantity } from "../units";
import type { CapRecord } from "./cap";
import type { DecayRecord } from "./decay";
import type { EvapSmokeRun } from "./evap-smoke";
import type { PulldownRecord } from "./pulldown";
import { meter } from "./records.fixture";
import type { TankSensorRecord } from "./tank-sensor";
import type { VentPathRecord } from "./vent-path";

/** Good records of the vapour system's checks, made up for the tests: every trap and fault is one change away. */
const ambient: Quantity = { value: 1013.25, unit: "hPa", kind: "absolute" };
const temperature: Quantity = { value: 20, unit: "°C" };
export const REQUIRED = { size: { value: 0.508, unit: "mm" } as Quantity, source: "criteria of P0442" };

/** A sound run from the service port, smoke shown in every zone; the ball settles at `flow` L/min. */
export function evapSmokeRun(flow = 0, change: Partial<EvapSmokeRun> = {}): EvapSmokeRun {
  return {
    ...smokeRun(flow),
    entry: "service-port",
    blocked: ["vent-valve"],
    heldOpen: [],
    arrivals: (["canister", "tank", "neck"] as const).map((zone, i) => ({ zone, at: 30 + 10 * i })),
    vent: { by: "command", at: -5, seconds: 180 },
    fuelLevel: 50,
    required: REQUIRED,
    gas: "inert",
    capOffs: [],
    ...change,
  };
}

/** A tank of 33 L with a hole (mm), held and shut off; 10 inH2O, read every 5 s on a gauge of 0.01 inH2O. */
export function decayRecord(hole: number, change: Partial<DecayRecord> = {}, reference?: number): DecayRecord {
  const noise = seededNoise(7);
  const run = (extraHole: number) => {
    const { times, pressures } = simulateTank({
      volume: 33.5e-3,
      diameter: hole * 1e-3,
      extraHole,
      wallTime: 25,
      held: 120,
      drift: 0.05,
      pressure: 2490,
      ambient: 101325,
      temperature: 293.15,
      duration: 150,
      every: 5,
    });
    return times.map((t, i): [number, number] => [
      t,
      Math.round(((pressures[i] as number) / 249.0889 + noise.normal(0.005)) * 100) / 100,
    ]);
  };
  return {
    source: { kind: "typed" },
    entry: "service-port",
    blocked: ["vent-valve", "vent-filter"],
    heldOpen: [],
    vent: { by: "plug" },
    fuelLevel: 50,
    required: REQUIRED,
    touchedBefore: [],
    adapterLeaks: false,
    ambient,
    temperature,
    unit: "inH2O",
    held: 120,
    samples: run(0),
    ...(reference ? { reference: { diameter: { value: reference, unit: "mm" }, samples: run(reference * 1e-3) } } : {}),
    instrument: { name: "Low gauge", division: { value: 0.01, unit: "inH2O" }, zero: { value: 0, unit: "inH2O" } },
    ...change,
  };
}

/** A trace of a sound system, or with what `truth` changes; sizes in m. */
export function pulldownTrace(
  truth: Partial<Parameters<typeof simulatePulldown>[0]> = {},
  change: Partial<PulldownRecord> = {},
): PulldownRecord {
  const phases = { ventShutAt: 10, purgeOpenAt: 25, purgeShutAt: 50, ventOpenAt: 95, end: 115 };
  const noise = seededNoise(9);
  const points = simulatePulldown({
    volume: 33.5e-3,
    leak: 0,
    ventShut: 0,
    ventOpen: 8e-3,
    purgeOpen: 0.35e-3,
    purgeShut: 0,
    manifold: 35e3,
    ambient: 101325,
    temperature: 293.15,
    wallTime: 25,
    phases,
    every: 1,
    ...truth,
  });
  const { end: _, ...times } = phases;
  return {
    source: { kind: "typed" },
    unit: "Pa",
    points: points.map(([t, p]): [number, number] => [t, Math.round(p + noise.normal(4))]),
    ...times,
    vent: { by: "command", at: 10, seconds: 120 },
    fuelLevel: 50,
    required: REQUIRED,
    idled: true,
    ambient,
    temperature,
    ...change,
  };
}

export const capRecord = (change: Partial<CapRecord> = {}): CapRecord => ({
  part: "fitted",
  start: 30,
  end: 29.8,
  seconds: 10,
  unit: "inH2O",
  testerProved: true,
  seal: "whole",
  instrument: { name: "Cap tester", division: { value: 0.2, unit: "inH2O" }, zero: { value: 0, unit: "inH2O" } },
  ...change,
});

export const tankSensorRecord = (change: Partial<TankSensorRecord> = {}): TankSensorRecord => ({
  keyOn: true,
  capOff: true,
  zero: { value: 1.53, unit: "V" },
  second: { pressure: { value: 2, unit: "kPa", kind: "gauge" }, signal: { value: 2.71, unit: "V" } },
  instrument: meter({}),
  ...change,
});

const blown = (part: VentPathRecord["parts"][number]["part"], back: number) => ({
  part,
  flow: { value: 30, unit: "L/min" } as Quantity,
  back: { value: back, unit: "Pa", kind: "gauge" } as Quantity,
});

export const ventPathRecord = (
  back: readonly number[] = [40, 60, 120, 80],
  change: Partial<VentPathRecord> = {},
): VentPathRecord => ({
  nozzle: "not-tried",
  parts: (["vent-filter", "vent-valve", "canister-joint", "fill-limit-valve"] as const).flatMap((part, i) =>
    back[i] === undefined ? [] : [blown(part, back[i])],
  ),
  ambient,
  temperature,
  ...change,
});
