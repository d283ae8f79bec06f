"use client";

import { useCallback, useEffect, useRef, useState } from "react";

/** Reads JSON from this device's storage; undefined when there is none or it is damaged. */
export function load<T>(key: string): T | undefined {
  try {
    const text = localStorage.getItem(key);
    return text === null ? undefined : (JSON.parse(text) as T);
  } catch {
    return undefined;
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
 * @returns value, setter, and `clear` for when the draft has become an entry.
 */
export function useDraft<T>(key: string, initial: T): [T, (next: T | ((before: T) => T)) => void, () => void] {
  const [value, setValue] = useState(initial);
  const first = useRef(initial);
  useEffect(() => {
    const saved = load<T>(key);
    setValue(saved === undefined ? first.current : saved);
  }, [key]);
  const set = useCallback(
    (next: T | ((before: T) => T)) =>
      setValue((before) => {
        const after = typeof next === "function" ? (next as (before: T) => T)(before) : next;
        save(key, after);
        return after;
      }),
    [key],
  );
  const clear = useCallback(() => {
    save(key, undefined);
    setValue(first.current);
  }, [key]);
  return [value, set, clear];
}
