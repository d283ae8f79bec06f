"use client";

import { type ReactNode, useEffect, useState } from "react";
import type { RecordSource } from "@/core/checks/fields";
import {
  AGENT_NAMES,
  AGENTS,
  type Agent,
  houseAgent,
  PROBE_EXTRACTOR,
  type ProbeRecord,
  type ProbeSeries,
  type ProbeTap,
  probe,
  readTaps,
} from "@/core/checks/probe";
import { loggedEngine, type Mapping } from "@/core/scan-log";
import { Button } from "@/ui/button";
import { Choice, Tick, YesNo } from "@/ui/choice";
import { ErrorNote, TextField } from "@/ui/field";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { sendBytes } from "../../../session/api";
import { useKeys } from "../../../session/keys";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { JointField, useJoints } from "../joint-field";
import { readNumber } from "../read-number";
import { LogImport, LogPicker } from "../scan-log/log-import";
import { useScanLog } from "../scan-log/use-scan-log";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";
import { ProbePlot } from "./probe-plot";

interface Draft {
  mode: "log" | "typed";
  agent: Agent | undefined;
  spot: string;
  /** The part is bent and pulled at while it is tapped */
  flexed: boolean;
  /** Nobody said yet, where it is absent; a log that has the loop says it itself */
  closedLoop?: boolean;
  /** ms since 1970 when log and clock were started together */
  began: number | null;
  taps: ProbeTap[];
  /** s that the log's clock runs ahead of the taps' */
  offset: string;
  series: ProbeSeries | undefined;
  source: RecordSource;
}
const EMPTY: Draft = {
  mode: "log",
  agent: undefined,
  spot: "",
  flexed: false,
  began: null,
  taps: [],
  offset: "0",
  series: undefined,
  source: { kind: "typed" },
};

/** One spot at a time: a big pad (or Space) marks the tap, a clock says when the next may come, the log is read against them. */
export function ProbeCheck({ head }: { head: ReactNode }) {
  const { id, context, shop } = useJob();
  const { number } = usePreferences();
  const { draft, set, clear } = useCheckDraft<Draft>("probe", EMPTY);
  const scan = useScanLog(context?.limits ?? shop.limits, loggedEngine(context?.vehicle));
  const [mapping, setMapping] = useState<Mapping>();
  const [file, setFile] = useState<{ file: File; log: ImportedLog }>();
  const [error, setError] = useState<string>();
  const joints = useJoints("probe");
  const spot = draft.spot || joints[0]?.id || "";
  const gap = context?.limits.probeGap.value ?? 12;
  const lastTap = draft.taps.at(-1)?.at;
  usePlace(
    spot,
    (j) => joints.some((x) => x.id === j.id),
    (joint) => set({ spot: joint }),
    draft.began !== null && lastTap !== undefined
      ? [{ name: "Next tap", end: draft.began + (lastTap + gap) * 1000, done: "tap" }]
      : [],
  );
  const nextSpot = (after: string) => {
    const rest = joints.filter((j) => j.id !== after && !draft.taps.some((t) => t.joint === j.id));
    return rest[0]?.id ?? after;
  };
  const tap = () => {
    const now = Date.now();
    const began = draft.began ?? now;
    const at = Math.round((now - began) / 100) / 10;
    set({
      began,
      taps: [...draft.taps, { joint: spot, at, ...(draft.flexed ? { flexed: true } : {}) }],
      spot: nextSpot(spot),
      series: undefined,
    });
  };
  useKeys({ mark: draft.mode === "log" && draft.began !== null ? tap : undefined });

  const offset = readNumber(draft.offset) ?? 0;
  const times = draft.taps.flatMap((t) => (t.at === undefined ? [] : [t.at])).join();
  const total = context?.house.totalTrim ?? "product";
  // The log is cut anew whenever a tap or the offset moves.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the worker's functions are made anew on every render and do the same
  useEffect(() => {
    if (!file) return;
    const taps = draft.taps.flatMap((t) => (t.at === undefined ? [] : [t.at + offset]));
    void scan.probe(taps, total).then((series) => {
      if (!series) {
        setError("The log has no clock, or neither engine speed nor trims: choose its columns again, or type what you saw.");
        return;
      }
      setError(undefined);
      const source = { kind: "log" as const, file: file.file.name, sha256: file.log.sha256, extractor: PROBE_EXTRACTOR };
      set({ series: { ...series, time: series.time.map((t) => Math.round((t - offset) * 1000) / 1000) }, source });
    });
  }, [file, times, offset, total]);

  if (!context) return null;
  const agent = draft.agent ?? houseAgent(context.house);
  const name = (joint: string) => joints.find((j) => j.id === joint)?.name ?? joint;
  const record = (): ProbeRecord | string => {
    if (draft.taps.length === 0) {
      return draft.mode === "log"
        ? "Start log and clock together, then mark each tap."
        : "Type what one spot did: before and after.";
    }
    const typed = draft.taps.every((t) => t.typed);
    if (!typed && !draft.series) return "Import the log of these taps, or type what you saw at each.";
    const logged = draft.series?.loop !== undefined && !draft.taps.some((t) => t.typed);
    if (!logged && draft.closedLoop === undefined) return "Say whether the loop was closed: in open loop trims say nothing.";
    return {
      agent,
      source: draft.source,
      closedLoop: draft.closedLoop ?? draft.series?.loop?.every((closed) => closed !== 0) ?? false,
      taps: draft.taps,
      ...(draft.series ? { series: draft.series } : {}),
    };
  };
  const whole = record();
  const readings = typeof whole === "string" ? undefined : readTaps(whole, context);
  const onRead = (chosen: File, log: ImportedLog) => {
    setFile({ file: chosen, log });
    void sendBytes(`jobs/${id}/files?name=${encodeURIComponent(chosen.name)}`, chosen).catch((e: Error) =>
      setError(`The log itself could not be kept: ${e.message}`),
    );
  };
  const discard = () => {
    clear();
    scan.cancel();
    setFile(undefined);
  };
  return (
    <CheckFrame
      kind="probe"
      head={head}
      plan={probe.plan(context, { agent })}
      record={whole}
      startedAt={draft.startedAt}
      onDone={discard}
    >
      <div className="flex flex-wrap items-start gap-x-8 gap-y-3">
        <Choice
          label="Agent"
          options={AGENTS.map((a) => [a, AGENT_NAMES[a]] as const)}
          value={agent}
          onChange={(a) => set({ agent: a })}
        />
        <Choice
          label="Read by"
          options={[
            ["log", "A log, against the taps"],
            ["typed", "Eye, typed"],
          ]}
          value={draft.mode}
          onChange={(mode) => set({ mode })}
        />
        <YesNo label="Loop" yes="Closed" no="Open" value={draft.closedLoop} onChange={(closedLoop) => set({ closedLoop })} />
      </div>
      {draft.mode === "log" ? (
        <>
          <div className="grid gap-4 md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
            <div className="flex flex-col gap-3">
              <JointField label="Spot that comes next" joints={joints} value={spot} onChange={(joint) => set({ spot: joint })} />
              <Tick label="Flexed while it is tapped" checked={draft.flexed} onChange={(flexed) => set({ flexed })} />
              {draft.began === null ? (
                <Button look="primary" className="min-h-32 text-2xl" onClick={() => set({ began: Date.now() })}>
                  Start log and clock together
                </Button>
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
                taps={draft.taps}
                readings={readings}
                name={name}
                onRemove={(i) => set({ taps: draft.taps.filter((_, k) => k !== i), series: undefined })}
              />
            </div>
          </div>
          <div className="flex flex-wrap items-end gap-4">
            <LogPicker scan={scan} onLook={setMapping} />
            <div className="w-56">
              <TextField
                label="Log's clock runs ahead by, s"
                inputMode="decimal"
                value={draft.offset}
                onChange={(e) => set({ offset: e.target.value })}
                hint="0 when both were started together"
              />
            </div>
          </div>
          <AddTap
            joints={joints}
            onAdd={(t) => set({ taps: [...draft.taps, t].toSorted((a, b) => (a.at ?? 0) - (b.at ?? 0)), series: undefined })}
          />
          {!draft.series && <LogImport scan={scan} mapping={mapping} onMapping={setMapping} onRead={onRead} />}
          {draft.series && readings && (
            <>
              <ProbePlot series={draft.series} readings={readings} name={name} />
              <p className="text-muted">
                {number(draft.series.time.length, 0)} rows of the log are kept around the taps; the whole file by its hash.
              </p>
            </>
          )}
        </>
      ) : (
        <>
          <TypedTap joints={joints} onAdd={(t) => set({ taps: [...draft.taps, t], source: { kind: "typed" } })} />
          <TapList
            taps={draft.taps}
            readings={readings}
            name={name}
            onRemove={(i) => set({ taps: draft.taps.filter((_, k) => k !== i) })}
          />
        </>
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
    </CheckFrame>
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
    <ul className="flex max-h-72 flex-col divide-y divide-line overflow-y-auto border-y border-line">
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
            <Button onClick={() => onRemove(i)} aria-label={`Take out the tap at ${name(tap.joint)}`}>
              Take out
            </Button>
          </li>
        );
      })}
    </ul>
  );
}

/** A tap added afterwards, by its time on the log's clock. */
function AddTap({ joints, onAdd }: { joints: ReturnType<typeof useJoints>; onAdd: (tap: ProbeTap) => void }) {
  const [joint, setJoint] = useState("");
  const [at, setAt] = useState("");
  const [error, setError] = useState<string>();
  return (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center text-muted">Add a tap by its time</summary>
      <div className="flex flex-wrap items-end gap-3">
        <JointField label="Spot" joints={joints} value={joint || (joints[0]?.id ?? "")} onChange={setJoint} />
        <div className="w-40">
          <TextField label="Tapped at, s" inputMode="decimal" value={at} error={error} onChange={(e) => setAt(e.target.value)} />
        </div>
        <Button
          onClick={() => {
            const seconds = readNumber(at);
            if (seconds === undefined) return setError("Type the time in seconds on the log's clock");
            setError(undefined);
            setAt("");
            onAdd({ joint: joint || (joints[0]?.id ?? ""), at: seconds });
          }}
        >
          Add the tap
        </Button>
      </div>
    </details>
  );
}

const NO_TAP = { trimBefore: "", trimAfter: "", rpmBefore: "", rpmAfter: "" };

function TypedTap({ joints, onAdd }: { joints: ReturnType<typeof useJoints>; onAdd: (tap: ProbeTap) => void }) {
  const [joint, setJoint] = useState("");
  const [typed, setTyped] = useState(NO_TAP);
  const [error, setError] = useState<string>();
  const fields = [
    ["trimBefore", "Total trim before, %"],
    ["trimAfter", "Total trim after, %"],
    ["rpmBefore", "Speed before, 1/min"],
    ["rpmAfter", "Speed after, 1/min"],
  ] as const;
  const add = () => {
    const values = fields.map(([key]) => readNumber(typed[key]));
    const missing = fields.find((_, i) => values[i] === undefined);
    if (missing) return setError(`${missing[1]} is not a number yet`);
    const [trimBefore, trimAfter, rpmBefore, rpmAfter] = values as [number, number, number, number];
    setError(undefined);
    setTyped(NO_TAP);
    onAdd({ joint: joint || (joints[0]?.id ?? ""), typed: { trimBefore, trimAfter, rpmBefore, rpmAfter } });
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <div className="grid items-end gap-3 sm:grid-cols-5">
        <JointField label="Spot" joints={joints} value={joint || (joints[0]?.id ?? "")} onChange={setJoint} />
        {fields.map(([key, label]) => (
          <TextField
            key={key}
            label={label}
            inputMode="decimal"
            value={typed[key]}
            onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
          />
        ))}
      </div>
      {error && <ErrorNote>{error}</ErrorNote>}
      <div>
        <Button type="submit">Take this spot</Button>
      </div>
    </form>
  );
}
