import type { SecondaryAirRecord } from "@/core/checks/secondary-air";
import { massFlux, SHARP_EDGED } from "@/core/gas/orifice";
import { seededNoise } from "@/core/maths/random";

/** Openings the pump's air finds on its way: areas, m². */
export interface HiddenAir {
  readonly ambient: number;
  readonly temperature: number;
  /** Pressure that the pump makes into so much resistance, Pa gauge */
  readonly pressure: number;
  readonly seam: number;
  readonly ports: number;
}

/** Air that soap shows, and that makes the oxygen sensor lean, kg/s. */
const BUBBLES = 1e-6;
const LEAN = 2.5e-3;

/** Signs of it on soap, sensor and trim: bubbles where air gets out, a lean sensor where enough gets in. */
export function secondaryAirOf(hidden: HiddenAir, joint: string, seed: number): SecondaryAirRecord {
  const noise = seededNoise(seed);
  const flux = massFlux(hidden.ambient + hidden.pressure, hidden.ambient, hidden.temperature);
  const [escapes, arrives] = [SHARP_EDGED * hidden.seam * flux, SHARP_EDGED * hidden.ports * flux];
  const lean = arrives > LEAN;
  return {
    joint,
    runBy: "scan-tool",
    pumped: true,
    window: 30,
    rearmed: true,
    engineRunning: true,
    openedBy: "hand-vacuum",
    oxygen: lean ? "lean" : "no-change",
    watched: lean ? Math.round(20 + 10 * Math.abs(noise.normal(0.3))) / 10 : 15,
    trim: lean ? Math.round(14 + noise.normal(1)) : Math.round(noise.normal(0.5)),
    soaped: true,
    bubbles: escapes > BUBBLES ? ["pump-seam"] : [],
    whenShut: "quiet",
  };
}
