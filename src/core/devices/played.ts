import { isSeries } from "../checks/readings";
import type { Every } from "./device";

/** Timed readings of a record, s and a value in its own unit, from the first on. */
type Series = readonly (readonly [seconds: number, value: number])[];

/** A series of a record, where it stands in it, and how long it lasts, s. */
interface Timed {
  readonly path: readonly string[];
  readonly series: Series;
  readonly seconds: number;
}

function timedIn(value: unknown, path: readonly string[] = []): Timed[] {
  if (isSeries(value) && value.length > 1) {
    const [first, last] = [value[0], value.at(-1)] as [Series[number], Series[number]];
    return [{ path, series: value, seconds: last[0] - first[0] }];
  }
  if (typeof value !== "object" || value === null || Array.isArray(value)) return [];
  return Object.entries(value).flatMap(([key, one]) => timedIn(one, [...path, key]));
}

function withAt(value: object, path: readonly string[], change: unknown): object {
  const [key, ...rest] = path as [string, ...string[]];
  const inner = (value as Record<string, unknown>)[key];
  return { ...value, [key]: rest.length === 0 ? change : withAt(inner as object, rest, change) };
}

/** How long a record takes to read: its series one after the other, s; 0 where it has none. */
export const playTime = (record: object): number => timedIn(record).reduce((sum, { seconds }) => sum + seconds, 0);

/**
 * A record as it stands `at` seconds after it was begun: what comes later in its series is not there yet. They follow each other in the
 * order they stand in the record; each begins with its first reading as the one before it ends.
 */
export function playedUntil(record: object, at: number): object {
  let begins = 0;
  return timedIn(record).reduce((part, { path, series, seconds }) => {
    const from = (series[0] as Series[number])[0];
    const shown = series.filter(([t]) => begins + t - from <= at);
    begins += seconds;
    return withAt(part, path, shown);
  }, record);
}

/** An instrument that is read over a time: what it has shown so far, as its record has it. */
export interface TimedInstrument {
  readonly seconds: number;
  /** Begins to read. @returns what stops it; stopped, it calls nobody more: what came until then stays */
  start(listener: { part(record: object, at: number): void; ended(record: object): void }): () => void;
}

/** How often an instrument is read, ms of the wall clock. */
const TICK = 500;

/** Gauge, manometer, hand pump or tester on a simulated car: the record that it makes, as it comes. @param pace times the clock. */
export function playedInstrument(record: object, every: Every, pace: number): TimedInstrument {
  const seconds = playTime(record);
  return {
    seconds,
    start(listener) {
      let at = 0;
      let over = false;
      listener.part(playedUntil(record, 0), 0);
      const stop = every(TICK, () => {
        if (over) return;
        at = Math.min(seconds, at + (TICK / 1000) * pace);
        if (at < seconds) return listener.part(playedUntil(record, at), at);
        over = true;
        stop();
        listener.ended(record);
      });
      return () => {
        over = true;
        stop();
      };
    },
  };
}
