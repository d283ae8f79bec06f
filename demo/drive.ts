import { seededNoise } from "@/core/maths/random";
import { type HiddenEngine, type OperatingPoint, seenAt } from "./engine";
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
  closedLoop: boolean;
  trims: { short: number; long: number }[];
}

interface Stage {
  point: OperatingPoint;
  seconds: number;
}

const RAMP = 4;

/** The drive a technician is asked for: idle, 1500, 2500 without load, cruise, a steady pull, and idle again. */
function usualDrive(engine: HiddenEngine): Stage[] {
  const at = (rpm: number, map: number, charge = engine.ambient): OperatingPoint => ({ rpm, map, charge, coolant: 364 });
  const pull = engine.turbo ? at(3200, engine.ambient + 55e3, engine.ambient + 58e3) : at(3600, engine.ambient - 7e3);
  return [
    { point: at(720, 33e3), seconds: 40 },
    { point: at(1500, 30e3), seconds: 25 },
    { point: at(2500, 30e3), seconds: 25 },
    { point: at(2200, 62e3), seconds: 30 },
    { point: pull, seconds: 14 },
    { point: at(720, 33e3), seconds: 20 },
  ];
}

/** Records a drive at a fixed rate with sensor noise; transitions ramp, trims hunt as a closed loop does. */
export function recordDrive(engine: HiddenEngine, seed: number, rate = 4): DriveRow[] {
  const noise = seededNoise(seed);
  const rows: DriveRow[] = [];
  const stages = usualDrive(engine);
  let seconds = 0;
  let before = stages[0] as Stage;
  for (const stage of stages) {
    const settled = [before, stage].map((s) => seenAt(engine, s.point).trims);
    for (let s = 0; s < stage.seconds; s += 1 / rate) {
      const share = Math.min(1, s / RAMP);
      const mix = (a: number, b: number) => a + (b - a) * share;
      const point: OperatingPoint = {
        rpm: mix(before.point.rpm, stage.point.rpm) + noise.normal(8),
        map: mix(before.point.map, stage.point.map) + noise.normal(150),
        charge: mix(before.point.charge, stage.point.charge) + noise.normal(15),
        coolant: stage.point.coolant,
      };
      const seen = seenAt(engine, point);
      rows.push({
        seconds: Math.round(seconds * 100) / 100,
        rpm: Math.round(point.rpm),
        maf: seen.maf * 1000 * (1 + noise.normal(0.01)),
        map: point.map / 1000,
        charge: point.charge / 1000,
        coolant: Math.round(point.coolant - 273.15 + noise.normal(0.3)),
        intake: Math.round(engine.temperature - 273.15 + noise.normal(0.3)),
        barometer: engine.ambient / 1000,
        closedLoop: true,
        trims: seen.trims.map((total, bank) => {
          // The ECU has learned most of what each cell settles at; the rest and the hunting of the loop stand in the short term.
          const learned = 0.78 * mix(settled[0]?.[bank] as number, settled[1]?.[bank] as number);
          const rest = (1 + total) / (1 + learned) - 1;
          const hunting = 0.012 * Math.sin((2 * Math.PI * seconds) / 2.6) + noise.normal(0.008);
          const step = (percent: number) => Math.round(percent / 0.78125) * 0.78125;
          return { short: step((rest + hunting) * 100), long: step(learned * 100) };
        }),
      });
      seconds += 1 / rate;
    }
    before = stage;
  }
  return rows;
}

export type LogDialect = "comma" | "semicolon" | "tab-utf16" | "clock";

/** The same drive as different scan tools write it. */
export function writeLog(rows: readonly DriveRow[], dialect: LogDialect, turbo: boolean): Uint8Array {
  const banks = rows[0]?.trims.length ?? 1;
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
