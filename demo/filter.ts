import type { FilterRecord, PipeState } from "@/core/checks/filter";
import { seededNoise } from "@/core/maths/random";

/** A filter by what holds gas up in it: pressure at 3000 1/min, Pa, and the share of it that grows with flow squared. */
export interface HiddenFilter {
  readonly displacement: number;
  readonly ambient: number;
  readonly resistance: number;
  readonly inertial: number;
}

/** What a scan tool shows of it with the key on, at idle and held: Δp by a viscous and an inertial part of the hot flow. */
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
  const flow = (rpm: number, temperature: number) => rpm * (temperature / 473);
  const pressure = (rpm: number, temperature: number) => {
    const x = flow(rpm, temperature) / 3000;
    return hidden.resistance * ((1 - hidden.inertial) * x + hidden.inertial * x * x);
  };
  const shown = (pa: number) => ({
    value: Math.round((pa / 100 + noise.normal(0.3)) * 2) / 2,
    unit: "hPa" as const,
    kind: "gauge" as const,
  });
  const air = (rpm: number) => (0.87 * hidden.ambient * hidden.displacement * rpm) / (287.05 * 293 * 120);
  const at = (rpm: number, temperature: number) => ({
    rpm,
    pressure: shown(pressure(rpm, temperature)),
    maf: { value: Math.round(air(rpm) * 1e4 * (1 + noise.normal(0.01))) / 10, unit: "g/s" as const },
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
