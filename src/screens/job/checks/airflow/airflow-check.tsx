"use client";

import { type ReactNode, useState } from "react";
import { AIRFLOW_EXTRACTOR, type AirflowPoint, type AirflowRecord, airflow, readAirflow } from "@/core/checks/airflow";
import type { RecordSource } from "@/core/checks/fields";
import { loggedEngine, type Mapping } from "@/core/scan-log";
import { toSi } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice, YesNo } from "@/ui/choice";
import { ErrorNote, TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { sendBytes } from "../../../session/api";
import { usePreferences } from "../../../session/preferences";
import { readField, warmNow } from "../../fields";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { readNumber } from "../read-number";
import { LogImport, LogPicker } from "../scan-log/log-import";
import { useScanLog } from "../scan-log/use-scan-log";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

const EMPTY = {
  mode: "typed" as "typed" | "log",
  points: [] as AirflowPoint[],
  source: { kind: "typed" } as RecordSource,
  /** Nobody said yet, where it is undefined */
  warm: undefined as boolean | undefined,
};

/** What the engine breathes at idle and wide open: both ratios of each point as bars against where they should stand. */
export function AirflowCheck({ head }: { head: ReactNode }) {
  const { id, context, state } = useJob();
  const { draft, set, clear } = useCheckDraft("airflow", EMPTY);
  const scan = useScanLog(context?.limits ?? ({} as never), loggedEngine(context?.vehicle));
  const [mapping, setMapping] = useState<Mapping>();
  const [error, setError] = useState<string>();
  usePlace("air-meter", () => false, undefined);
  if (!context) return null;
  const { conditions } = state;
  const warm = draft.warm ?? warmNow(conditions);
  const whole = conditions && {
    source: draft.source,
    points: draft.points,
    ambient: conditions.ambient,
    intakeTemperature: conditions.bayTemperature,
    warm: warm ?? false,
  };
  const record = (): AirflowRecord | string => {
    if (!whole) return "Set the conditions first (top right): breathing is held against the air outside.";
    if (warm === undefined) return "Say whether the engine is warm.";
    return draft.points.length === 0 ? "Give idle and one wide-open pull, from a log or typed." : whole;
  };
  const onRead = async (file: File, log: ImportedLog) => {
    if (!conditions) return;
    const points = await scan.airflow(context.limits, toSi(conditions.ambient));
    if (points.length === 0) {
      setError("Neither a steady idle nor a wide-open pull was found: log RPM, air meter, manifold pressure and throttle.");
      return;
    }
    setError(undefined);
    set({ points, source: { kind: "log", file: file.name, sha256: log.sha256, extractor: AIRFLOW_EXTRACTOR } });
    void sendBytes(`jobs/${id}/files?name=${encodeURIComponent(file.name)}`, file).catch((e: Error) =>
      setError(`The log itself could not be kept: ${e.message}`),
    );
  };
  return (
    <CheckFrame
      kind="airflow"
      head={head}
      plan={airflow.plan(context, undefined)}
      record={record()}
      startedAt={draft.startedAt}
      onDone={() => {
        clear();
        scan.cancel();
      }}
    >
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          label="Where the points come from"
          options={[
            ["typed", "Typed by hand"],
            ["log", "From a log"],
          ]}
          value={draft.mode}
          onChange={(mode) => set({ mode })}
        />
        {draft.mode === "log" && <LogPicker scan={scan} onLook={setMapping} />}
      </div>
      {draft.mode === "log" ? (
        <LogImport scan={scan} mapping={mapping} onMapping={setMapping} onRead={(f, l) => void onRead(f, l)} />
      ) : (
        <PointForm
          metered={context.vehicle.metering === "maf"}
          onAdd={(p) => set({ points: [...draft.points.filter((x) => x.state !== p.state), p], source: { kind: "typed" } })}
        />
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
      {whole && draft.points.length > 0 && <BreathingBars record={whole} />}
      <YesNo label="Engine" yes="Warm" no="Not warm" value={warm} onChange={(warm) => set({ warm })} />
    </CheckFrame>
  );
}

function PointForm({ metered, onAdd }: { metered: boolean; onAdd: (point: AirflowPoint) => void }) {
  const [typed, setTyped] = useState({ state: "idle" as AirflowPoint["state"], rpm: "", maf: "", map: "" });
  const [error, setError] = useState<string>();
  const add = () => {
    const rpm = readNumber(typed.rpm);
    const maf = readField(typed.maf, "mafFlow", "g/s");
    const map = readField(typed.map, "manifold", "kPa");
    if (rpm === undefined) return setError("Type the engine speed");
    if (metered && !maf) return setError("Type what the air meter reads");
    if (!metered && !map) return setError("Type the manifold pressure, absolute");
    setError(undefined);
    onAdd({ state: typed.state, rpm, ...(maf ? { maf } : {}), ...(map ? { map } : {}) });
    setTyped({ state: "wide-open", rpm: "", maf: "", map: "" });
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <Choice
        label="Point"
        options={[
          ["idle", "Idle"],
          ["wide-open", "Wide open throttle"],
        ]}
        value={typed.state}
        onChange={(state) => setTyped({ ...typed, state })}
      />
      <div className="grid items-start gap-4 sm:grid-cols-3">
        <TextField
          label="Engine speed, 1/min"
          inputMode="numeric"
          value={typed.rpm}
          onChange={(e) => setTyped({ ...typed, rpm: e.target.value })}
        />
        {metered && (
          <QuantityField
            label="Air meter"
            field="mafFlow"
            example={typed.state === "idle" ? "1.9" : "62"}
            unit="g/s"
            units={["g/s", "kg/h", "lb/min"]}
            value={typed.maf}
            onChange={(maf) => setTyped({ ...typed, maf })}
          />
        )}
        <QuantityField
          label="Manifold pressure, absolute"
          field="manifold"
          example={typed.state === "idle" ? "33" : "97"}
          unit="kPa"
          units={["kPa", "hPa", "psi"]}
          value={typed.map}
          onChange={(map) => setTyped({ ...typed, map })}
        />
      </div>
      {error && <ErrorNote>{error}</ErrorNote>}
      <div>
        <Button type="submit">Take this point</Button>
      </div>
    </form>
  );
}

/** Measured air as a share of what the engine sweeps: against the air outside, and against what is in the manifold. */
function BreathingBars({ record }: { record: AirflowRecord }) {
  const { context } = useJob();
  const { number, format } = usePreferences();
  if (!context) return null;
  const { limits, vehicle } = context;
  const rows = readAirflow(record, context).flatMap((r) => {
    const name = r.point.state === "idle" ? "Idle" : "Wide open";
    const speed = `${name}, ${r.point.rpm} 1/min`;
    return [
      ...(r.onAmbient === undefined
        ? []
        : [
            {
              key: `${speed}, of the air outside`,
              share: r.onAmbient,
              band: r.point.state === "wide-open" && vehicle.induction === "natural",
            },
          ]),
      ...(r.onManifold === undefined ? [] : [{ key: `${speed}, of the air in the manifold`, share: r.onManifold, band: false }]),
      ...(r.pressureShare === undefined || r.onAmbient !== undefined
        ? []
        : [{ key: `${speed}, manifold over ambient`, share: r.pressureShare, band: false }]),
    ];
  });
  return (
    <section aria-label="What the engine breathes" className="flex flex-col gap-3">
      <ul className="flex flex-wrap gap-x-6 gap-y-1 text-muted">
        {record.points.map((p) => (
          <li key={p.state}>
            {p.state === "idle" ? "Idle" : "Wide open"}: {p.rpm} 1/min{p.maf && `, ${format(p.maf)}`}
            {p.map && `, ${format({ ...p.map, kind: "absolute" })}`}
          </li>
        ))}
      </ul>
      <ul className="flex flex-col gap-2">
        {rows.map((row) => (
          <li key={row.key} className="grid items-center gap-x-4 sm:grid-cols-[20rem_minmax(0,1fr)_5rem]">
            <span className="text-muted">{row.key}</span>
            <span className="relative block h-5 bg-raised" aria-hidden>
              {row.band && (
                <span
                  className="absolute inset-y-0 border-x-2 border-calm bg-calm-soft"
                  style={{
                    left: `${(100 * limits.breathingLow.value) / 1.2}%`,
                    width: `${(100 * (limits.breathingHigh.value - limits.breathingLow.value)) / 1.2}%`,
                  }}
                />
              )}
              <span
                className="absolute top-1 bottom-1 left-0 bg-accent"
                style={{ width: `${Math.min(100, (100 * row.share) / 1.2)}%` }}
              />
            </span>
            <strong className="text-right">{number(100 * row.share, 0)} %</strong>
          </li>
        ))}
      </ul>
    </section>
  );
}
