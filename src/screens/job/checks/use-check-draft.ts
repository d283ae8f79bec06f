"use client";

import { useDraft } from "../../session/storage";
import { useJob } from "../use-job";

/** A check on its way: kept on the device from the first reading; `startedAt` is when that was. */
export function useCheckDraft<T extends object>(name: string, empty: T) {
  const { id } = useJob();
  const [draft, setDraft, clear] = useDraft<T & { startedAt: string }>(`pelota.draft.${id}.${name}`, { ...empty, startedAt: "" });
  const set = (change: Partial<T>) =>
    setDraft((before) => ({ ...before, ...change, startedAt: before.startedAt || new Date().toISOString() }));
  return { draft, set, clear };
}
