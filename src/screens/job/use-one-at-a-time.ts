"use client";

import { useCallback, useRef } from "react";

/** Runs one at a time: what is asked for again while it still runs, by a second tap or a key held down, is not done twice. */
export function useOneAtATime<T>(): (work: () => Promise<T>) => Promise<T | undefined> {
  const running = useRef(false);
  return useCallback(async (work) => {
    if (running.current) return undefined;
    running.current = true;
    try {
      return await work();
    } finally {
      running.current = false;
    }
  }, []);
}
