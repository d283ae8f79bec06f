import { PracticeEngine } from "../practice/engine";
import type { EngineTruth } from "../practice/engine-truth";
import type { ChannelId } from "../scan-log";
import type { Every, ScanTool } from "./device";

/** How often the stand-in is moved on where nobody says, ms, and how often it has polled all its channels, s. */
const TICK = 200;
const POLLS = 0.5;

/** Values a scan tool reads of it. */
export const ENGINE_CHANNELS: readonly ChannelId[] = [
  "rpm",
  "maf",
  "map",
  "barometer",
  "intake-temperature",
  "coolant",
  "short-trim-1",
  "long-trim-1",
  "loop",
];

/** A scan tool on a simulated engine, whose speed somebody holds. */
export interface StandInEngine extends ScanTool {
  /** 1/min; idle where none is given */
  hold(rpm: number | undefined): void;
  /** Enrichment gas is brought to a joint: the engine answers where its hole is there */
  tap(joint: string): void;
}

/**
 * A simulated warm petrol engine with its scan tool, running by the wall clock or a multiple of it: in place of a car where there is
 * none. @param truth what nobody is told; @param every the clock it runs by; @param tick how often it is moved on, ms.
 * @param drinks whether gas at a joint reaches its hole.
 */
export function standInEngine(
  truth: EngineTruth,
  seed: number,
  every: Every,
  pace = 1,
  tick = TICK,
  drinks: (joint: string) => boolean = () => false,
): StandInEngine {
  const engine = new PracticeEngine(truth, seed);
  return {
    name: "Stand-in engine",
    simulated: true,
    channels: ENGINE_CHANNELS,
    hold(rpm) {
      engine.driving = { foot: rpm };
    },
    tap(joint) {
      if (drinks(joint)) engine.enrich();
    },
    start(listener) {
      let over = false;
      const begun = engine.time;
      let polled = begun;
      let due = begun;
      const stop = every(tick, () => {
        if (over) return;
        due += (tick / 1000) * pace;
        while (polled + POLLS <= due) {
          polled += POLLS;
          engine.advance(polled);
          listener.row({ at: polled - begun, values: engine.read() });
        }
        engine.advance(due);
      });
      return () => {
        over = true;
        stop();
      };
    },
  };
}
