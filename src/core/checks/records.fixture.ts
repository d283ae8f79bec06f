import { seededNoise } from "../maths/random";
import type { Quantity } from "../units";
import type { AirflowRecord } from "./airflow";
import type { BackPressure } from "./back-pressure";
import type { BenchPart } from "./bench-part";
import type { BoostRecord } from "./boost";
import type { BorescopeRecord } from "./borescope";
import type { CabinRecord } from "./cabin";
import type { ChainRecord } from "./chain";
import type { CircuitRecord } from "./circuit";
import type { CrankcaseReading } from "./crankcase";
import type { EgrRecord } from "./egr";
import type { GasRecord } from "./exhaust-gas";
import type { FilterRecord } from "./filter";
import type { HoldRecord } from "./hold";
import type { OutputRecord } from "./output";
import type { PinchRecord } from "./pinch";
import type { PressureTest } from "./pressure-test";
import type { ProbeRecord } from "./probe";
import type { SecondaryAirRecord } from "./secondary-air";
import type { TrimPoint, TrimSurvey } from "./trims";
import type { VacuumReading } from "./vacuum";
import type { ValveRecord } from "./valve";

/** Good records of each kind, made up for the tests: every trap and fault is one change away. */
export const gauge = ({ zero = 0, division = 0.1 }: { zero?: number; division?: number }) => ({
  name: "Vacuum gauge",
  division: { value: division, unit: "inHg" } as Quantity,
  zero: { value: zero, unit: "inHg" } as Quantity,
});
export const meter = ({ zero = 0, division = 0.01 }: { zero?: number; division?: number }) => ({
  name: "Meter",
  division: { value: division, unit: "V" } as Quantity,
  zero: { value: zero, unit: "V" } as Quantity,
});
const volts = (value: number): Quantity => ({ value, unit: "V" });
const ambient: Quantity = { value: 1013.25, unit: "hPa", kind: "absolute" };

export const survey = (change: Partial<TrimPoint>): TrimSurvey => ({
  source: { kind: "typed" },
  ambient,
  intakeTemperature: { value: 20, unit: "°C" },
  points: [2.6, 9.4, 55].map((maf, i) => ({
    rpm: 700 + 900 * i,
    maf: { value: maf, unit: "g/s" },
    banks: [{ short: 0.5, long: 0 }],
    ...change,
  })),
});

/** A log of an idling engine with taps; the second spot reacts by `reaction` percent of trim, 2.5 s late. */
export function probe({
  taps = [15, 32, 49],
  reaction = -9,
  foot = false,
  openLoop = false,
  drift = 0,
  seed = 5,
  agent = "gas" as const,
}: {
  taps?: number[];
  reaction?: number;
  foot?: boolean;
  openLoop?: boolean;
  /** Percent a minute */
  drift?: number;
  seed?: number;
  agent?: ProbeRecord["agent"];
} = {}): ProbeRecord {
  const noise = seededNoise(seed);
  const time = Array.from({ length: 280 }, (_, i) => i * 0.25);
  const at = taps[1] as number;
  const pulse = (t: number) => (t < at + 2 ? 0 : Math.min(1, (t - at - 2) / 1) * Math.exp(-Math.max(0, t - at - 5) / 2));
  const spots = ["manifold-gasket", "vacuum-branch", "pcv-hose"];
  const all = taps.map((tap, i) => ({ joint: spots[i % 3] as string, at: tap }));
  return {
    agent,
    source: { kind: "log", file: "probe.csv", sha256: "0".repeat(64), extractor: 1 },
    closedLoop: !openLoop,
    taps: all,
    series: {
      time,
      trim: time.map((t) => 12 + (drift * t) / 60 + reaction * pulse(t) + 0.6 * Math.sin(2.4 * t) + noise.normal(0.4)),
      rpm: time.map((t) => 740 + 55 * pulse(t) * (reaction < 0 ? 1 : 0) + noise.normal(6) + (foot ? 250 * Math.sin(0.9 * t) : 0)),
      ...(foot ? { throttle: time.map((t) => 3 + 4 * (1 + Math.sin(0.9 * t))) } : {}),
      ...(openLoop ? { loop: time.map(() => 0) } : {}),
    },
  };
}

export const vacuum: VacuumReading = {
  vacuum: { value: 19.5, unit: "inHg", kind: "vacuum" },
  rpm: 740,
  needle: "steady",
  snap: "drops-and-overshoots",
  portSound: true,
  warm: true,
  instrument: gauge({}),
  ambient,
};
export const airflow: AirflowRecord = {
  source: { kind: "typed" },
  points: [
    { state: "idle", rpm: 740, maf: { value: 1.9, unit: "g/s" }, map: { value: 33, unit: "kPa", kind: "absolute" } },
    { state: "wide-open", rpm: 4500, maf: { value: 60, unit: "g/s" }, map: { value: 98, unit: "kPa", kind: "absolute" } },
  ],
  ambient,
  intakeTemperature: { value: 20, unit: "°C" },
  warm: true,
};
export const crankcase: CrankcaseReading = {
  idle: { value: -3, unit: "hPa", kind: "gauge" },
  rpm: 740,
  warm: true,
  sealed: true,
  instrument: { name: "Manometer", division: { value: 0.1, unit: "hPa" }, zero: { value: 0, unit: "hPa" } },
};
export const pinch: PinchRecord = {
  joint: "vacuum-branch",
  how: "pinch",
  blankProved: true,
  reads: "trim",
  before: 17,
  shut: 1.5,
  released: 16.4,
};
export const hold: HoldRecord = {
  joint: "booster-diaphragm",
  part: "actuator",
  strokes: 2,
  moved: true,
  freeByHand: true,
  unit: "inHg",
  still: [
    [0, 20],
    [60, 19.7],
  ],
  wiggled: [
    [0, 20],
    [40, 19.8],
  ],
  instrument: gauge({}),
};
export const valve: ValveRecord = {
  joint: "purge-valve",
  rests: "closed",
  power: "scan-tool",
  clicked: true,
  part: "fitted",
  temperature: "warm",
  unit: "inHg",
  rest: { start: 18, end: 17.8, seconds: 60 },
  energised: { start: 18, end: 0, seconds: 3 },
  instrument: gauge({}),
};
export const output: OutputRecord = {
  joint: "purge-valve",
  output: "EVAP purge",
  command: "open",
  limit: 30,
  rearmed: true,
  expected: "idle speed rises, hiss at the valve",
  seen: "as-expected",
  seenAfter: 4,
};
export const circuit: CircuitRecord = {
  joint: "purge-valve",
  wiring: "two-wire",
  switched: "ground",
  battery: volts(14.1),
  engineRunning: true,
  needsEngine: true,
  readings: [
    { pin: "feed", voltage: volts(13.9) },
    { pin: "across", voltage: volts(13.4) },
    { pin: "lamp", lamp: "bright" },
  ],
  pierced: false,
  instrument: meter({}),
};
export const chain: ChainRecord = {
  device: "Runner flaps",
  links: {
    supply: { value: 18, unit: "inHg", kind: "vacuum" },
    battery: volts(14.1),
    control: volts(13.6),
    outlet: { value: 17.4, unit: "inHg", kind: "vacuum" },
    diaphragm: { start: 18, end: 17.8, seconds: 60, unit: "inHg" },
    shaft: true,
    movement: true,
    plate: true,
  },
  instrument: gauge({}),
};
export const borescope: BorescopeRecord = {
  joint: "intake-valves",
  when: "as-found",
  ports: [
    { name: "Port 1", straight: 95, side: 93 },
    { name: "Port 2", straight: 96, side: 94 },
  ],
  pictures: [],
};

/** A charge side tested to its boost, nothing found. */
export const pressure: PressureTest = {
  entry: "hot-pipe-clamp",
  blocked: [],
  heldOpen: [],
  maxBoost: { value: 1, unit: "bar", kind: "gauge" },
  ratings: { tool: { value: 2, unit: "bar", kind: "gauge" } },
  steps: [
    { pressure: { value: 0.3, unit: "bar", kind: "gauge" } },
    { pressure: { value: 0.6, unit: "bar", kind: "gauge" } },
    { pressure: { value: 1, unit: "bar", kind: "gauge" } },
  ],
  escapes: [],
  everywhere: true,
  instrument: { name: "Test gauge", division: { value: 0.02, unit: "bar" }, zero: { value: 0, unit: "bar" } },
};

const hPa = (value: number): Quantity => ({ value, unit: "hPa", kind: "gauge" });
/** A sound filter read at three states, its pipes looked at. */
export const filter: FilterRecord = {
  keyOn: hPa(0.5),
  idle: { rpm: 800, pressure: hPa(6) },
  held: {
    rpm: 3000,
    pressure: hPa(32),
    maf: { value: 44, unit: "g/s" },
    exhaustTemperature: { value: 205, unit: "°C" },
  },
  division: hPa(0.5),
  egr: "shut",
  pipes: "sound",
  warm: true,
  sootModel: 14,
  sootMeasured: 12,
  ambient,
  intakeTemperature: { value: 20, unit: "°C" },
};

/** Secondary air of a sound car: pump runs, nothing bubbles, the sensor goes lean at once. */
export const secondaryAir: SecondaryAirRecord = {
  joint: "air-valve",
  runBy: "scan-tool",
  pumped: true,
  window: 30,
  rearmed: true,
  engineRunning: true,
  openedBy: "hand-vacuum",
  oxygen: "lean",
  watched: 3,
  trim: 18,
  soaped: true,
  bubbles: [],
  whenShut: "quiet",
};

const absolute = (value: number): Quantity => ({ value, unit: "kPa", kind: "absolute" });
/** A sound 2 L diesel over six speeds off boost and under it: as much asked as delivered, the meter as the engine breathes. */
export const boost: BoostRecord = {
  source: { kind: "typed" },
  points: [1500, 1800, 2100, 2400, 2700, 3000].flatMap((rpm) =>
    [101, 103, 180, 210].map((map) => ({
      rpm,
      map: absolute(map),
      charge: absolute(map + 1),
      ...(map > 120 ? { asked: absolute(map + 2) } : {}),
      // η 0.88 off boost; with exhaust a fifth above the manifold under it.
      maf: { value: ((map > 120 ? 0.872 : 0.88) * map * 2 * rpm) / (0.28705 * (map > 120 ? 318 : 303) * 120), unit: "g/s" },
      chargeTemperature: { value: map > 120 ? 44.85 : 29.85, unit: "°C" },
    })),
  ),
  keyOn: { map: absolute(101), charge: absolute(101.4) },
  egr: "shut",
  ambient,
  warm: true,
};

/** Good gases at both speeds, the ECU's own reading beside them. */
export const exhaustGas: GasRecord = {
  fuel: "petrol",
  idle: { co: 0.1, co2: 14.9, o2: 0.15, hc: 40, ecuLambda: 1 },
  raised: { co: 0.08, co2: 15, o2: 0.1, hc: 20, ecuLambda: 1 },
  loop: "closed",
  probe: "deep",
  zeroed: true,
  warm: true,
};
/** A valve that takes a third of the fresh air away, and holds shut. */
export const egr: EgrRecord = {
  joint: "egr-valve",
  shut: { rpm: 1500, maf: { value: 22, unit: "g/s" } },
  open: { rpm: 1510, maf: { value: 14.5, unit: "g/s" } },
  seat: "holds",
  cooler: "not-tried",
  warm: true,
};
export const backPressure: BackPressure = {
  idle: { value: 1.5, unit: "kPa", kind: "gauge" },
  raised: { value: 6, unit: "kPa", kind: "gauge" },
  snap: { value: 14, unit: "kPa", kind: "gauge" },
  warm: true,
  instrument: { name: "Exhaust gauge", division: { value: 0.5, unit: "kPa" }, zero: { value: 0, unit: "kPa" } },
};

export const benchPart: BenchPart = {
  part: "charge-air cooler",
  state: "new",
  way: "dip",
  pressure: { value: 0.8, unit: "bar", kind: "gauge" },
  rating: { value: 1.2, unit: "bar", kind: "gauge" },
  seconds: 60,
  plugged: true,
  instrument: { name: "Test gauge", division: { value: 0.02, unit: "bar" }, zero: { value: 0, unit: "bar" } },
};
export const cabin: CabinRecord = {
  fanOnFresh: true,
  still: true,
  seals: [
    { name: "left front door, top", blown: false },
    { name: "windscreen, lower corner", blown: false },
  ],
};
