import type { CheckContext } from "@/core/checks";
import type { BoostRecord } from "@/core/checks/boost";
import type { CapRecord } from "@/core/checks/cap";
import type { EvapSmokeRun } from "@/core/checks/evap-smoke";
import type { ProbeRecord } from "@/core/checks/probe";
import type { SmokeRun } from "@/core/checks/smoke";
import type { TrimSurvey } from "@/core/checks/trims";
import { DIESEL, NATURAL, TWO_BANKS, VAPOUR } from "@/core/core.fixture";
import { airDensity, STANDARD_DENSITY, standardFlow } from "@/core/gas/air";
import { holeArea, massFlux, orificeFlow, SHARP_EDGED } from "@/core/gas/orifice";
import type { Bodies } from "@/core/journal";
import { type Noise, seededNoise } from "@/core/maths/random";
import { toSi } from "@/core/units";
import { entryZone, reachOf, usualSetup, type VehicleFacts, type VehicleRecord } from "@/core/vehicle";
import { nozzle } from "./boost-trial";

const AMBIENT = 101325;
const ROOM = 293.15;

export interface Place {
  readonly joint: string;
  /** Hole while it is faulty, m */
  readonly diameter: number;
  /** The one bank that it shows on; both where absent */
  readonly bank?: 1 | 2;
  /** Gauge pressure above which it opens; it is open at any where absent */
  readonly opensAt?: number;
}
export interface Car {
  readonly facts: VehicleFacts;
  readonly circuit: "intake" | "evap" | "charge";
  /** As somebody described it who did not know it yet */
  readonly early?: VehicleRecord;
  /** Conditions the complaint comes under */
  readonly symptoms?: Bodies["story"]["symptoms"];
  readonly codes: Bodies["codes"]["codes"];
  readonly places: readonly Place[];
  readonly entries: readonly string[];
}

/** Faults of 1.2 to 3 times what must be caught: 1.0 mm in the manifold (1.4 on the larger engine), 2.0 mm at the crankcase. */
export const CARS: readonly Car[] = [
  {
    facts: NATURAL,
    circuit: "intake",
    early: { fuel: "petrol", displacement: NATURAL.displacement },
    codes: [{ code: "P0171", status: "current", frame: { rpm: 2500, load: 42, coolant: { value: 90, unit: "°C" } } }],
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
    early: { fuel: "petrol", displacement: TWO_BANKS.displacement },
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
  {
    facts: { ...DIESEL, fitted: ["booster", "pcv"] },
    circuit: "charge",
    codes: [{ code: "P0299", status: "stored" }],
    symptoms: ["low-power"],
    places: [
      { joint: "cold-pipe-split", diameter: 11e-3, opensAt: 85e3 },
      { joint: "cooler-outlet", diameter: 12e-3, opensAt: 60e3 },
      { joint: "hot-pipe-clamp", diameter: 12e-3, opensAt: 95e3 },
    ],
    entries: [],
  },
];

/** Most that is asked of the charge side, Pa gauge. */
export const FULL_BOOST = 115e3;

/** A log up to so much boost asked for, Pa gauge: what leaks takes from what is delivered, and from what the engine gets of the meter's air. */
export function boostLog(car: Car, faulty: readonly Place[], most: number, sd: number, noise: Noise): BoostRecord {
  const displacement = toSi(car.facts.displacement);
  const kPa = (pa: number) => ({ value: Math.round(pa / 100) / 10, unit: "kPa" as const, kind: "absolute" as const });
  const points = [1500, 1800, 2100, 2400, 2700, 3000].flatMap((rpm) =>
    [0, 0.02, 0.55, 0.8, 1].map((share) => {
      const asked = AMBIENT + share * most;
      const open = faulty.filter((p) => asked - AMBIENT > (p.opensAt ?? 0));
      const charge = open.length > 0 ? AMBIENT + 0.7 * (asked - AMBIENT) : asked;
      const temperature = share > 0.1 ? 318 : 303;
      const breathed = ((share > 0.1 ? 0.872 : 0.88) * charge * displacement * rpm) / (287.05 * temperature * 120);
      const lost = open.reduce((sum, p) => sum + 0.61 * holeArea(p.diameter) * nozzle(charge, AMBIENT, temperature), 0);
      return {
        rpm,
        map: kPa(charge + noise.normal(300 * sd)),
        charge: kPa(charge + 1000 + noise.normal(300 * sd)),
        ...(share > 0.1 ? { asked: kPa(asked + 1000) } : {}),
        maf: { value: Math.round((breathed + lost) * (1 + noise.normal(0.004 * sd)) * 1e5) / 100, unit: "g/s" as const },
        chargeTemperature: { value: temperature - 273.15, unit: "°C" as const },
      };
    }),
  );
  return {
    source: { kind: "typed" },
    points,
    keyOn: { map: kPa(AMBIENT), charge: kPa(AMBIENT + 200) },
    egr: "shut",
    ambient: { value: 1013.25, unit: "hPa", kind: "absolute" },
    warm: true,
  };
}

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
  // Where the engine is described with one bank, one name stands for the joints of both.
  const named = (joint: string) => (layout.joints.some((j) => j.id === joint) ? joint : joint.replace(/-[12]$/, ""));
  const leaks = faulty.map((p) => ({ ...p, joint: named(p.joint) })).filter((p) => reach.tested.some((j) => j.id === p.joint));
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
