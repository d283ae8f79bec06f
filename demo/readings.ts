import type { AirflowRecord } from "@/core/checks/airflow";
import type { ChainRecord } from "@/core/checks/chain";
import type { CrankcaseReading } from "@/core/checks/crankcase";
import type { InstrumentUse } from "@/core/checks/fields";
import type { HoldRecord } from "@/core/checks/hold";
import type { ValveRecord, ValveState } from "@/core/checks/valve";
import { holeArea, massFlux, SHARP_EDGED } from "@/core/gas/orifice";
import { type Noise, seededNoise } from "@/core/maths/random";
import type { Driving } from "@/core/practice/engine-truth";
import { leftIn } from "@/core/practice/readers/bay";
import type { Instrument } from "@/core/shop/settings";
import { fromSi } from "@/core/units";
import type { DriveRow } from "./drive";
import { type HiddenEngine, standsAt } from "./engine";

/** The garage's gauges and meters. */
export const INSTRUMENTS: readonly Instrument[] = [
  {
    id: "pump",
    name: "Hand pump gauge",
    division: { value: 0.1, unit: "inHg" },
    end: { value: 30, unit: "inHg" },
    reads: "vacuum",
  },
  { id: "manometer", name: "Water manometer", division: { value: 0.2, unit: "hPa" }, end: { value: 60, unit: "hPa" } },
  { id: "low", name: "Low gauge, 0 to 20 inH2O", division: { value: 0.02, unit: "inH2O" }, end: { value: 20, unit: "inH2O" } },
  {
    id: "cap",
    name: "Cap tester",
    division: { value: 0.2, unit: "inH2O" },
    end: { value: 60, unit: "inH2O" },
    reads: "pressure",
  },
  { id: "meter", name: "Volt meter", division: { value: 0.01, unit: "V" }, end: { value: 60, unit: "V" } },
  {
    id: "exhaust",
    name: "Exhaust gauge",
    division: { value: 0.2, unit: "kPa" },
    end: { value: 100, unit: "kPa" },
    reads: "pressure",
  },
  {
    id: "boost",
    name: "Test gauge of the regulator",
    division: { value: 0.02, unit: "bar" },
    end: { value: 2.5, unit: "bar" },
    reads: "pressure",
  },
];

/** An instrument in use, at zero within its division. */
export const inUse = (id: string): InstrumentUse => {
  const { name, division, end } = INSTRUMENTS.find((i) => i.id === id) as Instrument;
  return { name, division, zero: { value: 0, unit: division.unit }, ...(end ? { end } : {}) };
};

const AMBIENT = 100.6e3;
const TEMPERATURE = 290;
const INHG = 3386.389;
const tenth = (x: number) => Math.round(x * 10) / 10;

/** Idle with taps of enrichment gas: what the hole drinks makes the mixture rich, and closed loop takes fuel away. */
export function recordProbe(
  engine: HiddenEngine,
  taps: readonly { readonly at: number; readonly drinks: boolean }[],
  seconds: number,
  seed: number,
): DriveRow[] {
  const noise = seededNoise(seed);
  const idle = standsAt(engine);
  // Gas travels the runner for two seconds, is burnt for four, and leaves the trims over two more.
  const dose = (t: number) =>
    taps
      .filter((tap) => tap.drinks && t > tap.at + 1.8)
      .reduce((sum, tap) => {
        const age = t - tap.at - 1.8;
        return sum + (1 - Math.exp(-age / 0.7)) * Math.exp(-Math.max(0, age - 4) / 2);
      }, 0);
  return Array.from({ length: Math.ceil(seconds * 4) }, (_, i): DriveRow => {
    const t = i / 4;
    const d = dose(t);
    return {
      seconds: t,
      rpm: Math.round(idle.rpm + 48 * d + noise.normal(6)),
      maf: idle.meter * 1000 * (1 + noise.normal(0.01)),
      map: idle.map / 1000 + noise.normal(0.15),
      charge: engine.ambient / 1000,
      coolant: 91,
      intake: 17,
      barometer: engine.ambient / 1000,
      closedLoop: true,
      trims: idle.trims.map((total) => {
        const step = (percent: number) => Math.round(percent / 0.78125) * 0.78125;
        const hunting = 0.008 * Math.sin((2 * Math.PI * t) / 2.6) + noise.normal(0.006);
        return { short: step(100 * (0.22 * total - 0.085 * d + hunting)), long: step(78 * total) };
      }),
    };
  });
}

/** Vacuum in a closed part that a hole lets air into, read off a gauge. */
function heldVacuum(hole: number, volume: number, start: number, seconds: number, noise: Noise): number {
  const left = leftIn({ ambient: AMBIENT, temperature: TEMPERATURE }, volume, hole, -start * INHG, seconds);
  return Math.max(0, Math.round((-left / INHG + noise.normal(0.03)) * 10) / 10);
}

/** A part on the hand pump: holes left alone and while wiggled, m; its volume, m³. */
export function holdOn(
  joint: string,
  part: HoldRecord["part"],
  holes: { readonly still: number; readonly wiggled: number },
  seed: number,
  volume = 60e-6,
): HoldRecord {
  const noise = seededNoise(seed);
  const watch = (hole: number, times: readonly number[]) =>
    times.map((t): [number, number] => [t, t === 0 ? 20 : heldVacuum(hole, volume, 20, t, noise)]);
  return {
    joint,
    part,
    strokes: 2,
    moved: true,
    freeByHand: true,
    unit: "inHg",
    still: watch(holes.still, [0, 30, 60]),
    wiggled: watch(holes.wiggled, [0, 20, 40]),
    instrument: inUse("pump"),
  };
}

/** A valve with a worn seat of so large a hole, m; energised it opens wide. */
export function valveWith(
  joint: string,
  seat: number,
  part: ValveRecord["part"],
  seed: number,
  temperature: ValveRecord["temperature"] = "warm",
): ValveRecord & { readonly rest: ValveState; readonly energised: ValveState } {
  const noise = seededNoise(seed);
  const state = (hole: number, seconds: number): ValveState => ({
    start: 18,
    end: heldVacuum(hole, 40e-6, 18, seconds, noise),
    seconds,
  });
  return {
    joint,
    rests: "closed",
    power: "12v",
    unplugged: true,
    clicked: true,
    part,
    temperature,
    unit: "inHg",
    rest: state(seat, 60),
    energised: state(3e-3, 5),
    instrument: inUse("pump"),
  };
}

/**
 * Idle and a pull, with a filter and duct of so many times a sound one's resistance, and a hole behind the meter, m.
 */
export function airflowOf(
  engine: HiddenEngine,
  intake: { readonly intakeBlock?: number; readonly ductHole?: number },
  seed: number,
): AirflowRecord {
  const noise = seededNoise(seed);
  const point = (state: "idle" | "wide-open", driving: Driving) => {
    const { rpm, meter, map } = standsAt({ ...engine, ...intake }, driving);
    return {
      state,
      rpm: Math.round(rpm + noise.normal(8)),
      maf: { value: Math.round(meter * 1e5 * (1 + noise.normal(0.01))) / 100, unit: "g/s" as const },
      map: { value: tenth(map / 1000 + noise.normal(0.1)), unit: "kPa" as const, kind: "absolute" as const },
    };
  };
  return {
    source: { kind: "typed" },
    points: [point("idle", {}), point("wide-open", { road: { rpm: 4500 } })],
    ambient: fromSi(engine.ambient, "hPa", "absolute"),
    intakeTemperature: { value: Math.round(engine.temperature - 273.15), unit: "°C" },
    warm: true,
  };
}

/**
 * Crankcase of an idling engine: blow-by and what leaks in against what the PCV passage draws off. A whole diaphragm
 * throttles the passage; a torn one lets the manifold draw through all of it.
 * @param passage what the PCV valve leaves open, m; @param opening all that lets outside air in, m.
 */
export function crankcaseOf(passage: number, opening: number, seed: number): CrankcaseReading {
  const noise = seededNoise(seed);
  const blowBy = 0.12e-3;
  const drawn = SHARP_EDGED * holeArea(passage) * massFlux(AMBIENT, 33e3, TEMPERATURE);
  let [low, high] = [AMBIENT - 12e3, AMBIENT + 5e3];
  for (let i = 0; i < 60; i++) {
    const p = (low + high) / 2;
    const leaksIn = SHARP_EDGED * holeArea(opening) * massFlux(AMBIENT, p, TEMPERATURE);
    if (leaksIn + blowBy > drawn) low = p;
    else high = p;
  }
  const hPa = ((low + high) / 2 - AMBIENT) / 100;
  return {
    idle: { value: Math.round((hPa + noise.normal(0.1)) * 5) / 5, unit: "hPa", kind: "gauge" },
    rpm: 740,
    warm: true,
    sealed: true,
    instrument: inUse("manometer"),
  };
}

/** A flap chain with its control wire at so many ohms (a good one: 0.3); the coil has 28 Ω. */
export function chainWith(wire: number, seed: number): ChainRecord {
  const noise = seededNoise(seed);
  const battery = 14.1 + noise.normal(0.02);
  const across = (battery * 28) / (28 + wire);
  const pulls = across > 9;
  const volts = (value: number) => ({ value: Math.round(value * 100) / 100, unit: "V" as const });
  const vacuum = (value: number) => ({
    value: Math.max(0, Math.round(value * 5) / 5),
    unit: "inHg" as const,
    kind: "vacuum" as const,
  });
  return {
    device: "Runner flaps",
    links: {
      supply: vacuum(18.6 + noise.normal(0.1)),
      battery: volts(battery),
      control: volts(across),
      ...(pulls
        ? {
            outlet: vacuum(18.1 + noise.normal(0.1)),
            diaphragm: { start: 18, end: heldVacuum(6e-6, 60e-6, 18, 60, noise), seconds: 60, unit: "inHg" as const },
            shaft: true,
            movement: true,
            plate: true,
          }
        : {}),
    },
    instrument: inUse("pump"),
  };
}
