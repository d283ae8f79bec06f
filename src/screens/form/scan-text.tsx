"use client";

import { FileUp } from "lucide-react";
import { useMemo, useState } from "react";
import { BadInput } from "@/core/input";
import { MOST_REPORT, readScanReport, type ScanReport } from "@/core/journal";
import { TextArea } from "@/ui/field";
import { FileButton } from "@/ui/file-button";
import { Note } from "@/ui/note";

interface ReadText {
  readonly report?: ScanReport;
  readonly wrong?: string;
}

/** What a pasted scan says; while nothing is pasted, nothing. */
export const useScanText = (text: string): ReadText => useMemo(() => readText(text), [text]);

export function readText(text: string): ReadText {
  if (text.trim() === "") return {};
  try {
    return { report: readScanReport(text) };
  } catch (e) {
    if (!(e instanceof BadInput)) throw e;
    return { wrong: `${e.message}. Nothing was taken from it.` };
  }
}

/** Text of a scan report or an OBD hex log, pasted, dropped or opened: what it fills is said before the job is opened. */
export function ScanText({ text, onText, read }: { text: string; onText: (text: string) => void; read: ReadText }) {
  const [tooLong, setTooLong] = useState<string>();
  const open = async (file: File) => {
    const over = file.size > MOST_REPORT;
    setTooLong(over ? `${file.name} is larger than ${MOST_REPORT / 1e6} MB: cut it` : undefined);
    if (!over) onText(await file.text());
  };
  return (
    <div className="flex flex-col gap-2">
      <TextArea
        label="Scan report or OBD log (optional): paste it or drop the file"
        placeholder="Codes, freeze frames, monitors and the VIN are taken from it"
        className="font-mono text-sm"
        value={text}
        error={tooLong ?? read.wrong}
        onChange={(e) => onText(e.target.value)}
        onDragOver={(e) => e.preventDefault()}
        onDrop={(e) => {
          const [file] = e.dataTransfer.files;
          if (!file) return;
          e.preventDefault();
          void open(file);
        }}
      />
      <div>
        <FileButton label="Scan report or OBD log" accept=".log,.txt,.hex,.csv,text/plain" onFile={(file) => void open(file)}>
          <FileUp aria-hidden size={18} /> Open a file
        </FileButton>
      </div>
      {read.report && <Taken report={read.report} />}
    </div>
  );
}

/** What a scan gives to the job. */
function Taken({ report: { codes, vin, left, readiness } }: { report: ScanReport }) {
  const waiting = readiness.filter((r) => !r.complete).map((r) => r.monitor);
  return (
    <Note tone="live" tight as="section" aria-label="Taken from the scan" className="flex flex-col gap-1">
      <ul className="flex flex-wrap gap-x-4 gap-y-1">
        {codes.map(({ code, status, frame }) => (
          <li key={code}>
            <strong className="font-mono">{code}</strong> {status}
            {frame && <span className="text-muted">, with freeze frame</span>}
          </li>
        ))}
        {codes.length === 0 && <li>No codes</li>}
      </ul>
      {vin && (
        <p>
          VIN <span className="font-mono">{vin}</span>
        </p>
      )}
      {waiting.length > 0 && <p>Monitors not complete: {waiting.join(", ")}</p>}
      {left.length > 0 && <p className="text-amber">Left out, not set by its own line: {left.map((l) => l.code).join(", ")}</p>}
    </Note>
  );
}
