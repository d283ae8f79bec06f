"use client";

import { type ReactNode, useMemo } from "react";
import { type PulldownRecord, pulldown, readPulldown } from "@/core/checks/pulldown";
import { fromSi, type UnitId } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice, Tick } from "@/ui/choice";
import { TextField } from "@/ui/field";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { EvapConditions } from "../evap-conditions";
import { readNumber } from "../read-number";
import { NO_SAMPLES, SamplesField } from "../samples";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";
import { useRequired } from "../use-required";
import { TracePlot } from "./trace-plot";

const EMPTY = {
  vent: "command" as "plug" | "command",
  fuelLevel: "",
  unit: "Pa" as UnitId,
  trace: NO_SAMPLES,
  ventShutAt: "",
  purgeOpenAt: "",
  purgeShutAt: "",
  ventOpenAt: "",
  commandSeconds: "",
  idled: false,
};

const MARKS = [
  ["ventShutAt", "Vent shut"],
  ["purgeOpenAt", "Purge open"],
  ["purgeShutAt", "Purge shut"],
  ["ventOpenAt", "Vent open again"],
] as const;
const PART_WORDS = { good: "good", bad: "bad", unsure: "not sure yet" } as const;

/** Tank pressure through vent shut, purge open, purge shut, vent open: three verdicts from one trace. */
export function PulldownCheck({ head }: { head: ReactNode }) {
  const { state, context } = useJob();
  const { draft, set, clear } = useCheckDraft("pulldown", EMPTY);
  const required = useRequired();
  usePlace("purge-valve", () => false, undefined);
  const level = readNumber(draft.fuelLevel);
  const marks = Object.fromEntries(
    MARKS.flatMap(([key]) => {
      const at = readNumber(draft[key]);
      return at === undefined ? [] : [[key, at] as const];
    }),
  ) as Partial<Record<(typeof MARKS)[number][0], number>>;
  const { ventShutAt, purgeOpenAt, purgeShutAt, ventOpenAt } = marks;
  const record = (): PulldownRecord | string => {
    if (!context) return "Describe the vehicle first.";
    if (!state.conditions) return "Set the conditions first (top right): a size needs ambient pressure and temperature.";
    if (level === undefined) return "Type the fuel level: the gas space hangs on it.";
    if (draft.trace.samples.length < 8) return "Record tank pressure through all four phases: at least 8 readings.";
    if (ventShutAt === undefined || purgeOpenAt === undefined || purgeShutAt === undefined || ventOpenAt === undefined)
      return "Mark when the vent was shut, purge opened, purge shut, and the vent opened again.";
    return {
      source: draft.trace.source,
      unit: draft.unit,
      points: draft.trace.samples,
      ventShutAt,
      purgeOpenAt,
      purgeShutAt,
      ventOpenAt,
      vent:
        draft.vent === "plug"
          ? { by: "plug" }
          : { by: "command", at: ventShutAt, seconds: readNumber(draft.commandSeconds) ?? context.limits.outputTime.value },
      fuelLevel: level,
      ...(required ? { required: required.field } : {}),
      idled: draft.idled,
      ambient: state.conditions.ambient,
      temperature: state.conditions.bayTemperature,
    };
  };
  const whole = record();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the record is made anew on every render of the same draft
  const read = useMemo(() => {
    if (typeof whole === "string" || !context) return undefined;
    const rising =
      whole.ventShutAt <= whole.purgeOpenAt && whole.purgeOpenAt < whole.purgeShutAt && whole.purgeShutAt < whole.ventOpenAt;
    return rising ? readPulldown(whole, context) : undefined;
  }, [draft, context, state.conditions]);
  if (!context) return null;
  const zero = draft.trace.startedAt;
  const now = () => (zero ? String(Math.round((Date.now() - zero) / 100) / 10) : "");
  const live = draft.trace.mode === "live" && zero !== null;
  const nextMark = MARKS.find(([key]) => draft[key] === "");
  return (
    <CheckFrame
      kind="pulldown"
      head={head}
      plan={pulldown.plan(context, { vent: draft.vent, ...(level === undefined ? {} : { fuelLevel: level }) })}
      record={whole}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <EvapConditions
        vent={draft.vent}
        onVent={(vent) => set({ vent })}
        fuelLevel={draft.fuelLevel}
        onFuelLevel={(fuelLevel) => set({ fuelLevel })}
        holds={draft.commandSeconds}
        onHolds={(commandSeconds) => set({ commandSeconds })}
      />
      <Choice
        label="Unit of tank pressure"
        options={(["Pa", "inH2O", "mbar", "kPa"] as const).map((u) => [u, u] as const)}
        value={draft.unit}
        onChange={(unit) => set({ unit })}
      />
      <SamplesField
        label="Tank pressure"
        draft={draft.trace}
        onChange={(change) => set({ trace: { ...draft.trace, ...change } })}
        unit={draft.unit}
        kind="gauge, below ambient negative"
        start="Recording begins"
      />
      {live && nextMark && (
        <div>
          <Button look="primary" onClick={() => set({ [nextMark[0]]: now() })}>
            Now: {nextMark[1].toLowerCase()}
          </Button>
        </div>
      )}
      <div className="grid gap-4 sm:grid-cols-4">
        {MARKS.map(([key, label]) => (
          <TextField
            key={key}
            label={`${label}, s`}
            inputMode="decimal"
            value={draft[key]}
            onChange={(e) => set({ [key]: e.target.value })}
          />
        ))}
      </div>
      {draft.trace.samples.length > 1 && (
        <TracePlot
          samples={draft.trace.samples}
          phases={marks}
          unit={draft.unit}
          deep={fromSi(context.limits.evapPullDown.value, draft.unit).value}
        />
      )}
      {read && (
        <dl className="grid grid-cols-3 divide-x divide-line border-y border-line">
          {(
            [
              ["Pull-down", read.pullDown],
              ["Hold", read.hold],
              ["Relief", read.relief],
            ] as const
          ).map(([name, word]) => (
            <div key={name} className="px-3 py-2">
              <dt className="text-sm text-muted">{name}</dt>
              <dd className={`text-xl font-bold ${word === "good" ? "text-calm" : word === "bad" ? "text-ember" : "text-amber"}`}>
                {PART_WORDS[word]}
              </dd>
            </div>
          ))}
        </dl>
      )}
      <Tick label="The engine idled the whole time, foot off" checked={draft.idled} onChange={(idled) => set({ idled })} />
    </CheckFrame>
  );
}
