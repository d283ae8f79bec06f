import { R_AIR } from "@/core/gas/air";
import { holeArea, massFlux, SHARP_EDGED } from "@/core/gas/orifice";
import { seededNoise } from "@/core/maths/random";
import { writeTable } from "./table";

/** The hidden truth of a charge side. SI. */
export interface HiddenCharge {
  displacement: number;
  ambient: number;
  /** Breathing off boost, and the compression that residual gas takes from it by */
  breathing: number;
  compression: number;
  /** Boost the ECU asks for at full load, Pa gauge */
  asks: number;
  /** Share of it that turbocharger and actuator make */
  makes: number;
  /** Hole behind the meter, m */
  leak?: number;
  /** s into the log at which the actuator gives up and the ECU takes boost back */
  limpAt?: number;
}

interface Stage {
  readonly seconds: number;
  readonly rpm: readonly [number, number];
  /** Share of the boost that full load asks for; below nothing a throttled share of ambient */
  readonly load: number;
}

/** Key on, a slow run over the speeds, then pulls in a high gear with a breath between them. */
const DRIVE: readonly Stage[] = [
  { seconds: 12, rpm: [0, 0], load: 0 },
  { seconds: 50, rpm: [1400, 3100], load: 0 },
  { seconds: 9, rpm: [1600, 3300], load: 1 },
  { seconds: 12, rpm: [3100, 1500], load: 0 },
  { seconds: 9, rpm: [1500, 3200], load: 0.7 },
  { seconds: 12, rpm: [3000, 1500], load: 0 },
  { seconds: 9, rpm: [1700, 3300], load: 0.95 },
  { seconds: 14, rpm: [2400, 2000], load: 0 },
  { seconds: 9, rpm: [1800, 3200], load: 0.85 },
  { seconds: 14, rpm: [2000, 2600], load: 0 },
];
/** Road speed for each turn of the engine in the gear that is held, m/s per 1/min. */
const GEARED = 0.0105;

/** Records such a drive at 4 Hz with the noise of its sensors, as a scan tool writes it. */
export function recordBoost(hidden: HiddenCharge, seed: number): Uint8Array {
  const noise = seededNoise(seed);
  const { ambient, displacement } = hidden;
  const rows: (string | number)[][] = [];
  let seconds = 0;
  for (const stage of DRIVE) {
    for (let s = 0; s < stage.seconds; s += 0.25, seconds += 0.25) {
      const rpm = stage.rpm[0] + ((stage.rpm[1] - stage.rpm[0]) * s) / stage.seconds;
      const limp = hidden.limpAt !== undefined && seconds >= hidden.limpAt;
      const rise = Math.min(1, s / 1.5);
      const asked = ambient + (limp ? 0 : hidden.asks * stage.load * rise);
      const charge = rpm === 0 ? ambient : ambient + (asked - ambient) * (limp ? 0 : hidden.makes);
      const boosted = charge > ambient + 5e3;
      const temperature = boosted ? 312 + 16 * ((charge - ambient) / hidden.asks) : 300;
      const map = charge - (boosted ? 900 : 300);
      const exhaust = boosted ? 1.18 * map : 1.04 * ambient;
      const filling = 1 - (exhaust / map - 1) / (1.4 * (hidden.compression - 1));
      const wave = 1 + 0.03 * Math.sin(rpm / 620);
      const breathed = ((hidden.breathing * wave * filling * map) / (R_AIR * temperature)) * ((displacement * rpm) / 120);
      const lost =
        hidden.leak && charge > ambient ? SHARP_EDGED * holeArea(hidden.leak) * massFlux(charge, ambient, temperature) : 0;
      rows.push([
        seconds.toFixed(2),
        Math.max(0, Math.round(rpm + (rpm > 0 ? noise.normal(6) : 0))),
        ((breathed + lost) * 1000 * (1 + noise.normal(0.005))).toFixed(2),
        ((map + (rpm === 0 ? 300 : 0)) / 1000 + noise.normal(0.3)).toFixed(1),
        (charge / 1000 + noise.normal(0.3)).toFixed(1),
        (asked / 1000).toFixed(1),
        (temperature - 273.15 + noise.normal(0.5)).toFixed(1),
        (rpm * GEARED * 3.6).toFixed(0),
        88,
        stage.load > 0 ? Math.round(60 + 36 * stage.load) : rpm === 0 ? 0 : 14,
        (ambient / 1000).toFixed(1),
      ]);
    }
  }
  return writeTable({
    delimiter: ",",
    decimal: ".",
    header: [
      "Time (s)",
      "Engine RPM (rpm)",
      "MAF (g/s)",
      "MAP (kPa)",
      "Charge pressure (kPa)",
      "Commanded boost pressure (kPa)",
      "Charge air temperature (°C)",
      "Vehicle speed (km/h)",
      "ECT (°C)",
      "Throttle (%)",
      "Barometric pressure (kPa)",
    ],
    rows,
  });
}
