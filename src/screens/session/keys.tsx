"use client";

import { useEffect, useRef } from "react";
import { STATION_NAMES, STATIONS } from "@/core/journal";
import { takeEarlyKeys } from "@/ui/early-keys";
import { usePreferences } from "./preferences";

export interface KeyAction {
  readonly id: string;
  readonly does: string;
  /** `KeyboardEvent.key` it has until somebody gives it another */
  readonly usual: string;
}

/** Everything a key does on the bench, outside fields. */
export const KEY_ACTIONS: readonly KeyAction[] = [
  ...STATIONS.map((s, i) => ({ id: `station-${i + 1}`, does: `Open ${STATION_NAMES[s]}`, usual: String(i + 1) })),
  { id: "mark", does: "Mark this moment: take a reading of ball and gauge", usual: " " },
  { id: "smoke", does: "I see smoke: mark it", usual: "s" },
  { id: "keys", does: "This list", usual: "?" },
];

export const keyOf = (action: KeyAction, own: Readonly<Record<string, string>>) => own[action.id] ?? action.usual;

/** How a key is written: the space bar has no sign of its own. */
export const keyName = (key: string) => (key === " " ? "Space" : key.length === 1 ? key.toUpperCase() : key);

const FIELDS = "input, textarea, select, [role=slider], [role=dialog]";
const PRESSED_BY_SPACE = "button, a, summary, [role=button], [role=radio]";

/** Recording what is in hand: with Ctrl or Cmd it works from any field, too, and nobody gives it another key. */
const RECORD = "Enter";

/** Runs the handlers by the keys this device gave them, never while something is typed; `record` by Ctrl and Enter. */
export function useKeys(handlers: Readonly<Record<string, (() => void) | undefined>>): void {
  const { preferences } = usePreferences();
  const latest = useRef({ handlers, own: preferences.keys });
  latest.current = { handlers, own: preferences.keys };
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      // This page hears for itself now.
      if (e.isTrusted) takeEarlyKeys();
      if (!(e.target instanceof Element)) return;
      const record = latest.current.handlers.record;
      if (record && (e.ctrlKey || e.metaKey) && e.key === RECORD && !e.repeat && !e.target.closest("[role=dialog]")) {
        e.preventDefault();
        record();
        return;
      }
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.target.closest(FIELDS) || (e.key === " " && e.target.closest(PRESSED_BY_SPACE))) return;
      const pressed = KEY_ACTIONS.find((a) => keyOf(a, latest.current.own).toLowerCase() === e.key.toLowerCase());
      const handler = pressed && latest.current.handlers[pressed.id];
      if (!handler) return;
      e.preventDefault();
      handler();
    };
    window.addEventListener("keydown", onKey);
    // Once all of the page listens.
    const early = setTimeout(() => {
      for (const key of takeEarlyKeys()) document.body.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
    });
    return () => {
      clearTimeout(early);
      window.removeEventListener("keydown", onKey);
    };
  }, []);
}
