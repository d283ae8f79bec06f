import type { FilterRecord, PipeState } from "@/core/checks/filter";
import { seededNoise } from "@/core/maths/random";
import { writeTable } from "./table";

/** A filter by what holds gas up in it: pressure at 3000 1/min, Pa, and the share of it that grows with flow squared. */
export interface HiddenFilter {
  readonly displacement: number;
  readonly ambient: number;
  readonly resistance: number;
  readonly inertial: number;
}

/** Pressure before over behind it at a speed and a gas temperature, Pa, K: a viscous and an inertial part of the hot flow. */
function pressureOf({ resistance, inertial }: HiddenFilter, rpm: number, temperature: number): number {
  const x = (rpm * (temperature / 473)) / 3000;
  return resistance * ((1 - inertial) * x + inertial * x * x);
}

/** Air flow of the engine without load, kg/s. */
const airOf = ({ ambient, displacement }: HiddenFilter, rpm: number) =>
  (0.87 * ambient * displacement * rpm) / (287.05 * 293 * 120);

/** Key on, idle, and a held speed, logged at 2 Hz as a scan tool writes it. */
export function recordFilter(hidden: HiddenFilter, seed: number): Uint8Array {
  const noise = seededNoise(seed);
  const stages = [
    [10, 0, 0, 290],
    [25, 820, 820, 395],
    [6, 820, 3000, 430],
    [25, 3000, 3000, 478],
  ] as const;
  let seconds = 0;
  const rows = stages.flatMap(([lasts, from, to, temperature]) =>
    Array.from({ length: 2 * lasts }, (_, i) => {
      const rpm = from + ((to - from) * i) / (2 * lasts);
      seconds += 0.5;
      return [
        seconds.toFixed(1),
        Math.max(0, Math.round(rpm + (rpm > 0 ? noise.normal(8) : 0))),
        (pressureOf(hidden, rpm, temperature) / 1000 + noise.normal(0.02)).toFixed(2),
        (airOf(hidden, rpm) * 1000 * (1 + noise.normal(0.005))).toFixed(1),
        (temperature - 273.15 + noise.normal(1)).toFixed(0),
        88,
        0,
        0,
      ];
    }),
  );
  return writeTable({
    delimiter: ";",
    decimal: ",",
    header: [
      "Time (s)",
      "Engine RPM (rpm)",
      "DPF differential pressure (kPa)",
      "MAF (g/s)",
      "EGT (°C)",
      "ECT (°C)",
      "Vehicle speed (km/h)",
      "Commanded EGR (%)",
    ],
    rows,
  });
}

/** Scan-tool readings of it with the key on, at idle and held: Δp by a viscous and an inertial part of the hot flow. */
export function filterOf(
  hidden: HiddenFilter,
  story: {
    readonly seed: number;
    readonly rpm: number;
    readonly soot: readonly [model: number, measured: number];
    readonly pipes?: PipeState;
  },
): FilterRecord {
  const noise = seededNoise(story.seed);
  const shown = (pa: number) => ({
    value: Math.round((pa / 100 + noise.normal(0.3)) * 2) / 2,
    unit: "hPa" as const,
    kind: "gauge" as const,
  });
  const at = (rpm: number, temperature: number) => ({
    rpm,
    pressure: shown(pressureOf(hidden, rpm, temperature)),
    maf: { value: Math.round(airOf(hidden, rpm) * 1e4 * (1 + noise.normal(0.01))) / 10, unit: "g/s" as const },
    exhaustTemperature: { value: Math.round(temperature - 273.15), unit: "°C" as const },
  });
  return {
    keyOn: shown(20),
    idle: at(820, 395),
    held: at(story.rpm, 478),
    division: { value: 0.5, unit: "hPa", kind: "gauge" },
    egr: "shut",
    pipes: story.pipes ?? "sound",
    warm: true,
    sootModel: story.soot[0],
    sootMeasured: story.soot[1],
    ambient: { value: Math.round(hidden.ambient / 100), unit: "hPa", kind: "absolute" },
    intakeTemperature: { value: 17, unit: "°C" },
  };
}
