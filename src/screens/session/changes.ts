"use client";

import { useEffect } from "react";

/** Callback when a job was written to; without a job, when anything may have been missed. */
type Heard = (jobId?: string) => void;
const listeners = new Set<Heard>();

/** Calls `heard` whenever another device writes; it must stay the same between drawings. */
export function useChanges(heard: Heard): void {
  useEffect(() => {
    listeners.add(heard);
    return () => {
      listeners.delete(heard);
    };
  }, [heard]);
}

/** A stream that the server refused is tried again after so long, ms. */
const TRY_AGAIN = 10_000;

/**
 * Listens to the server for as long as this tab is seen: a browser keeps only a handful of connections to one server, and
 * hidden tabs would use them up.
 */
export function useChangeStream(): void {
  useEffect(() => {
    let source: EventSource | undefined;
    let again: ReturnType<typeof setTimeout> | undefined;
    const tell: Heard = (jobId) => {
      for (const heard of listeners) heard(jobId);
    };
    const close = () => {
      source?.close();
      source = undefined;
      clearTimeout(again);
    };
    const open = () => {
      close();
      if (document.visibilityState !== "visible") return;
      const here = new EventSource("/api/v1/changes");
      source = here;
      // What was written before the stream stood was not heard.
      here.onopen = () => tell();
      here.onmessage = (event) => tell((JSON.parse(event.data) as { jobId: string }).jobId);
      here.onerror = () => {
        if (here.readyState === EventSource.CLOSED) again = setTimeout(open, TRY_AGAIN);
      };
    };
    open();
    document.addEventListener("visibilitychange", open);
    return () => {
      document.removeEventListener("visibilitychange", open);
      close();
    };
  }, []);
}
