"use client";

import { type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import type { RecordSource } from "@/core/checks/fields";
import { type Agent, PROBE_EXTRACTOR, type ProbeSeries, type ProbeTap, probe, readTaps } from "@/core/checks/probe";
import { probeForm, probeTapForm, timedTapForm } from "@/core/checks/probe/fields";
import type { Form as FormSpec } from "@/core/form";
import { loggedEngine, type Mapping } from "@/core/scan-log";
import { parseBare } from "@/core/units";
import type { Joint } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { Choice, Tick } from "@/ui/choice";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote, TextField } from "@/ui/field";
import { Form } from "@/ui/form";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { FormFields } from "../../../form/form-field";
import { PlacePicker } from "../../../form/place-picker";
import { useTypedForm } from "../../../form/use-typed-form";
import { useKeys } from "../../../session/keys";
import { usePreferences } from "../../../session/preferences";
import { load, save } from "../../../session/storage";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { LogImport, LogPicker } from "../scan-log/log-import";
import { useKeptLog } from "../scan-log/use-kept-log";
import { useScanLog } from "../scan-log/use-scan-log";
import { type CheckInHand, useCheckForm } from "../use-check-form";
import { LiveProbe, useLiveProbe } from "./live-probe";
import { ProbePlot } from "./probe-plot";

/** Fields of the form besides the record: how the taps are read, and the one that comes next. */
interface Aside {
  readonly reads?: "log" | "live" | "typed";
  readonly spot?: string;
  readonly flexed?: boolean;
  /** ms since 1970 when log and clock were started together */
  readonly began?: number;
  /** s that the log's clock runs ahead of the taps', as typed */
  readonly offset?: string;
}

/** One spot at a time: a big pad (or Space) marks the tap, a clock says when the next may come, the log is read against them. */
export function ProbeCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("probe", probeForm);
  const { context, value, known, set, record } = check;
  const taps = value<readonly ProbeTap[] | undefined>("taps") ?? [];
  const series = value<ProbeSeries | undefined>("series");
  const aside = value<Aside | undefined>("aside") ?? {};
  const { reads = "log", began, offset = "0" } = aside;
  const note = (change: Partial<Aside>) => set({ aside: { ...aside, ...change } });
  const joints = known.places;
  const spot = aside.spot ?? joints[0]?.id ?? "";
  const name = (joint: string) => joints.find((j) => j.id === joint)?.name ?? joint;
  const log = useProbeLog(check, taps, parseBare(offset) ?? 0);
  const stream = useLiveProbe(check, joints, taps, (series, source) => set({ series, source }));

  const lastTap = taps.at(-1)?.at;
  const clocks =
    began !== undefined && lastTap !== undefined
      ? [{ name: "Next tap", end: began + (lastTap + context.limits.probeGap.value) * 1000, done: "tap" }]
      : [];
  const tap = () => {
    const now = Date.now();
    // On a stream that is read live a tap has the stream's own time.
    const live = reads === "live" ? stream.now?.at : undefined;
    const start = live === undefined ? (began ?? now) : now - live * 1000;
    const at = live ?? Math.round((now - start) / 100) / 10;
    stream.tool?.tap(spot);
    const rest = joints.filter((j) => j.id !== spot && !taps.some((t) => t.joint === j.id));
    set({
      taps: [...taps, { joint: spot, at, ...(aside.flexed ? { flexed: true } : {}) }],
      series: undefined,
      aside: { ...aside, began: start, spot: rest[0]?.id ?? spot },
    });
  };
  const runs = reads === "live" ? stream.now !== undefined : began !== undefined;
  useKeys({ mark: reads !== "typed" && runs ? tap : undefined });

  const readings = record && readTaps(record, context);
  const add = (more: ProbeTap) =>
    set({ taps: [...taps, more].toSorted((a, b) => (a.at ?? 0) - (b.at ?? 0)), series: more.typed ? series : undefined });
  return (
    <CheckFrame
      check={check}
      head={head}
      plan={probe.plan(context, { agent: value<Agent>("agent") })}
      at={spot}
      choose={(joint) => note({ spot: joint })}
      clocks={clocks}
      onDone={log.forget}
    >
      <div className="flex flex-wrap items-start gap-x-8 gap-y-3">
        <FormFields of={check} names={["agent"]} />
        <Choice
          label="Read by"
          options={[
            ["log", "A log, against the taps"],
            ["live", "The scan tool, live"],
            ["typed", "Eye, typed"],
          ]}
          value={reads}
          onChange={(how) => note({ reads: how })}
        />
        <FormFields of={check} names={["closedLoop"]} />
      </div>
      {reads === "live" && <LiveProbe probe={stream} held={!stream.tool && taps.length > 0} />}
      {reads !== "typed" ? (
        <>
          <div className="grid gap-4 md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
            <div className="flex flex-col gap-3">
              <PlacePicker label="Spot that comes next" among={joints} value={spot} onChange={(joint) => note({ spot: joint })} />
              <Tick label="Flexed while it is tapped" checked={aside.flexed ?? false} onChange={(flexed) => note({ flexed })} />
              {!runs ? (
                reads === "log" && (
                  <Button look="primary" className="min-h-32 text-2xl" onClick={() => note({ began: Date.now() })}>
                    Start log and clock together
                  </Button>
                )
              ) : (
                <button
                  type="button"
                  onClick={tap}
                  className="min-h-32 cursor-pointer rounded-lg bg-accent px-4 text-on-accent active:brightness-90"
                >
                  <span className="block text-3xl font-bold">Tap</span>
                  <span className="block text-lg">{name(spot)}</span>
                </button>
              )}
            </div>
            <div>
              <p className="mb-1 text-sm text-muted">Taps</p>
              <TapList
                taps={taps}
                readings={readings}
                name={name}
                onRemove={(i) => set({ taps: taps.filter((_, k) => k !== i), series: undefined })}
              />
            </div>
          </div>
          {reads === "log" && (
            <div className="flex flex-wrap items-end gap-4">
              <LogPicker scan={log.scan} onLook={log.setMapping} onRead={log.read} />
              <div className="w-56">
                <TextField
                  label="Log's clock runs ahead by, s"
                  inputMode="decimal"
                  value={offset}
                  onChange={(e) => note({ offset: e.target.value })}
                  hint="0 when both were started together"
                />
              </div>
            </div>
          )}
          {reads === "log" && <AddTap joints={joints} onAdd={add} />}
          {reads === "log" && !series && (
            <LogImport scan={log.scan} mapping={log.mapping} onMapping={log.setMapping} onRead={log.read} />
          )}
          {series && readings && <LoggedTaps live={reads === "live"} series={series} readings={readings} name={name} />}
        </>
      ) : (
        <>
          <TypedTap joints={joints} onAdd={add} />
          <TapList taps={taps} readings={readings} name={name} onRemove={(i) => set({ taps: taps.filter((_, k) => k !== i) })} />
        </>
      )}
      {log.error && <ErrorNote>{log.error}</ErrorNote>}
    </CheckFrame>
  );
}

/** The log of a probe: cut anew around the taps whenever one of them, or its clock, moves. */
function useProbeLog(
  { context, set }: Pick<CheckInHand<object, "series" | "source">, "context" | "set">,
  taps: readonly ProbeTap[],
  offset: number,
) {
  const scan = useScanLog(context.limits, loggedEngine(context.vehicle));
  const [mapping, setMapping] = useState<Mapping>();
  const [file, setFile] = useState<{ file: File; log: ImportedLog }>();
  const [error, setError] = useState<string>();
  const keep = useKeptLog(setError);
  const latest = useRef({ extract: scan.extract, set });
  latest.current = { extract: scan.extract, set };
  const times = taps.flatMap((t) => (t.at === undefined ? [] : [t.at])).join();
  const total = context.house.totalTrim;
  useEffect(() => {
    if (!file) return;
    const at = times === "" ? [] : times.split(",").map((t) => Number(t) + offset);
    void latest.current.extract("probe", at, total).then((series) => {
      if (!series) {
        setError("The log has no clock, or neither engine speed nor trims: choose its columns again, or type what you saw.");
        return;
      }
      setError(undefined);
      const source: RecordSource = {
        kind: "log",
        file: file.file.name,
        sha256: file.log.sha256,
        extractor: PROBE_EXTRACTOR,
      };
      const time = series.time.map((t) => Math.round((t - offset) * 1000) / 1000);
      latest.current.set({ series: { ...series, time }, source });
    });
  }, [file, times, offset, total]);
  return {
    scan,
    mapping,
    setMapping,
    error,
    read: (chosen: File, log: ImportedLog) => {
      setFile({ file: chosen, log });
      keep(chosen);
    },
    forget: () => {
      scan.cancel();
      setFile(undefined);
    },
  };
}

function LoggedTaps({
  live,
  ...plotted
}: {
  live: boolean;
  series: ProbeSeries;
  readings: ReturnType<typeof readTaps>;
  name: (joint: string) => string;
}) {
  const { number } = usePreferences();
  const rows = number(plotted.series.time.length, 0);
  return (
    <>
      <ProbePlot {...plotted} />
      <p className="text-muted">
        {live
          ? `${rows} rows of the stream are kept around the taps.`
          : `${rows} rows of the log are kept around the taps; the whole file by its hash.`}
      </p>
    </>
  );
}

const INKS = { reacts: "text-ember font-bold", quiet: "text-calm", void: "text-muted" } as const;
const WORDS = { reacts: "Reacts", quiet: "Quiet", void: "Void" } as const;

function TapList({
  taps,
  readings,
  name,
  onRemove,
}: {
  taps: readonly ProbeTap[];
  readings: ReturnType<typeof readTaps> | undefined;
  name: (joint: string) => string;
  onRemove: (index: number) => void;
}) {
  const { number, sentence } = usePreferences();
  if (taps.length === 0) return <p className="text-muted">None yet. Space marks one, too.</p>;
  return (
    <DividedList className="max-h-72 overflow-y-auto">
      {taps.map((tap, i) => {
        const reading = readings?.find((r) => r.tap === tap);
        return (
          <li key={`${tap.joint} ${tap.at ?? i}`} className="flex flex-wrap items-center gap-x-3 py-1">
            {tap.at !== undefined && <span className="w-16 font-mono text-muted">{number(tap.at, 1)} s</span>}
            <span className="mr-auto">
              {name(tap.joint)}
              {tap.flexed && <span className="text-muted"> while flexed</span>}
            </span>
            {reading && (
              <span className={INKS[reading.outcome]}>
                {WORDS[reading.outcome]}: {sentence(reading.why)}
              </span>
            )}
            <Button onClick={() => onRemove(i)} aria-label={`Remove the tap at ${name(tap.joint)}`}>
              Remove
            </Button>
          </li>
        );
      })}
    </DividedList>
  );
}

/** A tap added afterwards, by its time on the log's clock. */
function AddTap({ joints, onAdd }: { joints: readonly Joint[]; onAdd: (tap: ProbeTap) => void }) {
  return (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center text-muted">Add a tap by its time</summary>
      <TapForm form={timedTapForm} name="timed-tap" joints={joints} fields={["joint", "at"]} onAdd={onAdd}>
        Add the tap
      </TapForm>
    </details>
  );
}

/** Response at one spot, read by eye. */
function TypedTap({ joints, onAdd }: { joints: readonly Joint[]; onAdd: (tap: ProbeTap) => void }) {
  return (
    <TapForm
      form={probeTapForm}
      name="typed-tap"
      joints={joints}
      fields={["joint", "typed.shows", "typed.trimBefore", "typed.trimAfter", "typed.rpmBefore", "typed.rpmAfter"]}
      onAdd={onAdd}
    >
      Take this spot
    </TapForm>
  );
}

/** Which trim the scan tool of this device showed last: the same tool shows the same again. */
const SHOWN = "pelota.tool.shows";
type Shown = "short" | "total" | undefined;
const lastShown = (): Shown => {
  const kept = load<unknown>(SHOWN);
  return kept === "short" || kept === "total" ? kept : undefined;
};

function TapForm<Name extends string>({
  form,
  name,
  joints,
  fields,
  onAdd,
  children,
}: {
  form: FormSpec<ProbeTap, { readonly spots: readonly Joint[]; readonly shows?: Shown }, Name>;
  name: string;
  joints: readonly Joint[];
  fields: readonly Name[];
  onAdd: (tap: ProbeTap) => void;
  children: ReactNode;
}) {
  const { id } = useJob();
  const [shows, setShows] = useState(lastShown);
  const known = useMemo(() => ({ spots: joints, shows }), [joints, shows]);
  const typed = useTypedForm(form, `pelota.draft.${id}.${name}`, known);
  const add = () => {
    const { record } = typed.now();
    if (!record) return void typed.complain();
    onAdd(record);
    if (record.typed) {
      const shown = record.typed.shows ?? "total";
      save(SHOWN, shown);
      setShows(shown);
    }
    typed.clear();
  };
  return (
    <Form className="flex flex-col gap-3" onSubmit={() => add()}>
      <div className="grid items-start gap-3 sm:grid-cols-3">
        <FormFields of={typed} names={fields} />
      </div>
      <div>
        <Button type="submit">{children}</Button>
      </div>
    </Form>
  );
}
