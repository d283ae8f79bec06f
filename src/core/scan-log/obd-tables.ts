/** A value decoded from a PID's data bytes. */
export interface PidRow {
  readonly bytes: number;
  /** Names and units of what the bytes hold, with their formulas (SAE J1979-DA, appendix B) */
  readonly values: readonly {
    readonly name: string;
    readonly unit?: string;
    /** For a pressure: what it is counted from */
    readonly kind?: "gauge" | "absolute";
    readonly of: (d: readonly number[]) => number | string;
  }[];
}

const b = (d: readonly number[], i: number) => d[i] ?? 0;
const word = (d: readonly number[], i = 0) => 256 * b(d, i) + b(d, i + 1);
const signed = (d: readonly number[], i = 0) => (word(d, i) > 32767 ? word(d, i) - 65536 : word(d, i));
const one = (
  bytes: number,
  name: string,
  unit: string | undefined,
  of: (d: readonly number[]) => number | string,
  kind?: "gauge" | "absolute",
): PidRow => ({
  bytes,
  values: [{ name, ...(unit ? { unit } : {}), ...(kind ? { kind } : {}), of }],
});
const percent = (name: string) => one(1, name, "%", (d) => (b(d, 0) * 100) / 255);
const celsius = (name: string) => one(1, name, "°C", (d) => b(d, 0) - 40);
const trim = (name: string) => one(1, name, "%", (d) => ((b(d, 0) - 128) * 100) / 128);
const count = (bytes: 1 | 2, name: string, unit: string) => one(bytes, name, unit, (d) => (bytes === 1 ? b(d, 0) : word(d)));

const LOOP: Record<number, string> = {
  1: "open loop, not warm enough",
  2: "closed loop",
  4: "open loop, load or fuel cut",
  8: "open loop, fault",
  16: "closed loop, sensor fault",
};
const narrow = (sensor: string): PidRow => ({
  bytes: 2,
  values: [
    { name: `O2 voltage, ${sensor}`, unit: "V", of: (d) => b(d, 0) / 200 },
    { name: `Short-term trim, ${sensor}`, unit: "%", of: (d) => (b(d, 1) === 255 ? "not used" : ((b(d, 1) - 128) * 100) / 128) },
  ],
});
const wideVolts = (sensor: string): PidRow => ({
  bytes: 4,
  values: [
    { name: `Lambda, ${sensor}`, of: (d) => (2 * word(d)) / 65536 },
    { name: `O2 voltage, ${sensor}`, unit: "V", of: (d) => (8 * word(d, 2)) / 65536 },
  ],
});
const wideCurrent = (sensor: string): PidRow => ({
  bytes: 4,
  values: [
    { name: `Lambda, ${sensor}`, of: (d) => (2 * word(d)) / 65536 },
    { name: `O2 current, ${sensor}`, unit: "mA", of: (d) => word(d, 2) / 256 - 128 },
  ],
});
const SENSORS = [
  "bank 1 sensor 1",
  "bank 1 sensor 2",
  "bank 1 sensor 3",
  "bank 1 sensor 4",
  "bank 2 sensor 1",
  "bank 2 sensor 2",
  "bank 2 sensor 3",
  "bank 2 sensor 4",
];
const each = (first: number, row: (sensor: string) => PidRow) => Object.fromEntries(SENSORS.map((s, i) => [first + i, row(s)]));

/** PIDs of services 01 and 02 that bear on intake, mixture and the vapour system (SAE J1979-DA). */
export const PIDS: Readonly<Record<number, PidRow>> = {
  3: {
    bytes: 2,
    values: [
      { name: "Fuel system 1", of: (d) => LOOP[b(d, 0)] ?? `state ${b(d, 0)}` },
      { name: "Fuel system 2", of: (d) => (b(d, 1) === 0 ? "not fitted" : (LOOP[b(d, 1)] ?? `state ${b(d, 1)}`)) },
    ],
  },
  4: percent("Calculated load"),
  5: celsius("Coolant temperature"),
  6: trim("Short-term trim, bank 1"),
  7: trim("Long-term trim, bank 1"),
  8: trim("Short-term trim, bank 2"),
  9: trim("Long-term trim, bank 2"),
  10: one(1, "Fuel pressure", "kPa", (d) => 3 * b(d, 0), "gauge"),
  11: one(1, "Manifold pressure", "kPa", (d) => b(d, 0), "absolute"),
  12: one(2, "Engine speed", "rpm", (d) => word(d) / 4),
  13: count(1, "Vehicle speed", "km/h"),
  14: one(1, "Ignition advance", "°", (d) => b(d, 0) / 2 - 64),
  15: celsius("Intake air temperature"),
  16: one(2, "Air meter", "g/s", (d) => word(d) / 100),
  17: percent("Throttle position"),
  ...each(0x14, narrow),
  31: count(2, "Time since engine start", "s"),
  33: count(2, "Distance with the light on", "km"),
  ...each(0x24, wideVolts),
  44: percent("Commanded EGR"),
  46: percent("Commanded purge"),
  47: percent("Fuel level"),
  48: count(1, "Warm-ups since codes were cleared", "starts"),
  49: count(2, "Distance since codes were cleared", "km"),
  50: one(2, "EVAP system vapour pressure", "Pa", (d) => signed(d) / 4, "gauge"),
  51: one(1, "Barometric pressure", "kPa", (d) => b(d, 0), "absolute"),
  ...each(0x34, wideCurrent),
  66: one(2, "Control module voltage", "V", (d) => word(d) / 1000),
  67: one(2, "Absolute load", "%", (d) => (word(d) * 100) / 255),
  68: one(2, "Commanded lambda", undefined, (d) => (2 * word(d)) / 65536),
  69: percent("Relative throttle position"),
  70: celsius("Ambient air temperature"),
  77: count(2, "Time with the light on", "min"),
  78: count(2, "Time since codes were cleared", "min"),
  83: one(2, "EVAP system vapour pressure", "kPa", (d) => word(d) / 200, "absolute"),
  84: one(2, "EVAP system vapour pressure", "Pa", (d) => signed(d), "gauge"),
};

/** Scaling of a monitor result by its unit-and-scaling id (SAE J1979-DA, appendix E): factor, offset, unit, signed. */
interface Scaling {
  readonly factor: number;
  readonly offset?: number;
  readonly unit: string;
  readonly signed?: true;
}
const s = (factor: number, unit: string, offset?: number): Scaling => ({ factor, unit, ...(offset ? { offset } : {}) });
const z = (factor: number, unit: string): Scaling => ({ factor, unit, signed: true });
export const SCALINGS: Readonly<Record<number, Scaling>> = {
  1: s(1, ""),
  2: s(0.1, ""),
  3: s(0.01, ""),
  4: s(0.001, ""),
  5: s(3.05e-5, ""),
  6: s(3.05e-4, ""),
  7: s(0.25, "rpm"),
  8: s(0.01, "km/h"),
  9: s(1, "km/h"),
  10: s(1.22e-4, "V"),
  11: s(0.001, "V"),
  12: s(0.01, "V"),
  13: s(0.00390625, "mA"),
  14: s(0.001, "A"),
  15: s(0.01, "A"),
  16: s(0.001, "s"),
  17: s(0.1, "s"),
  18: s(1, "s"),
  19: s(0.001, "Ω"),
  20: s(1, "Ω"),
  21: s(1000, "Ω"),
  22: s(0.1, "°C", -40),
  23: s(0.01, "kPa"),
  24: s(0.0117, "kPa"),
  25: s(0.079, "kPa"),
  26: s(1, "kPa"),
  27: s(10, "kPa"),
  28: s(0.01, "°"),
  29: s(0.5, "°"),
  30: s(3.05e-5, "lambda"),
  31: s(0.05, "air/fuel"),
  32: s(0.00390625, "ratio"),
  33: s(0.001, "Hz"),
  34: s(1, "Hz"),
  35: s(1000, "Hz"),
  36: s(1, "counts"),
  37: s(1, "km"),
  38: s(1e-4, "V/ms"),
  39: s(0.01, "g/s"),
  40: s(1, "g/s"),
  41: s(0.25, "Pa/s"),
  42: s(0.001, "kg/h"),
  43: s(1, "switches"),
  44: s(0.01, "g/cyl"),
  45: s(0.01, "mg/stroke"),
  47: s(0.01, "%"),
  48: s(0.001526, "%"),
  49: s(0.001, "L"),
  50: s(3.05e-5, "in"),
  51: s(2.4414e-4, "lambda"),
  52: s(1, "min"),
  53: s(0.01, "s"),
  54: s(0.01, "g"),
  55: s(0.1, "g"),
  56: s(1, "g"),
  129: z(1, ""),
  130: z(0.1, ""),
  131: z(0.01, ""),
  132: z(0.001, ""),
  133: z(3.05e-5, ""),
  134: z(3.05e-4, ""),
  138: z(1.22e-4, "V"),
  139: z(0.001, "V"),
  140: z(0.01, "V"),
  141: z(0.00390625, "mA"),
  142: z(0.001, "A"),
  144: z(0.001, "s"),
  150: z(0.1, "°C"),
  153: z(0.1, "kPa"),
  156: z(0.01, "°"),
  157: z(0.5, "°"),
  168: z(1, "g/s"),
  169: z(0.25, "Pa/s"),
  173: z(0.01, "mg/stroke"),
  175: z(0.01, "%"),
  176: z(0.003052, "%"),
  177: z(2e-3, "V/s"),
  252: z(0.01, "kPa"),
  253: z(0.001, "kPa"),
  254: z(0.25, "Pa"),
};

/** System that each monitor id of service 06 watches (SAE J1979-DA, appendix D). */
export const MONITORS: Readonly<Record<number, string>> = {
  ...Object.fromEntries(SENSORS.map((name, i) => [1 + i, `O2 sensor, ${name}`])),
  33: "Catalyst, bank 1",
  34: "Catalyst, bank 2",
  49: "EGR, bank 1",
  50: "EGR, bank 2",
  57: "EVAP, cap off or 0.150 in",
  58: "EVAP, 0.090 in",
  59: "EVAP, 0.040 in",
  60: "EVAP, 0.020 in",
  61: "Purge flow",
  113: "Secondary air 1",
  114: "Secondary air 2",
  129: "Fuel system, bank 1",
  130: "Fuel system, bank 2",
  161: "Misfire, all cylinders",
};

/** Readiness bits of PID 01, bytes B (continuous), C and D (spark ignition): bit and monitor. */
export const CONTINUOUS: readonly (readonly [number, string])[] = [
  [0, "Misfire"],
  [1, "Fuel system"],
  [2, "Components"],
];
export const PER_TRIP: readonly (readonly [number, string])[] = [
  [0, "Catalyst"],
  [1, "Heated catalyst"],
  [2, "EVAP"],
  [3, "Secondary air"],
  [4, "Petrol particulate filter"],
  [5, "O2 sensors"],
  [6, "O2 sensor heaters"],
  [7, "EGR or valve timing"],
];
