"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import { draftOver } from "./draft";
import { emptied, useUnderway } from "./underway";

/** Reads JSON from this device's storage; undefined when there is none or it is damaged. */
export function load<T>(key: string): T | undefined {
  try {
    const text = localStorage.getItem(key);
    return text === null ? undefined : (JSON.parse(text) as T);
  } catch {
    return undefined;
  }
}

/** Keys of this device's storage that begin so. */
export function keysOf(prefix: string): string[] {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(prefix));
  } catch {
    return [];
  }
}

export function save(key: string, value: unknown): void {
  try {
    if (value === undefined) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // A full or forbidden storage loses the draft, never the work on screen.
  }
}

/**
 * State that survives a closed browser: half-filled forms and running checks are drafts on the device, never entries.
 * While nothing was typed the value follows `initial`, so that a form shows what has been recorded meanwhile.
 * @returns value, setter, `clear`, and how it is sent: it is empty once it has become an entry.
 */
export function useDraft<T>(
  key: string,
  initial: T,
): [T, (next: T | ((before: T) => T)) => void, () => void, Pick<ReturnType<typeof useUnderway>, "busy" | "send">] {
  const [draft, setDraft] = useState<{ readonly value: T }>();
  const latest = useRef(initial);
  latest.current = initial;
  useEffect(() => {
    const saved = load<unknown>(key);
    setDraft(saved === undefined ? undefined : { value: draftOver(latest.current, saved) });
  }, [key]);
  const set = useCallback(
    (next: T | ((before: T) => T)) =>
      setDraft((before) => {
        const value = typeof next === "function" ? (next as (before: T) => T)(before ? before.value : latest.current) : next;
        save(key, value);
        return { value };
      }),
    [key],
  );
  const clear = useCallback(() => {
    save(key, undefined);
    emptied(key);
  }, [key]);
  const onEmptied = useCallback(() => setDraft(undefined), []);
  const sending = useUnderway(key, clear, onEmptied);
  return [draft ? draft.value : initial, set, clear, sending];
}
