"use client";

import { FileUp } from "lucide-react";
import { useState } from "react";
import { BadInput } from "@/core/input";
import { type ObdLog, readObd } from "@/core/scan-log";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote } from "@/ui/field";
import { FileButton } from "@/ui/file-button";
import { usePreferences } from "../../session/preferences";

/** Larger than any hex log of a scan session, bytes. */
const MOST_BYTES = 20e6;

/** Opens a hex log of OBD messages and shows what it says. */
export function ObdImport({ title }: { title: string }) {
  const [log, setLog] = useState<ObdLog>();
  const [error, setError] = useState<string>();
  const take = async (file: File) => {
    setError(undefined);
    setLog(undefined);
    if (file.size > MOST_BYTES) return setError(`${file.name} is larger than ${MOST_BYTES / 1e6} MB: cut it`);
    try {
      setLog(readObd(await file.text()));
    } catch (e) {
      if (!(e instanceof BadInput)) throw e;
      setError(`${e.message}. Nothing was taken over.`);
    }
  };
  return (
    <section aria-label="OBD log" className="flex flex-col gap-3">
      <div>
        <FileButton label={title} accept=".log,.txt,.hex,text/plain" look="plain" onFile={(file) => void take(file)}>
          <FileUp aria-hidden size={18} /> {title}
        </FileButton>
      </div>
      {error && <ErrorNote>{error}</ErrorNote>}
      {log && <ObdLogView log={log} />}
    </section>
  );
}

/** A decoded hex log: its monitors, their values, and every message; unknown ones as bytes. */
export function ObdLogView({ log }: { log: ObdLog }) {
  const { number } = usePreferences();
  const shown = (value: number | string, unit = "") =>
    typeof value === "number" ? `${number(value, Number.isInteger(value) ? 0 : 3)} ${unit}`.trim() : value;
  return (
    <>
      {log.readiness.length > 0 && (
        <p>
          Monitors:{" "}
          {log.readiness.map((r, i) => (
            <span key={r.monitor}>
              {i > 0 && ", "}
              {r.monitor}{" "}
              <strong className={r.complete ? "text-calm" : "text-amber"}>{r.complete ? "complete" : "not complete"}</strong>
            </span>
          ))}
        </p>
      )}
      {log.monitorTests.map((t) => (
        <p key={`${t.monitor} ${t.test}`}>
          {t.monitor}: {shown(t.value, t.unit)}, limits {shown(t.low, t.unit)} to {shown(t.high, t.unit)}:{" "}
          <strong className={t.passed ? "text-calm" : "text-ember"}>{t.passed ? "passed" : "failed"}</strong>
        </p>
      ))}
      <details className="border-y border-line">
        <summary className="flex min-h-11 cursor-pointer items-center">{log.messages.length} messages, decoded</summary>
        <DividedList open className="pb-2">
          {log.messages.slice(0, 200).map((m) => (
            <li key={m.line} className="grid gap-x-4 py-1 sm:grid-cols-[16rem_1fr]">
              <span className="font-mono text-sm break-all text-muted">{m.bytes}</span>
              <span>
                {m.values.length === 0
                  ? "request"
                  : m.values
                      .map(
                        (v) =>
                          `${v.name}: ${shown(v.value, v.unit)}${v.kind === "absolute" ? " abs" : v.kind ? ` ${v.kind}` : ""}`,
                      )
                      .join(" · ")}
              </span>
            </li>
          ))}
        </DividedList>
      </details>
    </>
  );
}
