"use client";

import { type ReactNode, useMemo, useState } from "react";
import { CHECKS, judgeCheck } from "@/core/checks";
import { readSurvey, type TrimPoint, type TrimSurvey, trimAct } from "@/core/checks/trims";
import { EXTRACTOR_VERSION, loggedEngine, type Mapping } from "@/core/scan-log";
import { fromSi } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { ConfirmButton } from "@/ui/confirm-button";
import { ErrorNote, TextField } from "@/ui/field";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { sendBytes } from "../../../session/api";
import { usePreferences } from "../../../session/preferences";
import { Cautions } from "../../cautions";
import { useForm } from "../../use-form";
import { useJob } from "../../use-job";
import { VerdictList, VerdictPanel } from "../../verdict";
import { PlanWarnings } from "../check-frame";
import { Conclusion } from "../conclusion";
import { readNumber } from "../read-number";
import { LogImport, LogPicker } from "../scan-log/log-import";
import { useScanLog } from "../scan-log/use-scan-log";
import { useRecordCheck } from "../use-record-check";
import { LogPlot } from "./log-plot";
import { PointForm, PointTable } from "./point-table";
import { TrimPlot } from "./trim-plot";

interface Draft {
  mode: "log" | "typed";
  points: TrimPoint[];
  source: TrimSurvey["source"];
  /** Where this ECU stops correcting, percent, as typed */
  stop: string;
  barometer: number | undefined;
  intakeTemperature: number | undefined;
  startedAt: string;
}
const EMPTY: Draft = {
  mode: "log",
  points: [],
  source: { kind: "typed" },
  stop: "",
  barometer: undefined,
  intakeTemperature: undefined,
  startedAt: "",
};

/** The fuel-trim survey: a log read by the worker or points typed by hand, drawn and judged as it grows. */
export function TrimsCheck({ head }: { head: ReactNode }) {
  const { number } = usePreferences();
  const { id, state, context, shop } = useJob();
  const form = useForm<Draft>("trims", EMPTY);
  const { draft, set } = form;
  const scan = useScanLog(shop.limits, loggedEngine(context?.vehicle));
  const record = useRecordCheck();
  const [error, setError] = useState<string>();
  const [mapping, setMapping] = useState<Mapping>();

  const survey = useMemo((): TrimSurvey | undefined => {
    const ambient = draft.barometer === undefined ? state.conditions?.ambient : fromSi(draft.barometer, "kPa", "absolute");
    const intakeTemperature =
      draft.intakeTemperature === undefined ? state.conditions?.bayTemperature : fromSi(draft.intakeTemperature, "°C");
    if (!ambient || !intakeTemperature || draft.points.length === 0) return undefined;
    const stop = readNumber(draft.stop);
    return { source: draft.source, ambient, intakeTemperature, points: draft.points, ...(stop === undefined ? {} : { stop }) };
  }, [draft, state.conditions]);
  const judged = useMemo(() => {
    if (!survey || !context) return undefined;
    const { vehicle } = context;
    const bands = { good: context.limits.trimGood.value, act: trimAct(context).value };
    const { banks } = readSurvey(survey, vehicle, shop.house.totalTrim, bands);
    return { verdict: judgeCheck("trims", survey, context), banks };
  }, [survey, context, shop]);

  if (!context) return null;
  const { vehicle } = context;
  const plan = CHECKS.trims.plan(context, undefined);
  if (plan.refused) {
    return (
      <div className="flex flex-col gap-5">
        {head}
        <div className="border-l-4 border-amber bg-amber-soft px-4 py-3">
          <p className="text-lg font-bold text-amber">A trim survey says nothing on this engine</p>
          <p>{plan.refused}</p>
        </div>
      </div>
    );
  }
  const onRead = (file: File, log: ImportedLog) => {
    set({
      points: [...log.points],
      source: { kind: "log", file: file.name, sha256: log.sha256, extractor: EXTRACTOR_VERSION },
      barometer: log.barometer,
      intakeTemperature: log.intakeTemperature,
      startedAt: new Date().toISOString(),
    });
    // The bytes are kept by the server, so that the log can be drawn again; the survey does not wait for it.
    void sendBytes(`jobs/${id}/files?name=${encodeURIComponent(file.name)}`, file).catch((e: Error) =>
      setError(`The log itself could not be kept: ${e.message}`),
    );
  };
  const typed = (points: TrimPoint[]) =>
    set({
      points,
      source: draft.mode === "typed" ? { kind: "typed" } : draft.source,
      startedAt: draft.startedAt || new Date().toISOString(),
    });
  const finish = async () => {
    if (!survey) return;
    const to = new Date().toISOString();
    const wrong = await record("trims", survey, { from: draft.startedAt || to, to });
    setError(wrong);
    if (!wrong) {
      set(EMPTY);
      scan.cancel();
    }
  };
  return (
    <div className="flex flex-col gap-5">
      {head}
      {judged && <TrimPlot banks={judged.banks} good={shop.limits.trimGood.value} />}
      <details className="text-muted" open={draft.points.length === 0}>
        <summary className="flex min-h-11 cursor-pointer items-center">How to take the survey</summary>
        <ol className="list-decimal pl-5">
          {plan.steps.map((s) => (
            <li key={s.text}>{s.text}</li>
          ))}
        </ol>
      </details>
      <PlanWarnings plan={plan} kind="trims" />
      <Cautions ids={plan.cautions} />
      {!state.conditions && draft.barometer === undefined && (
        <ErrorNote>
          Set the conditions first (top right): without ambient pressure and temperature no size can be given.
        </ErrorNote>
      )}
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          label="Where the points come from"
          options={[
            ["log", "From a log"],
            ["typed", "Typed by hand"],
          ]}
          value={draft.mode}
          onChange={(mode) => set({ mode })}
        />
        {draft.mode === "log" && <LogPicker scan={scan} onLook={setMapping} />}
      </div>
      {draft.mode === "log" ? (
        <LogImport scan={scan} mapping={mapping} onMapping={setMapping} onRead={onRead} />
      ) : (
        <PointForm banks={vehicle.banks} turbo={vehicle.induction === "turbo"} onAdd={(p) => typed([...draft.points, p])} />
      )}
      {scan.state.step === "ready" && (
        <>
          <p role="status">
            {number(scan.state.log.rows, 0)} rows over {number(scan.state.log.seconds, 0)} s, {scan.state.log.windows.length}{" "}
            steady windows, {scan.state.log.points.length} operating points.
            {scan.state.log.notes.map((n) => ` ${n}.`)}
          </p>
          {scan.state.log.points.length === 0 && (
            <ErrorNote>
              No steady window with air flow and trims was found: hold each point for 5 s or longer, warm and in closed loop, and
              log again.
            </ErrorNote>
          )}
        </>
      )}
      {judged && (
        <Conclusion
          verdict={<VerdictPanel check="trims" verdict={judged.verdict} title="Verdict so far" />}
          actions={
            <>
              <Button look="primary" onClick={() => void finish()}>
                Record the survey
              </Button>
              <ConfirmButton
                ask="Discard this survey?"
                why="Its points are not recorded yet, and would be gone. The log stays where it came from."
                sure="Discard it"
                onSure={() => {
                  set(EMPTY);
                  scan.cancel();
                }}
              >
                Discard
              </ConfirmButton>
            </>
          }
        />
      )}
      {scan.state.step === "ready" && <LogPlot log={scan.state.log} slice={scan.slice} />}
      {draft.points.length > 0 && (
        <TextField
          label="This ECU stops correcting at, %"
          inputMode="decimal"
          className="max-w-72"
          value={draft.stop}
          onChange={(e) => set({ stop: e.target.value })}
          hint="Left empty, it is found from trims that lie at one height"
        />
      )}
      {draft.points.length > 0 && (
        <PointTable points={draft.points} banks={vehicle.banks} turbo={vehicle.induction === "turbo"} onChange={typed} />
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
      <VerdictList kind="trims" />
    </div>
  );
}
