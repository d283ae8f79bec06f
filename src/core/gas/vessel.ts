import { GAMMA, R_AIR } from "./air";
import { massFlux } from "./orifice";

/**
 * Settling time constant of a filled circuit, s: τ ≈ (V·p_set/p_amb)/Q_max (ideal gas, isothermal).
 * @param fill volume m³, setPressure Pa gauge, ambient Pa absolute, maxFlow m³/s standard.
 */
export function settleTimeConstant(fill: { volume: number; setPressure: number; ambient: number; maxFlow: number }): number {
  return (fill.volume * fill.setPressure) / fill.ambient / fill.maxFlow;
}

/**
 * Time for smoke to arrive at the far end of a swept path, s: V_path/Q of through-flow (plug flow).
 * A dead end has no through-flow: infinite. @param pathVolume m³; @param throughFlow m³/s.
 */
export function smokeArrivalTime(pathVolume: number, throughFlow: number): number {
  return throughFlow > 0 ? pathVolume / throughFlow : Infinity;
}

export interface ClosedVessel {
  /** m³ */
  readonly volume: number;
  /** Cd·A of everything it leaks through, m²; negative values mirror the flow and serve only the fit. */
  readonly effectiveArea: number;
  /** Pa absolute */
  readonly ambient: number;
  /** Wall temperature at t = 0, K */
  readonly wallTemperature: number;
  /** Gas above wall temperature at t = 0, K: what is left of the fill's heating. */
  readonly gasExcess: number;
  /** Change of wall temperature, K/s */
  readonly drift: number;
  /** Wall heat exchange time constant, s: gas excess decays as exp(−t/τ). */
  readonly wallTime: number;
}

/**
 * Gauge pressure (Pa) of a shut vessel at each time (s, rising, from the moment of shut-off).
 * Energy and mass balance of an ideal gas with wall exchange:
 *   dp/dt = −γ·R·T·ṁ/V − p·(T − T_w)/(T·τ),  dT/dt = −(γ−1)·T·ṁ·R·T/(p·V) − (T − T_w)/τ
 * (Çengel & Boles, unsteady-flow energy balance). Runge–Kutta 4, steps short against emptying and τ.
 */
export function pressureDecay(vessel: ClosedVessel, startPressure: number, times: readonly number[]): number[] {
  const { volume, effectiveArea, ambient, wallTemperature, drift, wallTime } = vessel;
  let t = 0;
  let p = ambient + startPressure;
  let temperature = wallTemperature + vessel.gasExcess;
  const leak = (GAMMA * effectiveArea * R_AIR) / volume;
  // This is what a fit spends its time in: one loop over plain numbers.
  return times.map((target) => {
    while (t < target - 1e-9) {
      let h = 0;
      let rate = 0;
      let gasRate = 0;
      let sum = 0;
      let gasSum = 0;
      for (let stage = 0; stage < 4; stage++) {
        const ahead = h * (STAGE_AHEAD[stage] as number);
        const pressure = p + ahead * rate;
        const gas = temperature + ahead * gasRate;
        const exchange = (gas - wallTemperature - drift * (t + ahead)) / wallTime;
        const outflow = leak * massFlux(pressure, ambient, gas) * gas;
        rate = -outflow - (pressure * exchange) / gas;
        gasRate = (-((GAMMA - 1) / GAMMA) * outflow * gas) / pressure - exchange;
        if (stage === 0) {
          const empties = (0.25 * Math.abs(p - ambient) + 2) / Math.abs(rate);
          h = Math.min(target - t, 10, 0.4 * wallTime, Math.max(0.02, empties));
        }
        sum += (STAGE_WEIGHT[stage] as number) * rate;
        gasSum += (STAGE_WEIGHT[stage] as number) * gasRate;
      }
      p += h * sum;
      temperature += h * gasSum;
      t += h;
    }
    return p - ambient;
  });
}

/** Runge–Kutta 4: how far into the step each stage looks, and what it weighs. */
const STAGE_AHEAD = [0, 1 / 2, 1 / 2, 1];
const STAGE_WEIGHT = [1 / 6, 1 / 3, 1 / 3, 1 / 6];

/**
 * Temperature rise of gas filled adiabatically to a small gauge pressure, K: ΔT = T·(γ−1)/γ·Δp/p.
 * The most a fast fill can heat. @param temperature K; @param pressure Pa gauge; @param ambient Pa absolute.
 */
export function fillHeating(temperature: number, pressure: number, ambient: number): number {
  return (temperature * (GAMMA - 1) * pressure) / (GAMMA * ambient);
}
