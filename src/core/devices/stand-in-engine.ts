import { type EngineTruth, PracticeEngine } from "../practice/engine";
import type { ChannelId } from "../scan-log";
import type { Every, ScanTool } from "./device";

/** How often the stand-in is moved on, ms, and how often it has polled all its channels, s. */
const TICK = 200;
const POLLS = 0.5;

const CHANNELS: readonly ChannelId[] = [
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
}

/**
 * A simulated warm petrol engine with its scan tool, running by the wall clock or a multiple of it: in place of a car where there is
 * none. @param truth what nobody is told; @param every the clock it runs by.
 */
export function standInEngine(truth: EngineTruth, seed: number, every: Every, pace = 1): StandInEngine {
  const engine = new PracticeEngine(truth, seed);
  return {
    name: "Stand-in engine",
    simulated: true,
    channels: CHANNELS,
    hold(rpm) {
      engine.driving = { foot: rpm };
    },
    start(listener) {
      let over = false;
      const begun = engine.time;
      let polled = begun;
      let due = begun;
      const stop = every(TICK, () => {
        if (over) return;
        due += (TICK / 1000) * pace;
        while (polled + POLLS <= due) {
          polled += POLLS;
          engine.advance(polled);
          listener.row({ at: polled - begun, values: engine.read() });
        }
      });
      return () => {
        over = true;
        stop();
      };
    },
  };
}
