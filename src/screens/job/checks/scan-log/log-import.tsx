"use client";

import { FileUp } from "lucide-react";
import {
  bestGuesses,
  CHANNELS,
  type ChannelId,
  type ColumnChoice,
  channelById,
  decidedOn,
  type HeaderMatch,
  type LogHead,
  type Mapping,
} from "@/core/scan-log";
import { type Dimension, type UnitId, unitsOf } from "@/core/units";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { FileButton } from "@/ui/file-button";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { getJson, sendJson } from "../../../session/api";
import { usePreferences } from "../../../session/preferences";
import type { ScanLogHandle } from "./use-scan-log";

/** Picks a CSV: read at once where its headers were decided on before, else its head is looked at first. */
export function LogPicker({
  scan,
  onLook,
  onRead,
  aside = false,
}: {
  scan: ScanLogHandle;
  onLook: (mapping: Mapping | undefined) => void;
  onRead: (file: File, log: ImportedLog) => void;
  /** A log is one way of two, and the other is in use */
  aside?: boolean;
}) {
  const take = async (file: File) => {
    const mine = scan.begin(file);
    const head = await scan.peek(file);
    if (!head || !mine()) return;
    const saved = (await getJson<Mapping | null>(`mappings/${head.signature}`).catch(() => null)) ?? undefined;
    const decided = saved && (await scan.peek(file, saved));
    if (!mine()) return;
    onLook(saved);
    if (decided?.problems.length !== 0) return scan.look(file, saved);
    const log = await scan.read(file, saved);
    if (log) onRead(file, log);
  };
  if (scan.state.step === "importing") return null;
  const fresh = scan.state.step === "none";
  return (
    <FileButton
      label="Scan-tool log"
      accept=".csv,.txt,.tsv,.log,.xlsx,text/csv"
      look={fresh && !aside ? "primary" : "plain"}
      onFile={(file) => void take(file)}
    >
      <FileUp aria-hidden size={18} /> {fresh ? "Choose a log (CSV)" : "Choose another log"}
    </FileButton>
  );
}

/** How the log's columns were understood; the user corrects that once, then it is read with progress. */
export function LogImport({
  scan,
  mapping,
  onMapping,
  onRead,
}: {
  scan: ScanLogHandle;
  mapping: Mapping | undefined;
  onMapping: (mapping: Mapping) => void;
  onRead: (file: File, log: ImportedLog) => void;
}) {
  const { state } = scan;
  const read = async (file: File, { signature, matches }: LogHead) => {
    const log = await scan.read(file, mapping);
    if (!log) return;
    onRead(file, log);
    // Only what has been read is worth remembering, each column as it was shown.
    await sendJson("PUT", `mappings/${signature}`, decidedOn(matches, mapping)).catch((e: Error) =>
      scan.setError(`The mapping could not be remembered: ${e.message}`),
    );
  };
  const choose = async (file: File, matches: readonly HeaderMatch[], header: string, choice: ColumnChoice) => {
    const all: Record<string, ColumnChoice> = { ...mapping, [header]: choice };
    // What a column takes over, the others let go.
    if (choice.channel) {
      for (const m of matches)
        if (m.header !== header && (all[m.header]?.channel ?? m.channel) === choice.channel) all[m.header] = { channel: null };
    }
    onMapping(all);
    await scan.look(file, all);
  };

  const guess = async (file: File, matches: readonly HeaderMatch[]) => {
    const all = { ...mapping, ...bestGuesses(matches) };
    onMapping(all);
    await scan.look(file, all);
  };

  return (
    <div className="flex flex-col gap-4">
      {state.step === "none" && (
        <p className="text-muted">
          Any scan tool's CSV, or an .xlsx workbook: every delimiter, decimal comma, units in headers, a second row or the cells.
        </p>
      )}
      {scan.error && <ErrorNote>{scan.error}</ErrorNote>}
      {state.step === "importing" && (
        <div className="flex items-center gap-4">
          <progress aria-label="Reading the log" className="h-3 grow accent-[var(--accent)]" value={state.share} max={1} />
          <span className="font-mono">{Math.round(state.share * 100)} %</span>
          <Button onClick={scan.cancel}>Cancel</Button>
        </div>
      )}
      {state.step === "ready" && (
        <div>
          <Button onClick={() => void scan.look(state.file, mapping)}>Change how the columns are understood</Button>
        </div>
      )}
      {state.step === "head" && (
        <>
          <ColumnTable
            matches={state.head.matches}
            sample={state.head.sample}
            onChoose={(header, choice) => void choose(state.file, state.head.matches, header, choice)}
            remembered={mapping !== undefined}
          />
          {state.head.problems.map((p) => (
            <ErrorNote key={p.message}>{p.message}</ErrorNote>
          ))}
          <div className="flex flex-wrap gap-3">
            {Object.keys(bestGuesses(state.head.matches)).length > 0 && (
              <Button onClick={() => void guess(state.file, state.head.matches)}>Use the units that fit</Button>
            )}
            <Button look="primary" disabled={state.head.problems.length > 0} onClick={() => void read(state.file, state.head)}>
              Read the log with these columns
            </Button>
          </div>
        </>
      )}
    </div>
  );
}

const CHANNEL_OPTIONS = [["", "Not used"], ...CHANNELS.map((c) => [c.id, c.name])] as [string, string][];

/** So many numbers of a column stand beside its name. */
const SHOWN = 3;

function ColumnTable({
  matches,
  sample,
  onChoose,
  remembered,
}: {
  matches: readonly HeaderMatch[];
  /** Numbers of the first rows by column */
  sample: LogHead["sample"];
  onChoose: (header: string, choice: ColumnChoice) => void;
  remembered: boolean;
}) {
  const { number } = usePreferences();
  const numbers = (column: number) =>
    (sample[column] ?? [])
      .filter(Number.isFinite)
      .slice(0, SHOWN)
      .map((v) => number(v, Number.isInteger(v) ? 0 : 2))
      .join(" · ");
  const unitOptions = (channel: ChannelId | undefined): UnitId[] => {
    if (!channel) return [];
    const { measures } = channelById(channel);
    return unitsOf(measures as Dimension);
  };
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-left sm:min-w-[40rem]">
        <caption className="pb-2 text-left text-muted">
          How the columns are understood{remembered ? ", as you decided before for these headers" : ""}. Correct what is wrong; it
          is remembered for these headers.
        </caption>
        <thead className="max-sm:hidden">
          <tr className="border-b border-line text-sm text-muted">
            <th className="py-1 pr-3 font-normal">Header in the file</th>
            <th className="pr-3 font-normal">Taken as</th>
            <th className="pr-3 font-normal">Unit</th>
            <th className="font-normal">Sure</th>
          </tr>
        </thead>
        <tbody>
          {matches.map((m) => (
            <tr
              key={m.column}
              className="border-b border-line max-sm:grid max-sm:grid-cols-[1fr_8rem] max-sm:gap-x-2 max-sm:py-2"
            >
              <td className="py-1 pr-3 font-mono text-sm max-sm:col-span-2">
                {m.header}
                <span className="block text-muted">{numbers(m.column)}</span>
              </td>
              <td className="pr-3 max-sm:pr-0">
                <select
                  aria-label={`Channel of ${m.header}`}
                  className="min-h-11 w-full rounded-md border border-edge bg-raised px-2"
                  value={m.channel ?? ""}
                  onChange={(e) => onChoose(m.header, { channel: (e.target.value || null) as ChannelId | null })}
                >
                  {CHANNEL_OPTIONS.map(([id, name]) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </select>
              </td>
              <td className="pr-3">
                {unitOptions(m.channel).length > 0 ? (
                  <select
                    aria-label={`Unit of ${m.header}`}
                    className="min-h-11 rounded-md border border-edge bg-raised px-2"
                    value={m.unitFrom === "asked" ? "" : (m.unit ?? "")}
                    onChange={(e) => m.channel && onChoose(m.header, { channel: m.channel, unit: e.target.value as UnitId })}
                  >
                    {(!m.unit || m.unitFrom === "asked") && <option value="">choose</option>}
                    {unitOptions(m.channel).map((u) => (
                      <option key={u} value={u}>
                        {u}
                        {m.unitFrom === "asked" && m.candidates?.includes(u) ? ": fits" : ""}
                      </option>
                    ))}
                  </select>
                ) : (
                  <span className="text-muted">{m.channel ? "as logged" : ""}</span>
                )}
                {m.unitFrom === "worked-out" && (
                  <span className="block text-sm text-muted">the only one that fits its numbers</span>
                )}
                {m.unitFrom === "asked" && <span className="block text-sm text-amber">not in the file</span>}
              </td>
              <td className={`whitespace-nowrap font-mono max-sm:hidden ${m.channel && m.confidence < 0.7 ? "text-amber" : ""}`}>
                {m.channel ? `${Math.round(m.confidence * 100)} %` : "–"}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
