import type { ChannelId } from "../scan-log";

/** One row of live readings, as a tool that polls its channels gives them. */
export interface LiveRow {
  /** s since the device was started */
  readonly at: number;
  /** By channel, SI (trims and loads in percent, engine speed in 1/min); a channel that was not polled in this row is left out */
  readonly values: Readonly<Partial<Record<ChannelId, number>>>;
}

/** Who listens to a device while it runs. */
export interface Listener {
  row(row: LiveRow): void;
  /** It stopped by itself: its end was reached, or it was unplugged; `why` says what to do about it. */
  ended(why: string): void;
}

/**
 * A scan tool that is read live. A real one and a stand-in are the same to the bench; a stand-in says that it is simulated, and
 * what is read from it proves nothing of a car.
 */
export interface ScanTool {
  readonly name: string;
  readonly simulated: boolean;
  readonly channels: readonly ChannelId[];
  /** Begins to read. @returns what stops it; stopped, it calls its listener no more. */
  start(listener: Listener): () => void;
}

/** Ball and gauge of a smoke machine: m³/s on the ball's scale, Pa gauge, s since the hose went on. */
export interface SmokeRow {
  readonly at: number;
  readonly flow: number;
  readonly pressure: number;
}

/** A smoke machine whose ball and gauge are read live. */
export interface SmokeMachine {
  readonly name: string;
  readonly simulated: boolean;
  /** The hose goes on: begins to read. @returns what stops it; stopped, it calls nobody more. */
  start(row: (row: SmokeRow) => void): () => void;
}

/** Calls again and again, every so many ms of the wall clock, until the answer is called. */
export type Every = (ms: number, tick: () => void) => () => void;
