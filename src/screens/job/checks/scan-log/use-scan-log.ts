"use client";

import { proxy, type Remote, wrap } from "comlink";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Extraction, ExtractionAim, LoggedCheck } from "@/core/checks/extractors";
import { checkLogSize, type LoggedEngine, type LogHead, type Mapping } from "@/core/scan-log";
import type { Limits } from "@/core/shop/settings";
import type { ImportedLog, ScanLogWorker } from "@/workers/scan-log.worker";

export type LogState =
  | { step: "none" }
  | { step: "head"; file: File; head: LogHead }
  | { step: "importing"; file: File; share: number }
  | { step: "ready"; file: File; log: ImportedLog };

/** A scan log on its way in: the worker does the reading; cancelling ends the worker and keeps nothing. */
export function useScanLog(limits: Limits, engine: LoggedEngine) {
  const [state, setState] = useState<LogState>({ step: "none" });
  const [error, setError] = useState<string>();
  const worker = useRef<{ thread: Worker; api: Remote<ScanLogWorker> } | undefined>(undefined);

  // What is known of the engine decides which unit its numbers can be in.
  const known = useRef(engine);
  known.current = engine;
  // What was begun last counts: an answer to anything earlier comes too late.
  const turn = useRef(0);
  const stop = useCallback(() => {
    worker.current?.thread.terminate();
    worker.current = undefined;
  }, []);
  useEffect(() => stop, [stop]);

  const start = useCallback(() => {
    if (!worker.current) {
      const thread = new Worker(new URL("../../../../workers/scan-log.worker.ts", import.meta.url), { type: "module" });
      worker.current = { thread, api: wrap<ScanLogWorker>(thread) };
    }
    return worker.current.api;
  }, []);

  /** Begins with another file; tells whether nothing else was begun since. */
  const begin = useCallback((file: File) => {
    const mine = ++turn.current;
    setState({ step: "importing", file, share: 0 });
    return () => mine === turn.current;
  }, []);

  /** Reads the head of a file without showing it yet. */
  const peek = useCallback(
    async (file: File, mapping?: Mapping): Promise<LogHead | undefined> => {
      setError(undefined);
      try {
        checkLogSize(file.size);
      } catch (e) {
        setError((e as Error).message);
        setState({ step: "none" });
        return undefined;
      }
      const answer = await start().head(file, mapping, known.current);
      if (answer.ok) return answer.value;
      setError(answer.message);
      setState({ step: "none" });
      return undefined;
    },
    [start],
  );

  /** Reads the head of a file and shows it, unless something else was begun meanwhile. */
  const look = useCallback(
    async (file: File, mapping?: Mapping): Promise<void> => {
      const mine = ++turn.current;
      const head = await peek(file, mapping);
      if (head && mine === turn.current) setState({ step: "head", file, head });
    },
    [peek],
  );

  const read = useCallback(
    async (file: File, mapping: Mapping | undefined): Promise<ImportedLog | undefined> => {
      turn.current++;
      setError(undefined);
      setState({ step: "importing", file, share: 0 });
      const answer = await start().import(
        file,
        mapping,
        known.current,
        limits,
        proxy((share: number) => setState((s) => (s.step === "importing" ? { ...s, share } : s))),
      );
      if (!answer.ok) {
        setError(answer.message);
        setState({ step: "none" });
        return undefined;
      }
      setState({ step: "ready", file, log: answer.value });
      return answer.value;
    },
    [limits, start],
  );

  const cancel = useCallback(() => {
    turn.current++;
    stop();
    setState({ step: "none" });
  }, [stop]);

  const slice = useCallback((...args: Parameters<ScanLogWorker["slice"]>) => start().slice(...args), [start]);

  /** Record a check takes out of the log that was read last; undefined where that was none, or has nothing for it. */
  const extract = useCallback(
    <C extends LoggedCheck>(check: C, ...aim: ExtractionAim<C>): Promise<Extraction<C> | undefined> =>
      start().extract(check, aim) as Promise<Extraction<C> | undefined>,
    [start],
  );

  return {
    state,
    error,
    setError,
    begin,
    peek,
    look,
    read,
    cancel,
    slice,
    extract,
  };
}
/** Whether the engine was warm, as the part of a record that a log fills; nothing where its coolant does not say. */
export const warmth = ({ warm }: ImportedLog) => (warm === undefined ? {} : { warm });

export type ScanLogHandle = ReturnType<typeof useScanLog>;
