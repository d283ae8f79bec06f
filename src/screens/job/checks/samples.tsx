"use client";

import { useEffect, useState } from "react";
import { EXTRACTORS } from "@/core/checks/extractors";
import type { TakenSamples } from "@/core/checks/samples";
import { readTable } from "@/core/checks/table";
import { loggedEngine, type Mapping } from "@/core/scan-log";
import { fromSi, parseBare, type UnitId } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { ErrorNote, TextArea, TextField } from "@/ui/field";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { useKeys } from "../../session/keys";
import { load, save } from "../../session/storage";
import { useJob } from "../use-job";
import { LogImport, LogPicker } from "./scan-log/log-import";
import { useKeptLog } from "./scan-log/use-kept-log";
import { useScanLog } from "./scan-log/use-scan-log";

const LAST = "pelota.samples.mode";
const MODES: readonly unknown[] = ["live", "typed", "log"] satisfies readonly TakenSamples["mode"][];

/** Readings as this device took such readings last, until any is taken: the same hands read the same gauge the same way. */
function useTakenAsLast(kept: TakenSamples, keep: (change: Partial<TakenSamples>) => void) {
  const [last, setLast] = useState<TakenSamples["mode"]>();
  useEffect(() => {
    const mode = load<TakenSamples["mode"]>(LAST);
    setLast(MODES.includes(mode) ? mode : undefined);
  }, []);
  const untouched = kept.startedAt === null && kept.samples.length === 0 && kept.text === "" && kept.value === "";
  const mode = untouched ? (last ?? kept.mode) : kept.mode;
  return {
    draft: { ...kept, mode },
    onChange: (change: Partial<TakenSamples>) => {
      if (change.mode) {
        save(LAST, change.mode);
        setLast(change.mode);
      }
      keep({ mode, ...change });
    },
  };
}

/** Where readings over time come from; `start` names the moment that second 0 is. */
export function SamplesField({
  label,
  draft: kept,
  onChange: keep,
  unit,
  kind,
  start,
  keyed = true,
}: {
  label: string;
  draft: TakenSamples;
  onChange: (change: Partial<TakenSamples>) => void;
  unit: UnitId;
  kind: string;
  start: string;
  /** The mark key takes its readings; not while another run is the one being watched */
  keyed?: boolean;
}) {
  const { context } = useJob();
  const scan = useScanLog(context?.limits ?? ({} as never), loggedEngine(context?.vehicle));
  const [mapping, setMapping] = useState<Mapping>();
  const [error, setError] = useState<string>();
  const keepLog = useKeptLog(setError);
  const { draft, onChange } = useTakenAsLast(kept, keep);
  const value = parseBare(draft.value);
  const running = draft.mode === "live" && draft.startedAt !== null;
  const take = () => {
    if (!running || value === undefined) return;
    const at = Math.round((Date.now() - (draft.startedAt as number)) / 100) / 10;
    onChange({ samples: [...draft.samples.filter((s) => at - s[0] > 0.45), [at, value]], source: { kind: "typed" } });
  };
  useKeys({ mark: running && keyed ? take : undefined });
  const onRead = async (file: File, log: ImportedLog) => {
    const points = (await scan.extract("decay")) ?? [];
    if (points.length === 0) {
      setError("This log has no clock or no tank pressure: log the tank-pressure sensor, and name its column above.");
      return;
    }
    setError(undefined);
    const round = (n: number) => Math.round(n * 1e4) / 1e4;
    onChange({
      samples: points.map(([t, p]) => [round(t), round(fromSi(p, unit).value)]),
      source: { kind: "log", file: file.name, sha256: log.sha256, extractor: EXTRACTORS.decay.version },
    });
    keepLog(file);
  };
  const typed = draft.mode === "typed" ? readTable(draft.text) : undefined;
  return (
    <section aria-label={label} className="flex flex-col gap-3">
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          label={`${label}: readings`}
          options={[
            ["live", "Tapped live"],
            ["typed", "Typed table"],
            ["log", "From a log"],
          ]}
          value={draft.mode}
          onChange={(mode) => onChange({ mode })}
        />
        {draft.mode === "log" && <LogPicker scan={scan} onLook={setMapping} onRead={(f, l) => void onRead(f, l)} />}
      </div>
      {draft.mode === "live" && (
        <div className="flex flex-wrap items-end gap-3">
          {running ? (
            <>
              <TextField
                label={`Gauge shows now, ${unit} ${kind}`}
                inputMode="decimal"
                className="max-w-48"
                value={draft.value}
                onChange={(e) => onChange({ value: e.target.value })}
              />
              <Button look="primary" disabled={value === undefined} onClick={take}>
                Take reading
              </Button>
              <Button look="bare" onClick={() => onChange({ startedAt: null, samples: [] })}>
                Start over
              </Button>
              <p className="text-muted">{draft.samples.length} readings; Space takes one.</p>
            </>
          ) : (
            <Button look="primary" onClick={() => onChange({ startedAt: Date.now(), samples: [] })}>
              {start}
            </Button>
          )}
        </div>
      )}
      {draft.mode === "typed" && (
        <>
          <TextArea
            label={`Seconds and pressure in ${unit} ${kind}, a reading a line`}
            placeholder={"0 10.00\n30 9.21\n60 8.45"}
            value={draft.text}
            onChange={(e) => {
              const table = readTable(e.target.value);
              onChange({
                text: e.target.value,
                ...(typeof table === "string" ? {} : { samples: table, source: { kind: "typed" } }),
              });
            }}
          />
          {typeof typed === "string" && <ErrorNote>{typed}</ErrorNote>}
        </>
      )}
      {draft.mode === "log" && (
        <LogImport scan={scan} mapping={mapping} onMapping={setMapping} onRead={(f, l) => void onRead(f, l)} />
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
    </section>
  );
}
