"use client";

import type { ReactNode } from "react";
import { type CapRecord, cap } from "@/core/checks/cap";
import type { UnitId } from "@/core/units";
import { Choice, Tick } from "@/ui/choice";
import { Dial } from "@/ui/dial";
import { TextField } from "@/ui/field";
import { readField } from "../../fields";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { InstrumentField, instrumentOf, NO_INSTRUMENT, REACH } from "../instrument-field";
import { readNumber } from "../read-number";
import { TrappedVolume } from "../trapped-volume";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

const EMPTY = {
  part: "fitted" as CapRecord["part"],
  start: "30",
  end: "",
  seconds: "10",
  unit: "inH2O" as UnitId,
  testerProved: false,
  seal: "whole" as CapRecord["seal"],
  volume: "",
  instrument: NO_INSTRUMENT,
};
const FULL: Partial<Record<UnitId, number>> = { inH2O: 40, mbar: 100, psi: 1.5, kPa: 10 };

/** The filler cap by itself on a tester. */
export function CapCheck({ head }: { head: ReactNode }) {
  const { context, shop } = useJob();
  const { draft, set, clear } = useCheckDraft("cap", EMPTY);
  usePlace("filler-cap", () => false, undefined);
  if (!context) return null;
  const instrument = instrumentOf(draft.instrument, shop.instruments, "pressure", REACH.cap);
  const [start, end, seconds] = [readNumber(draft.start), readNumber(draft.end), readNumber(draft.seconds)];
  const volume = readField(draft.volume, "trapped", "mL");
  const record = (): CapRecord | string => {
    if (!instrument) return "Say which gauge the tester has, its division, and what it shows with nothing on it.";
    if (start === undefined || seconds === undefined) return "Type what was put on the cap, and for how long.";
    if (end === undefined) return "Set the gauge to what was left, or type it.";
    return {
      part: draft.part,
      start,
      end,
      seconds,
      unit: draft.unit,
      testerProved: draft.testerProved,
      seal: draft.seal,
      ...(volume ? { volume } : {}),
      instrument,
    };
  };
  const full = FULL[draft.unit] ?? 40;
  return (
    <CheckFrame
      kind="cap"
      head={head}
      plan={cap.plan(context, undefined)}
      record={record()}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <div className="flex flex-wrap gap-4">
        <Choice
          label="Which cap"
          options={[
            ["fitted", "The one from the car"],
            ["new", "A new one, before it goes on"],
          ]}
          value={draft.part}
          onChange={(part) => set({ part })}
        />
        <Choice
          label="Unit"
          options={(["inH2O", "mbar", "psi", "kPa"] as const).map((u) => [u, u] as const)}
          value={draft.unit}
          onChange={(unit) => set({ unit })}
        />
      </div>
      <InstrumentField measures="pressure" reach={REACH.cap} value={draft.instrument} onChange={(i) => set({ instrument: i })} />
      <div className="grid gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <Dial
          label={`Left on the cap, ${draft.unit} gauge`}
          value={end}
          min={0}
          max={full}
          step={full / 200}
          unit={`${draft.unit} gauge`}
          band={start ? { low: start * (1 - context.limits.capLoss.value), high: start } : undefined}
          onMove={(v) => set({ end: String(v) })}
        />
        <div className="flex min-w-0 flex-col gap-3">
          <div className="grid gap-4 sm:grid-cols-3">
            {(
              [
                ["start", `Put on it, ${draft.unit} gauge`],
                ["end", `Left, ${draft.unit} gauge`],
                ["seconds", "After, s"],
              ] as const
            ).map(([key, label]) => (
              <TextField
                key={key}
                label={label}
                inputMode="decimal"
                value={draft[key]}
                onChange={(e) => set({ [key]: e.target.value })}
              />
            ))}
          </div>
          <Choice
            label="Its seal"
            options={[
              ["whole", "Whole"],
              ["cracked", "Cracked"],
              ["dirty", "Dirty"],
            ]}
            value={draft.seal}
            onChange={(seal) => set({ seal })}
          />
          <Tick
            label="The tester held by itself with its blank"
            checked={draft.testerProved}
            onChange={(testerProved) => set({ testerProved })}
          />
          <TrappedVolume value={draft.volume} onChange={(volume) => set({ volume })} />
        </div>
      </div>
    </CheckFrame>
  );
}
