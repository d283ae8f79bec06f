"use client";

import type { ReactNode } from "react";
import { AIRFLOW_EXTRACTOR, type AirflowPoint, type AirflowRecord, airflow, readAirflow } from "@/core/checks/airflow";
import { airflowForm, airflowPointForm } from "@/core/checks/airflow/fields";
import { loggedEngine } from "@/core/scan-log";
import { toSi } from "@/core/units";
import { Button } from "@/ui/button";
import { Form } from "@/ui/form";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { FormFields } from "../../../form/form-field";
import { useTypedForm } from "../../../form/use-typed-form";
import { usePreferences } from "../../../session/preferences";
import { SetConditions } from "../../conditions";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { LogTake } from "../scan-log/log-take";
import { useScanLog, warmth } from "../scan-log/use-scan-log";
import { useCheckForm } from "../use-check-form";

/** Breathing of the engine at idle and wide open: both ratios of each point as bars against where they should stand. */
export function AirflowCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("airflow", airflowForm);
  const { context, value, known, set, fill, record } = check;
  const scan = useScanLog(context.limits, loggedEngine(context.vehicle));
  const reads = value<"typed" | "log">("reads");
  const points = value<readonly AirflowPoint[] | undefined>("points") ?? [];
  const take = async (file: File, log: ImportedLog) => {
    if (!known.ambient) return undefined;
    const found = (await scan.extract("airflow", context.limits, toSi(known.ambient))) ?? [];
    if (found.length === 0)
      return "Neither a steady idle nor a wide-open pull was found: log RPM, MAF, manifold pressure and throttle.";
    fill({
      points: found,
      ...warmth(log),
      source: { kind: "log", file: file.name, sha256: log.sha256, extractor: AIRFLOW_EXTRACTOR },
    });
    return undefined;
  };
  const source = <FormFields of={check} names={["reads"]} />;
  return (
    <CheckFrame check={check} head={head} plan={airflow.plan(context, undefined)} at="air-meter" onDone={scan.cancel}>
      {!known.ambient && <SetConditions why="Volumetric efficiency needs the ambient pressure." />}
      {reads === "log" ? (
        <LogTake scan={scan} take={take} beside={source} ready={known.ambient !== undefined} />
      ) : (
        <>
          <div>{source}</div>
          <PointForm
            onAdd={(p) => set({ points: [...points.filter((x) => x.state !== p.state), p], source: { kind: "typed" } })}
          />
        </>
      )}
      {record && <BreathingBars record={record} />}
      <FormFields of={check} names={["warm"]} />
    </CheckFrame>
  );
}

/** One point, typed: what comes next after idle is wide open. */
function PointForm({ onAdd }: { onAdd: (point: AirflowPoint) => void }) {
  const { id, context } = useJob();
  const form = useTypedForm(airflowPointForm, `pelota.draft.${id}.airflow-point`, {
    metered: context?.vehicle.metering === "maf",
  });
  const add = async () => {
    const { record } = form.now();
    if (!record) return form.complain();
    onAdd(record);
    form.clear();
    form.set({ state: "wide-open" });
  };
  return (
    <Form className="flex flex-col gap-3" onSubmit={() => void add()}>
      <FormFields of={form} names={["state"]} />
      <div className="grid items-start gap-4 sm:grid-cols-3">
        <FormFields of={form} names={["rpm", "maf", "map"]} />
      </div>
      <div>
        <Button type="submit">Take this point</Button>
      </div>
    </Form>
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
    const speed = `${name}, ${r.point.rpm} rpm`;
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
    <section aria-label="Volumetric efficiency" className="flex flex-col gap-3">
      <ul className="flex flex-wrap gap-x-6 gap-y-1 text-muted">
        {record.points.map((p) => (
          <li key={p.state}>
            {p.state === "idle" ? "Idle" : "Wide open"}: {p.rpm} rpm{p.maf && `, ${format(p.maf)}`}
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
