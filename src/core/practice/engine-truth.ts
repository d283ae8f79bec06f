/** The hidden truth of an engine: what is left out is sound. SI. */
export interface EngineTruth {
  readonly displacement: number;
  /** Pa absolute and K */
  readonly ambient: number;
  readonly temperature: number;
  readonly diesel?: boolean;
  readonly banks?: 1 | 2;
  /** Meters air by manifold pressure: what gets in there is counted */
  readonly speedDensity?: boolean;
  /** Boost asked of its turbocharger at full load, Pa gauge */
  readonly boost?: number;
  /** Hole in the manifold, m; none at 0. Seen by one bank only where one is named (0 or 1) */
  readonly hole: number;
  readonly holeBank?: number;
  /** Holes between meter and throttle or compressor, and behind the compressor, m */
  readonly ductHole?: number;
  readonly chargeHole?: number;
  /** Exhaust led back at all times, and air sucked in before the oxygen sensor: as a hole, m */
  readonly backflow?: number;
  readonly exhaustHole?: number;
  /** How many times a sound one's resistance filter and duct have */
  readonly intakeBlock?: number;
  /** Resistance of the exhaust, in 10⁵ Pa·s/m³ for 1.6 L: what clogs it passes gas as a pipe does */
  readonly exhaustBlock?: number;
  /** Share of its breathing that coked ports or worn mechanics take, the first at high flow */
  readonly coked?: number;
  readonly worn?: number;
  /** Share by which fuelling falls short at every flow, and at full flow */
  readonly fuelError?: number;
  readonly supplyShort?: number;
  /** Share that the meter under-reads: everywhere, and at full flow */
  readonly meterLow?: number;
  readonly meterRange?: number;
  /** Idle control cannot shut below this much more than it needs, share */
  readonly idleStuck?: number;
  /** Pressure before its turbine over the manifold's, under boost */
  readonly turbineRatio?: number;
  /** Share of asked boost that vanes or wastegate give */
  readonly boostShare?: number;
  /** Coolant as it is started, K; warm where nobody says */
  readonly coolant?: number;
}

/** Operation: left to idle, held at a speed without load, or on the road at a speed, at a manifold pressure or full throttle. */
export interface Driving {
  /** 1/min; idle control where there is none */
  readonly foot?: number | undefined;
  /** On the road: what holds the speed is the road. `map` Pa absolute; full throttle where none is asked for */
  readonly road?: { readonly rpm: number; readonly map?: number } | undefined;
}
