"use client";

import { type ReactNode, useEffect, useRef, useState } from "react";
import type { Mapping } from "@/core/scan-log";
import { ErrorNote } from "@/ui/field";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { LogImport, LogPicker } from "./log-import";
import { useKeptLog } from "./use-kept-log";
import type { ScanLogHandle } from "./use-scan-log";

/** A log on its way into a check: picked, its columns agreed on, read and kept. */
export function LogTake({
  scan,
  take,
  beside,
  aside = false,
  ready = true,
}: {
  scan: ScanLogHandle;
  /** Takes what was read; answers with what was missing in it, and then nothing was taken */
  take: (file: File, log: ImportedLog) => Promise<string | undefined>;
  /** Content in a row with the button */
  beside?: ReactNode;
  /** The readings are typed, or a log fills them in */
  aside?: boolean;
  /** Whether what it is held against is known: until then a log that was read waits */
  ready?: boolean;
}) {
  const [mapping, setMapping] = useState<Mapping>();
  const [error, setError] = useState<string>();
  const keep = useKeptLog(setError);
  const waiting = useRef<{ readonly file: File; readonly log: ImportedLog } | undefined>(undefined);
  const onRead = async (file: File, log: ImportedLog) => {
    waiting.current = ready ? undefined : { file, log };
    if (!ready) return;
    const missing = await take(file, log);
    setError(missing);
    if (missing === undefined) keep(file);
  };
  const takeNow = useRef(onRead);
  takeNow.current = onRead;
  useEffect(() => {
    if (ready && waiting.current) void takeNow.current(waiting.current.file, waiting.current.log);
  }, [ready]);
  return (
    <>
      <div className="flex flex-wrap items-end gap-4">
        {beside}
        <LogPicker scan={scan} onLook={setMapping} onRead={(f, l) => void onRead(f, l)} aside={aside} />
      </div>
      {(!aside || scan.state.step !== "none" || scan.error) && (
        <LogImport scan={scan} mapping={mapping} onMapping={setMapping} onRead={(f, l) => void onRead(f, l)} />
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
    </>
  );
}
