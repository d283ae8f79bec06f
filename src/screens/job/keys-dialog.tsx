"use client";

import { useState } from "react";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { DividedList } from "@/ui/divided-list";
import { KEY_ACTIONS, keyName, keyOf } from "../session/keys";
import { usePreferences } from "../session/preferences";

/** Keyboard shortcuts, and another key for it on this device. */
export function KeysDialog({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const { preferences, change } = usePreferences();
  const [asked, setAsked] = useState<string>();
  const own = preferences.keys;
  const take = (id: string, key: string) => {
    // Two actions cannot share a key: the one that had it gets the other's in exchange.
    const before = KEY_ACTIONS.find((a) => keyOf(a, own).toLowerCase() === key.toLowerCase() && a.id !== id);
    const freed = KEY_ACTIONS.find((a) => a.id === id);
    change({ keys: { ...own, [id]: key, ...(before && freed ? { [before.id]: keyOf(freed, own) } : {}) } });
    setAsked(undefined);
  };
  return (
    <Dialog
      open={open}
      onOpenChange={onOpenChange}
      title="Keys"
      description="They work anywhere on the bench but in a field. Ctrl and Enter record what is in hand, from a field too. Ball and gauge move by the arrow keys, in big steps by Page up and down."
    >
      <DividedList open>
        {KEY_ACTIONS.map((action) => (
          <li key={action.id} className="flex items-center justify-between gap-3 py-1">
            <span>{action.does}</span>
            <Button
              className="min-w-24 font-mono"
              aria-label={asked === action.id ? `Press the new key for: ${action.does}` : `Change the key of: ${action.does}`}
              onClick={() => setAsked(action.id)}
              onBlur={() => setAsked(undefined)}
              onKeyDown={(e) => {
                if (asked !== action.id || ["Tab", "Escape", "Shift"].includes(e.key)) return;
                e.preventDefault();
                take(action.id, e.key);
              }}
            >
              {asked === action.id ? "Press a key" : keyName(keyOf(action, own))}
            </Button>
          </li>
        ))}
      </DividedList>
      <Button className="mt-4" onClick={() => change({ keys: {} })}>
        Back to the usual keys
      </Button>
    </Dialog>
  );
}
