import { type OperatingState, operatingState } from "@/core/practice/engine";
import type { Driving, EngineTruth } from "@/core/practice/engine-truth";

/** The hidden truth of a made-up car's engine. SI. */
export interface HiddenEngine extends EngineTruth {
  /** Where its hole is, when its job is about the place */
  readonly holeAt?: string;
  /** Leakage of a standing engine's open valves into the exhaust, as one hole, m */
  readonly valvesPass?: number;
}

/** The engine as it stands at a point, warm, its trims where closed loop comes to. */
export const standsAt = (engine: HiddenEngine, driving: Driving = {}): OperatingState => operatingState(engine, driving, 1);
