"use client";

import { load, save } from "./storage";

/** So many jobs' worth is kept; what was seen longest ago goes first. */
const KEPT = 40;

/** Something about jobs as the server said it last, for when it is away. */
export interface Lately<T> {
  readonly known: (jobId: string) => T | undefined;
  /** Keeps it; undefined forgets it */
  readonly keep: (jobId: string, value: T | undefined) => void;
}

/** @param key under which this device keeps it. */
export function lately<T>(key: string): Lately<T> {
  const all = () => {
    const kept = load<unknown>(key);
    return Array.isArray(kept) ? (kept as [string, T][]) : [];
  };
  return {
    known: (jobId) => all().find(([id]) => id === jobId)?.[1],
    keep: (jobId, value) => {
      const others = all().filter(([id]) => id !== jobId);
      save(key, value === undefined ? others : [[jobId, value], ...others].slice(0, KEPT));
    },
  };
}
