"use client";

import { type ReactNode, useState } from "react";
import { Button } from "@/ui/button";
import { TextField } from "@/ui/field";

/** When something was that is written down later; nothing stands for just now. */
export interface When {
  /** ISO 8601; undefined for just now, and while it is not a moment that has been */
  readonly at: string | undefined;
  readonly wrong: boolean;
  /** Whether its field stands there, with its label above it */
  readonly open: boolean;
  readonly field: ReactNode;
  readonly clear: () => void;
}

/** @param label what is put at that time. */
export function useWhen(label: string): When {
  const [typed, setTyped] = useState("");
  const [open, setOpen] = useState(false);
  const moment = typed ? new Date(typed) : undefined;
  const known = moment !== undefined && Number.isFinite(moment.getTime());
  const ahead = known && moment.getTime() > Date.now();
  return {
    at: known && !ahead ? moment.toISOString() : undefined,
    wrong: typed !== "" && (!known || ahead),
    open,
    field: !open ? (
      <Button look="bare" aria-label={`Done earlier: ${label.toLowerCase()}`} onClick={() => setOpen(true)}>
        Done earlier
      </Button>
    ) : (
      <TextField
        type="datetime-local"
        label={label}
        hint="Left empty: just now"
        error={ahead ? "That time is in the future: check day and clock" : undefined}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
    ),
    clear: () => {
      setTyped("");
      setOpen(false);
    },
  };
}
