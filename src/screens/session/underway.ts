"use client";

import { useCallback, useEffect, useRef, useState } from "react";

/** Drafts on their way into the journal, by the key they are kept under */
const underway = new Set<string>();
/** Whoever shows a draft, by its key: the same one may have been left and come back to meanwhile */
const shown = new Map<string, Set<Shown>>();

interface Shown {
  readonly onBusy: (busy: boolean) => void;
  readonly onEmptied: () => void;
}

const tell = (key: string, what: (one: Shown) => void) => {
  for (const one of shown.get(key) ?? []) what(one);
};

/** Tells whoever shows a draft that it is gone. */
export function emptied(key: string): void {
  tell(key, (one) => one.onEmptied());
}

/** Outcome of sending a draft: in, or what was wrong with it; neither where it was on its way already. */
export interface Sent {
  readonly done: boolean;
  readonly wrong?: string | undefined;
}

async function send(key: string, work: () => Promise<string | undefined>, clear: () => void): Promise<Sent> {
  if (underway.has(key)) return { done: false };
  underway.add(key);
  tell(key, (one) => one.onBusy(true));
  try {
    const wrong = await work();
    if (!wrong) clear();
    return { done: !wrong, wrong };
  } finally {
    underway.delete(key);
    tell(key, (one) => one.onBusy(false));
  }
}

/**
 * A draft on its way: from the moment it is sent until there is an answer nothing is changed in it, since that would be
 * neither in the record nor kept; once it is in, it is empty wherever it is shown.
 * @param clear forgets the draft, and tells so by `emptied`. @param onEmptied shows it as empty.
 */
export function useUnderway(key: string, clear: () => void, onEmptied: () => void) {
  const [busy, setBusy] = useState(false);
  const later = useRef<(() => void)[]>([]);
  useEffect(() => {
    const onBusy = (now: boolean) => {
      setBusy(now);
      if (now) return;
      const waited = later.current;
      later.current = [];
      for (const change of waited) change();
    };
    const one: Shown = { onBusy, onEmptied };
    const all = shown.get(key) ?? new Set();
    shown.set(key, all.add(one));
    setBusy(underway.has(key));
    return () => {
      all.delete(one);
      if (all.size === 0) shown.delete(key);
    };
  }, [key, onEmptied]);
  return {
    busy,
    /** Sends it; what is asked for again meanwhile is not done twice */
    send: useCallback((work: () => Promise<string | undefined>) => send(key, work, clear), [key, clear]),
    /** Makes a change, or once there is an answer: what a log or a device brings meanwhile belongs to the next one */
    whenFree: useCallback(
      (change: () => void) => {
        if (underway.has(key)) later.current.push(change);
        else change();
      },
      [key],
    ),
  };
}
