import { seededNoise } from "@/core/maths/random";
import { PracticeEngine } from "@/core/practice/engine";
import type { Driving } from "@/core/practice/engine-truth";
import type { ChannelId } from "@/core/scan-log";
import type { HiddenEngine } from "./engine";
import { writeTable } from "./table";

/** One row of a scan-tool recording, in the units a scan tool shows. */
export interface DriveRow {
  seconds: number;
  rpm: number;
  maf: number;
  map: number;
  charge: number;
  coolant: number;
  intake: number;
  barometer: number;
  /** Percent; a diesel has none */
  throttle?: number;
  closedLoop: boolean;
  trims: { short: number; long: number }[];
}

/** The drive a technician is asked for: idle, 1500, 2500 without load, cruise, a steady pull, and idle again; s. */
type Drive = readonly (readonly [seconds: number, driving: Driving])[];
const usualDrive = ({ ambient, boost }: HiddenEngine): Drive => [
  [40, {}],
  [25, { foot: 1500 }],
  [25, { foot: 2500 }],
  [30, { road: { rpm: 2200, map: 62e3 } }],
  [14, { road: boost === undefined ? { rpm: 3600 } : { rpm: 3200, map: ambient + 55e3 } }],
  [20, {}],
];
/** Half a minute of idle, then a pull with the throttle wide open. */
export const PULL = [
  [30, {}],
  [6, { road: { rpm: 4500 } }],
] as const satisfies readonly (readonly [number, Driving])[];
/** Driven for so long before, s: long-term trims have learnt by then. */
const BEFORE = [
  [60, {}],
  [60, { foot: 2500 }],
  [15, {}],
] as const satisfies readonly (readonly [number, Driving])[];

/** Records a drive at a fixed rate: the engine runs through it, and its ECU is read as a scan tool reads it. */
export function recordDrive(engine: HiddenEngine, seed: number, driven: Drive = usualDrive(engine), rate = 4): DriveRow[] {
  const noise = seededNoise(seed);
  const running = new PracticeEngine(engine, seed);
  const drive = (seconds: number, driving: Driving) => {
    running.driving = driving;
    running.advance(running.time + seconds);
  };
  for (const [seconds, driving] of BEFORE) drive(seconds, driving);
  const rows: DriveRow[] = [];
  for (const [seconds, driving] of driven)
    for (let s = 0; s < seconds; s += 1 / rate) {
      const read = running.read();
      const trim = (name: ChannelId) => read[name] as number;
      rows.push({
        seconds: rows.length / rate,
        rpm: Math.round(read.rpm as number),
        maf: (read.maf as number) * 1000,
        map: (read.map as number) / 1000,
        charge: (running.state.charge + noise.normal(100)) / 1000,
        coolant: Math.round(91 + noise.normal(0.3)),
        intake: Math.round(engine.temperature - 273.15 + noise.normal(0.3)),
        barometer: engine.ambient / 1000,
        ...(read.throttle === undefined ? {} : { throttle: read.throttle }),
        closedLoop: true,
        trims: Array.from({ length: engine.banks ?? 1 }, (_, bank) => ({
          short: trim(bank === 0 ? "short-trim-1" : "short-trim-2"),
          long: trim(bank === 0 ? "long-trim-1" : "long-trim-2"),
        })),
      });
      drive(1 / rate, driving);
    }
  return rows;
}

export type LogDialect = "comma" | "semicolon" | "tab-utf16" | "clock";

/** The same drive as different scan tools write it. */
export function writeLog(rows: readonly DriveRow[], dialect: LogDialect, turbo: boolean): Uint8Array {
  const banks = rows[0]?.trims.length ?? 1;
  const throttled = rows[0]?.throttle !== undefined;
  const bank = (name: string) => (banks === 2 ? [`${name} bank 1`, `${name} bank 2`] : [name]);
  switch (dialect) {
    case "comma":
      return writeTable({
        delimiter: ",",
        decimal: ".",
        header: [
          "Time (s)",
          "Engine RPM (rpm)",
          "MAF (g/s)",
          "MAP (kPa)",
          ...(turbo ? ["Charge pressure (kPa)"] : []),
          "ECT (°C)",
          "IAT (°C)",
          "Barometric pressure (kPa)",
          ...(throttled ? ["Throttle position (%)"] : []),
          "Fuel system status",
          ...bank("STFT").map((b) => `${b} (%)`),
          ...bank("LTFT").map((b) => `${b} (%)`),
        ],
        rows: rows.map((r) => [
          r.seconds.toFixed(2),
          r.rpm,
          r.maf.toFixed(2),
          r.map.toFixed(0),
          ...(turbo ? [r.charge.toFixed(0)] : []),
          r.coolant,
          r.intake,
          r.barometer.toFixed(1),
          ...(r.throttle === undefined ? [] : [r.throttle.toFixed(0)]),
          "CL",
          ...r.trims.map((t) => t.short.toFixed(1)),
          ...r.trims.map((t) => t.long.toFixed(1)),
        ]),
      });
    case "semicolon":
      return writeTable({
        delimiter: ";",
        decimal: ",",
        bom: true,
        header: [
          "Elapsed time",
          "Engine speed",
          "Mass air flow",
          "Intake manifold pressure",
          ...(turbo ? ["Boost pressure"] : []),
          "Coolant temperature",
          "Intake air temperature",
          ...bank("Short term fuel trim"),
          ...bank("Long term fuel trim"),
        ],
        units: [
          "s",
          "1/min",
          "kg/h",
          "hPa",
          ...(turbo ? ["hPa"] : []),
          "°C",
          "°C",
          ...(rows[0]?.trims ?? []).map(() => "%"),
          ...(rows[0]?.trims ?? []).map(() => "%"),
        ],
        rows: rows.map((r) => [
          r.seconds.toFixed(2),
          r.rpm,
          (r.maf * 3.6).toFixed(2),
          (r.map * 10).toFixed(0),
          ...(turbo ? [(r.charge * 10).toFixed(0)] : []),
          r.coolant,
          r.intake,
          ...r.trims.map((t) => t.short.toFixed(1)),
          ...r.trims.map((t) => t.long.toFixed(1)),
        ]),
      });
    case "tab-utf16":
      return writeTable({
        delimiter: "\t",
        decimal: ".",
        utf16: true,
        preamble: ["Recorded by a bench recorder", "Vehicle: demo"],
        header: [
          "Time [ms]",
          "RPM",
          "MAF [lb/min]",
          "MAP [inHg]",
          ...(turbo ? ["Charge air pressure [inHg]"] : []),
          "ECT [°F]",
          "IAT [°F]",
          ...bank("SHRTFT").map((b) => `${b} [%]`),
          ...bank("LONGFT").map((b) => `${b} [%]`),
        ],
        rows: rows.map((r) => [
          (r.seconds * 1000).toFixed(0),
          r.rpm,
          (r.maf / 7.5598728).toFixed(3),
          (r.map / 3.386389).toFixed(1),
          ...(turbo ? [(r.charge / 3.386389).toFixed(1)] : []),
          Math.round(r.coolant * 1.8 + 32),
          Math.round(r.intake * 1.8 + 32),
          ...r.trims.map((t) => t.short.toFixed(1)),
          ...r.trims.map((t) => t.long.toFixed(1)),
        ]),
      });
    case "clock":
      return writeTable({
        delimiter: ",",
        decimal: ".",
        repeatHeaderEvery: 200,
        header: [
          "Clock",
          "RPM",
          "MAF (g/s)",
          "MAP (kPa)",
          ...(turbo ? ["Charge pressure (kPa)"] : []),
          "Coolant temp (°C)",
          "IAT (°C)",
          "Loop status",
          ...bank("Short FT").map((b) => `${b} %`),
          ...bank("Long FT").map((b) => `${b} %`),
        ],
        rows: rows.map((r, i) => [
          clock(r.seconds),
          r.rpm,
          i % 37 === 20 ? "" : r.maf.toFixed(2),
          r.map.toFixed(1),
          ...(turbo ? [r.charge.toFixed(1)] : []),
          r.coolant,
          r.intake,
          r.closedLoop ? "closed" : "open",
          ...r.trims.map((t) => (i % 53 === 9 ? "n/a" : t.short.toFixed(1))),
          ...r.trims.map((t) => t.long.toFixed(1)),
        ]),
      });
  }
}

const clock = (seconds: number) => {
  const t = 9 * 3600 + 14 * 60 + 5 + seconds;
  const two = (n: number) => String(Math.floor(n)).padStart(2, "0");
  return `${two(t / 3600)}:${two((t % 3600) / 60)}:${(t % 60).toFixed(2).padStart(5, "0")}`;
};
