import { GAMMA, R_AIR } from "../air";
import { CRITICAL_RATIO } from "../orifice";

/** A joint between two zones. SI; pressures Pa absolute, flows kg/s, positive from `from` to `to`. */
export type JointLaw =
  /** ṁ = CdA·ψ, both ways (`softFlux`) */
  | { readonly type: "orifice"; readonly effectiveArea: number }
  /** The same from `from` to `to`; nothing comes back */
  | { readonly type: "one-way"; readonly effectiveArea: number }
  /** ṁ = ρ·Δp/R with the density of the higher side: a hose or filter by its resistance R, Pa·s/m³ */
  | { readonly type: "pipe"; readonly resistance: number }
  /** Pushes `maxFlow` with no pressure against it, falling in a straight line to none at `stallPressure`; level where that is infinite */
  | { readonly type: "pump"; readonly maxFlow: number; readonly stallPressure: number }
  /** Lets in what it takes to hold `to` at `setPressure` (Pa absolute), at most `maxFlow`; nothing comes back */
  | { readonly type: "regulator"; readonly setPressure: number; readonly maxFlow: number }
  /** Sweeps a volume per second out of `from`, m³/s: an engine, pulsation averaged out */
  | { readonly type: "sweep"; readonly rate: number };

/** A flow and how it changes with pressure and temperature of both ends. */
export interface JointFlow {
  flow: number;
  /** ∂ṁ/∂p of `from` and of `to` */
  byFrom: number;
  byTo: number;
  /** ∂ṁ/∂T of `from` and of `to` */
  byFromTemperature: number;
  byToTemperature: number;
}

export const stillJoint = (): JointFlow => ({ flow: 0, byFrom: 0, byTo: 0, byFromTemperature: 0, byToTemperature: 0 });

/** A regulator opens over this share of what it is set to above ambient, and no less than this, Pa. */
const BAND = { share: 0.01, least: 1 } as const;

/** Blending pressure of the orifice law, Pa: below it the flow is straight in Δp, as a solver needs. */
const BLEND = 5;

/** Pressure floor: what draws from a zone draws less and less below this pressure, Pa: nothing is emptied past nothing. */
const EMPTY = 500;

/** The share of its flow that what draws from a zone still gets at this pressure, and its slope. */
const drawn = { share: 1, slope: 0 };
function drawFrom(pressure: number): void {
  const full = pressure >= EMPTY;
  drawn.share = full ? 1 : (pressure / EMPTY) ** 2;
  drawn.slope = full ? 0 : (2 * pressure) / EMPTY ** 2;
}

const CHOKED = (GAMMA / R_AIR) * (2 / (GAMMA + 1)) ** ((GAMMA + 1) / (GAMMA - 1));
const SUBSONIC = (2 * GAMMA) / ((GAMMA - 1) * R_AIR);
const X = 1 / GAMMA;

/** ψ and its slopes by the higher pressure, the lower one, and the temperature of the higher side. */
const soft = { flux: 0, byHigh: 0, byLow: 0, byTemperature: 0 };

/**
 * Mass flux of an orifice, blended at small Δp: with S = ψ² (ISO 6358-1) and e = S at 5 Pa, ψ·(S/√(S² + e²))^½ = S/(S² + e²)^¼;
 * a quarter per cent low at 50 Pa. Choked below the critical ratio. Writes into `soft`.
 * @param high, low Pa absolute, high ≥ low ≥ 0; @param temperature K of the higher side.
 */
function softFlux(high: number, low: number, temperature: number): void {
  const r = high > 0 ? low / high : 1;
  let s: number;
  let byHigh: number;
  let byLow: number;
  if (r <= CRITICAL_RATIO) {
    s = (CHOKED * high * high) / temperature;
    byHigh = (2 * s) / high;
    byLow = 0;
  } else {
    const k = SUBSONIC / temperature;
    const x = r ** X;
    // r^(2/γ) − r^((γ+1)/γ) with one power; what cancels near r = 1 lies far below the blend.
    const n = Math.max(0, x * (x - r));
    const slope = (2 * X * x * x) / r - (1 + X) * x;
    s = k * high * high * n;
    byLow = k * high * slope;
    byHigh = k * (2 * high * n - low * slope);
  }
  const edge = (2 * BLEND * high) / (R_AIR * temperature);
  const sum = s * s + edge * edge;
  const root = 1 / Math.sqrt(Math.sqrt(sum));
  const common = (0.5 * s * root) / sum;
  soft.flux = s * root;
  soft.byHigh = byHigh * root - common * (s * byHigh + (edge * edge) / high);
  soft.byLow = byLow * root - common * s * byLow;
  // S and e go as 1/T alike, and so ψ as T^−½.
  soft.byTemperature = (-0.5 * soft.flux) / temperature;
}

/** Flow of a joint and its slopes, between ends at these pressures (Pa absolute) and temperatures (K). Writes into `out`. */
export function jointFlow(law: JointLaw, p1: number, t1: number, p2: number, t2: number, out: JointFlow): void {
  out.flow = out.byFrom = out.byTo = out.byFromTemperature = out.byToTemperature = 0;
  switch (law.type) {
    case "orifice":
    case "one-way": {
      const area = law.effectiveArea;
      if (p1 >= p2) {
        softFlux(p1, p2, t1);
        out.flow = area * soft.flux;
        out.byFrom = area * soft.byHigh;
        out.byTo = area * soft.byLow;
        out.byFromTemperature = area * soft.byTemperature;
      } else if (law.type === "orifice") {
        softFlux(p2, p1, t2);
        out.flow = -area * soft.flux;
        out.byTo = -area * soft.byHigh;
        out.byFrom = -area * soft.byLow;
        out.byToTemperature = -area * soft.byTemperature;
      }
      return;
    }
    case "pipe": {
      const drop = p1 - p2;
      const [high, t] = drop >= 0 ? [p1, t1] : [p2, t2];
      const conductance = 1 / (R_AIR * law.resistance);
      out.flow = (conductance * high * drop) / t;
      const density = (conductance * high) / t;
      const rising = (conductance * drop) / t;
      out.byFrom = density + (drop >= 0 ? rising : 0);
      out.byTo = -density + (drop < 0 ? rising : 0);
      if (drop >= 0) out.byFromTemperature = -out.flow / t;
      else out.byToTemperature = -out.flow / t;
      return;
    }
    case "pump": {
      const against = Math.max(0, p2 - p1);
      const share = 1 - against / law.stallPressure;
      if (share <= 0) return;
      drawFrom(p1);
      out.flow = law.maxFlow * share * drawn.share;
      out.byFrom = law.maxFlow * share * drawn.slope;
      if (against > 0) {
        out.byTo = (-law.maxFlow * drawn.share) / law.stallPressure;
        out.byFrom -= out.byTo;
      }
      return;
    }
    case "regulator": {
      const band = Math.max(BAND.least, BAND.share * Math.abs(law.setPressure - p1));
      const share = Math.min(1, (law.setPressure - p2) / band);
      if (share <= 0) return;
      drawFrom(p1);
      // It opens in an S, 3x² − 2x³: a corner would hold every solver up.
      const open = share * share * (3 - 2 * share);
      out.flow = law.maxFlow * open * drawn.share;
      out.byFrom = law.maxFlow * open * drawn.slope;
      const byShare = (law.maxFlow * drawn.share * 6 * share * (1 - share)) / band;
      out.byTo = -byShare;
      // The band widens with what stands between set and supply.
      if (band > BAND.least) out.byFrom += byShare * share * BAND.share * Math.sign(law.setPressure - p1);
      return;
    }
    case "sweep": {
      drawFrom(p1);
      const swept = law.rate / (R_AIR * t1);
      out.flow = swept * p1 * drawn.share;
      out.byFrom = swept * (drawn.share + p1 * drawn.slope);
      out.byFromTemperature = -out.flow / t1;
      return;
    }
  }
}
