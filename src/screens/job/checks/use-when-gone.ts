"use client";

import { useLayoutEffect, useRef } from "react";
import type { CheckInHand } from "./use-check-form";

/**
 * Stops what reads into a check once that is on its way into the journal, or was discarded: what came after belongs to no record, and a
 * stream that went on would fill the next check with what this one had.
 */
export function useWhenGone({ startedAt, busy }: Pick<CheckInHand, "startedAt" | "busy">, stop: () => void): void {
  const began = useRef(startedAt);
  const latest = useRef(stop);
  latest.current = stop;
  // In the very drawing in which it goes: the next row of a stream comes after it.
  useLayoutEffect(() => {
    const gone = began.current !== "" && began.current !== startedAt;
    began.current = startedAt;
    if (gone || busy) latest.current();
  }, [startedAt, busy]);
}
