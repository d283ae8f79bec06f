"use client";

import { type ReactNode, useMemo, useState } from "react";
import { CHECKS } from "@/core/checks";
import { simulatedDevice, typedBeside } from "@/core/checks/fields";
import { readSurvey, type TrimPoint, type TrimSurvey, trimAct } from "@/core/checks/trims";
import { trimsForm } from "@/core/checks/trims/fields";
import { EXTRACTOR_VERSION, loggedEngine, type Mapping } from "@/core/scan-log";
import { toSi } from "@/core/units";
import { ErrorNote } from "@/ui/field";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { CheckFrame } from "../check-frame";
import { LogImport, LogPicker } from "../scan-log/log-import";
import { useKeptLog } from "../scan-log/use-kept-log";
import { useScanLog } from "../scan-log/use-scan-log";
import { useCheckForm } from "../use-check-form";
import { LiveSurvey } from "./live-survey";
import { LogPlot } from "./log-plot";
import { PointForm, PointTable } from "./point-table";
import { TrimPlot } from "./trim-plot";

/** The fuel-trim survey: a log read by the worker or points typed by hand, drawn and judged as it grows. */
export function TrimsCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("trims", trimsForm);
  const { context, value, set, record, known } = check;
  const { vehicle, limits } = context;
  const scan = useScanLog(limits, loggedEngine(vehicle));
  const [error, setError] = useState<string>();
  const [reading, setReading] = useState(false);
  const [mapping, setMapping] = useState<Mapping>();
  const keep = useKeptLog(setError);
  const reads = value<"log" | "typed" | "live">("reads");
  const points = value<readonly TrimPoint[] | undefined>("points") ?? [];
  const banks = useMemo(() => {
    if (!record) return undefined;
    const bands = { good: limits.trimGood.value, act: trimAct(context).value };
    return readSurvey(record, vehicle, context.house.totalTrim, bands).banks;
  }, [record, context, limits, vehicle]);
  const onRead = (file: File, log: ImportedLog) => {
    set({
      points: [...log.points],
      source: { kind: "log", file: file.name, sha256: log.sha256, extractor: EXTRACTOR_VERSION } satisfies TrimSurvey["source"],
      barometer: log.barometer,
      intake: log.intakeTemperature,
    });
    keep(file);
  };
  const typed = (next: readonly TrimPoint[]) => {
    // What is left of the points that stood there before.
    const left = next.filter((p) => points.includes(p)).length;
    set({ points: next, ...(reads === "typed" || left === 0 ? { source: typedBeside(value("source"), left) } : {}) });
  };
  const turbo = vehicle.induction === "turbo";
  // While a tool is read, its numbers stand first.
  const plot = banks && <TrimPlot banks={banks} good={limits.trimGood.value} />;
  return (
    <CheckFrame check={check} head={head} plan={CHECKS.trims.plan(context, undefined)} onDone={scan.cancel}>
      {reads !== "live" && plot}
      <div className="flex flex-wrap items-end gap-4">
        <FormFields of={check} names={["reads"]} />
        {reads === "log" && <LogPicker scan={scan} onLook={setMapping} onRead={onRead} />}
      </div>
      {reads === "live" && (
        <LiveSurvey
          check={check}
          limits={limits}
          engine={loggedEngine(vehicle)}
          ambient={known.ambient && toSi(known.ambient)}
          temperature={known.temperature && toSi(known.temperature)}
          onReading={setReading}
          others={simulatedDevice({ source: value("source") }) === undefined ? points.length : 0}
          onPoints={(points, source) => set({ points, source })}
        />
      )}
      {reads === "live" && plot}
      {reads === "log" && <LogImport scan={scan} mapping={mapping} onMapping={setMapping} onRead={onRead} />}
      {reads === "typed" && <PointForm banks={vehicle.banks} turbo={turbo} onAdd={(p) => typed([...points, p])} />}
      <LogSummary scan={scan} />
      {scan.state.step === "ready" && <LogPlot log={scan.state.log} slice={scan.slice} />}
      {points.length > 0 && (
        <>
          <FormFields of={check} names={["stop"]} className="max-w-72" />
          <PointTable points={points} banks={vehicle.banks} turbo={turbo} onChange={reading ? undefined : typed} />
        </>
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
    </CheckFrame>
  );
}

/** Findings in a log that was read. */
function LogSummary({ scan: { state } }: { scan: Pick<ReturnType<typeof useScanLog>, "state"> }) {
  const { number } = usePreferences();
  if (state.step !== "ready") return null;
  const { log } = state;
  return (
    <>
      <p role="status">
        {number(log.rows, 0)} rows over {number(log.seconds, 0)} s, {log.windows.length} steady windows, {log.points.length}{" "}
        operating points.
        {log.notes.map((n) => ` ${n}.`)}
      </p>
      {log.points.length === 0 && (
        <ErrorNote>
          No steady window with air flow and trims was found: hold each point for 5 s or longer, warm and in closed loop, and log
          again.
        </ErrorNote>
      )}
    </>
  );
}
