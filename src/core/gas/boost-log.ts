/** One moment of a log, pressures absolute, Pa; temperature K; flow kg/s. */
export interface BoostPoint {
  /** s on the log's clock */
  readonly time?: number;
  /** 1/min; 0 with the engine standing and the key on */
  readonly rpm: number;
  /** In the manifold */
  readonly map?: number;
  /** Before the throttle, where it has a sensor of its own */
  readonly charge?: number;
  /** Pressure the ECU asks for */
  readonly asked?: number;
  readonly maf?: number;
  readonly chargeTemperature: number;
  /** Total closed-loop fuel trim, share, mean of the banks */
  readonly trim?: number;
  /** Of the turbocharger's vanes or gate, 0…1 */
  readonly actuator?: { readonly command: number; readonly position: number };
  /** With the engine standing, where fitted: the ECU's own ambient sensor, exhaust pressure, and the filter's difference, Pa */
  readonly barometer?: number;
  readonly exhaust?: number;
  readonly filter?: number;
  /** How fast it moves meanwhile, where that is known */
  readonly moving?: {
    /** Of the charge pressure, Pa/s */
    readonly pressure: number;
    /** Of the charge temperature, K/s */
    readonly temperature: number;
    /** Of the metered flow, share of it in a second */
    readonly flow: number;
  };
}

export interface BoostLog {
  /** Pa absolute */
  readonly ambient: number;
  readonly fuel: "petrol" | "diesel";
  /** m³ */
  readonly displacement: number;
  readonly egr: "shut" | "open" | "unknown";
  /** Breathing of this very engine off boost, on manifold density, read off a log when it was sound */
  readonly known?: number;
  readonly points: readonly BoostPoint[];
}

/** Pressure that was delivered, Pa absolute, of a point that has one of its two. */
export const delivered = ({ charge, map }: BoostPoint) => (charge ?? map) as number;

/** Boost that moves no faster stands still, Pa/s. */
const STILL = 8e3;
/** @param rate of the charge pressure, Pa/s. */
export const standsStill = (rate: number): boolean => Math.abs(rate) <= STILL;
