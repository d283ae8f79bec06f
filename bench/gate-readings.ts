import type { CheckContext } from "@/core/checks";
import type { CapRecord } from "@/core/checks/cap";
import type { EvapSmokeRun } from "@/core/checks/evap-smoke";
import type { ProbeRecord } from "@/core/checks/probe";
import type { SmokeRun } from "@/core/checks/smoke";
import type { TrimSurvey } from "@/core/checks/trims";
import { NATURAL, TWO_BANKS, VAPOUR } from "@/core/core.fixture";
import { airDensity, STANDARD_DENSITY, standardFlow } from "@/core/gas/air";
import { holeArea, massFlux, orificeFlow, SHARP_EDGED } from "@/core/gas/orifice";
import type { Bodies } from "@/core/journal";
import { type Noise, seededNoise } from "@/core/maths/random";
import { toSi } from "@/core/units";
import { entryZone, reachOf, usualSetup, type VehicleFacts } from "@/core/vehicle";

const AMBIENT = 101325;
const ROOM = 293.15;

export interface Place {
  readonly joint: string;
  /** Hole while it is faulty, m */
  readonly diameter: number;
  /** The one bank that it shows on; both where absent */
  readonly bank?: 1 | 2;
}
export interface Car {
  readonly facts: VehicleFacts;
  readonly circuit: "intake" | "evap";
  readonly codes: Bodies["codes"]["codes"];
  readonly places: readonly Place[];
  readonly entries: readonly string[];
}

/** Faults of 1.2 to 3 times what must be caught: 1.0 mm in the manifold (1.4 on the larger engine), 2.0 mm at the crankcase. */
export const CARS: readonly Car[] = [
  {
    facts: NATURAL,
    circuit: "intake",
    codes: [{ code: "P0171", status: "current" }],
    places: [
      { joint: "pcv-hose", diameter: 1.25e-3 },
      { joint: "vacuum-branch", diameter: 1.8e-3 },
      { joint: "manifold-gasket", diameter: 2.2e-3 },
      { joint: "injector-seals", diameter: 1.3e-3 },
      { joint: "oil-cap", diameter: 2.5e-3 },
    ],
    entries: ["air-meter", "gauge-port"],
  },
  {
    facts: NATURAL,
    circuit: "intake",
    codes: [],
    places: [
      { joint: "duct-split", diameter: 3e-3 },
      { joint: "breather-duct", diameter: 2.6e-3 },
      { joint: "throttle-gasket", diameter: 1.4e-3 },
    ],
    entries: ["air-meter"],
  },
  {
    facts: TWO_BANKS,
    circuit: "intake",
    codes: [{ code: "P0174", status: "stored" }],
    places: [
      { joint: "manifold-gasket-2", diameter: 1.6e-3, bank: 2 },
      { joint: "manifold-gasket-1", diameter: 1.6e-3, bank: 1 },
      { joint: "vacuum-branch", diameter: 2.4e-3 },
      { joint: "plenum-crack", diameter: 2e-3 },
    ],
    entries: ["air-meter"],
  },
  {
    facts: VAPOUR,
    circuit: "evap",
    codes: [{ code: "P0442", status: "stored", criteria: { leak: { value: 0.508, unit: "mm" } } }],
    places: [
      { joint: "tank-flange", diameter: 0.62e-3 },
      { joint: "canister-joint", diameter: 0.9e-3 },
      { joint: "purge-line-joint", diameter: 0.75e-3 },
      { joint: "filler-cap", diameter: 0.8e-3 },
    ],
    entries: ["service-port", "filler-cap"],
  },
];

const FLOWS = [2.6, 5.2, 9.4, 20, 48];
const PRESSURES = [33, 30, 30, 62, 94];
const SPEEDS = [720, 1450, 2400, 2600, 3000];

/** Total trims of an engine with these holes at the usual points; noise in percent. */
export function survey(car: Car, faulty: readonly Place[], points: readonly number[], sd: number, noise: Noise): TrimSurvey {
  const size = toSi(car.facts.displacement) / 1.6e-3;
  const { banks } = car.facts;
  return {
    source: { kind: "typed" },
    ambient: { value: 1013.25, unit: "hPa", kind: "absolute" },
    intakeTemperature: { value: 20, unit: "°C" },
    points: points.map((i) => {
      const map = (PRESSURES[i] as number) * 1e3;
      const air = ((FLOWS[i] as number) * size) / 1e3;
      const unmetered = (bank: number) =>
        faulty
          .filter((p) => !p.joint.startsWith("duct") && (p.bank === undefined || p.bank === bank))
          .reduce(
            (q, p) =>
              q + (SHARP_EDGED * holeArea(p.diameter) * massFlux(AMBIENT, map, ROOM)) / (p.bank === undefined ? banks : 1),
            0,
          );
      return {
        rpm: SPEEDS[i] as number,
        maf: { value: Math.round(air * 1e5) / 100, unit: "g/s" as const },
        map: { value: map / 1e3, unit: "kPa" as const, kind: "absolute" as const },
        banks: Array.from({ length: banks }, (_, b) => {
          const lean = (100 * unmetered(b + 1)) / (air / banks);
          return { short: 0, long: Math.round((lean + noise.normal(sd)) * 10) / 10 };
        }),
      };
    }),
  };
}

export interface RunAsked {
  readonly entry: string;
  readonly shown: boolean;
  readonly timedOut: boolean;
  readonly section?: string;
}

/** A smoke run as it would read, and where smoke comes out; eyes miss a smaller leak beside a larger one now and then. */
export function smoke(faulty: readonly Place[], asked: RunAsked, sd: number, noise: Noise, context: CheckContext): SmokeRun {
  const { layout } = context;
  const usual = usualSetup(layout, asked.entry);
  const setup = asked.section ? { ...usual, blocked: [...usual.blocked, asked.section] } : usual;
  const reach = reachOf(layout, setup);
  const leaks = faulty.filter((p) => reach.tested.some((j) => j.id === p.joint));
  const valves = reach.zones.includes("cylinders") ? 1.7e-3 : 0;
  const rated = 13 * 249.0889;
  const most = 12e-3 / 60;
  const flowAt = (pressure: number) =>
    [...leaks.map((l) => l.diameter), valves].reduce(
      (sum, diameter) =>
        sum +
        standardFlow(orificeFlow({ upstream: AMBIENT + pressure, downstream: AMBIENT, temperature: ROOM, diameter }).massFlow),
      0,
    );
  let pressure = rated;
  while (flowAt(pressure) > most) pressure *= 0.99;
  const settled = flowAt(pressure);
  const end = 150;
  const samples = Array.from({ length: 26 }, (_, i): [number, number, number] => {
    const t = 1 + 6 * i;
    const rush = Math.exp(-t / 10);
    const flow = settled + (most - settled) * rush + noise.normal(sd * 0.004 * most);
    const p = pressure * (1 - rush) + noise.normal(sd * 0.004 * rated);
    const scale = flow / Math.sqrt(airDensity(AMBIENT + p, ROOM) / STANDARD_DENSITY);
    return [t, Math.max(0, Math.round(scale * 6e6) / 100), Math.max(0, Math.round(p / 24.9) / 10)];
  });
  const seen = leaks
    .toSorted((a, b) => b.diameter - a.diameter)
    .filter((_, i) => i === 0 || sd === 0 || noise.uniform() < 0.9)
    .map((l) => ({ joint: l.joint, at: 100 }));
  const start = entryZone(layout, setup);
  const zones = reach.zones.filter((z) => z !== start && !reach.behindEngine.includes(z));
  return {
    machine: {
      name: "Fen smoker",
      ratedPressure: { value: 13, unit: "inH2O", kind: "gauge" },
      maxFlow: { value: 12, unit: "L/min" },
      autoOff: 300,
    },
    proof: { pressure: { value: 12.7, unit: "inH2O", kind: "gauge" }, ballAtBottom: true, smokeSeen: true },
    ...setup,
    heaterOnAt: asked.timedOut ? -250 : -60,
    units: { flow: "L/min", pressure: "inH2O" },
    samples,
    arrivals: asked.shown ? zones.map((zone, i) => ({ zone, at: 30 + i })) : [],
    seen: asked.timedOut ? [] : seen,
    noSmokeOutside: asked.timedOut || seen.length === 0,
    cameUndone: [],
    touchedBefore: [],
    adapterLeaks: false,
    draughtOrGlare: false,
    zeroed: true,
    ambient: { value: 1013.25, unit: "hPa", kind: "absolute" },
    temperature: { value: 20, unit: "°C" },
    endedAt: end,
  };
}

export const vapourRun = (run: SmokeRun): EvapSmokeRun => ({
  ...run,
  vent: { by: "plug" },
  fuelLevel: 45,
  required: { size: { value: 0.508, unit: "mm" }, source: "criteria of P0442" },
  gas: "inert",
  capOffs: [],
});

export const capTest = (leaks: boolean, sd: number, noise: Noise): CapRecord => ({
  part: "fitted",
  start: 30,
  end: Math.max(0, Math.round((leaks ? 6 : 29.8 + noise.normal(0.05 * sd)) * 10) / 10),
  seconds: 12,
  unit: "inH2O",
  testerProved: true,
  seal: "whole",
  instrument: { name: "Cap tester", division: { value: 0.2, unit: "inH2O" }, zero: { value: 0, unit: "inH2O" } },
});

export const probe = (spots: readonly string[], faulty: readonly Place[]): ProbeRecord => ({
  agent: "gas",
  source: { kind: "typed" },
  closedLoop: true,
  taps: spots.map((joint) => {
    const drinks = faulty.some((p) => p.joint === joint);
    return { joint, typed: { trimBefore: 12, trimAfter: drinks ? 2 : 12, rpmBefore: 740, rpmAfter: drinks ? 810 : 742 } };
  }),
});

/** Readings drawn from a pool, so that ten thousand histories do not fit ten thousand surveys each anew. */
const POOL = 8;
const pools = new Map<string, object[]>();
export function drawn(key: string, sd: number, noise: Noise, make: (noise: Noise) => object): object {
  const name = `${key} ${sd}`;
  const pool = pools.get(name) ?? [];
  pools.set(name, pool);
  const i = sd === 0 ? 0 : Math.floor(noise.uniform(0, POOL));
  pool[i] ??= make(seededNoise(1000 * i + key.length));
  return pool[i];
}
