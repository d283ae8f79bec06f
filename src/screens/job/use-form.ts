"use client";

import { useState } from "react";
import type { NewEntry } from "../session/device";
import { useDraft } from "../session/storage";
import { useJob } from "./use-job";

/**
 * A form whose filling is a draft on the device until it is recorded.
 * `record` clears the draft when the entries are in and keeps it, with what was wrong, when they are not.
 */
export function useForm<T extends object>(name: string, initial: T) {
  const { id, append } = useJob();
  const [draft, setDraft, clear] = useDraft<T>(`pelota.draft.${id}.${name}`, initial);
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);
  return {
    draft,
    set: (change: Partial<T>) => setDraft((before) => ({ ...before, ...change })),
    error,
    setError,
    busy,
    async record(...entries: NewEntry[]): Promise<boolean> {
      setBusy(true);
      const wrong = await append(...entries);
      setBusy(false);
      setError(wrong);
      if (!wrong) clear();
      return !wrong;
    },
  };
}
