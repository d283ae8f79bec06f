"use client";

import type { ReactNode } from "react";
import { HOLD_PART_NAMES, HOLD_PARTS, type HoldPart, type HoldRecord, hold } from "@/core/checks/hold";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { Dial } from "@/ui/dial";
import { TextField } from "@/ui/field";
import { usePreferences } from "../../../session/preferences";
import { readField } from "../../fields";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { InstrumentField, instrumentOf, NO_INSTRUMENT, REACH } from "../instrument-field";
import { JointField, useJoints } from "../joint-field";
import { readNumber } from "../read-number";
import { TrappedVolume } from "../trapped-volume";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

type Watch = "still" | "wiggled";
interface Draft {
  joint: string;
  part: HoldPart;
  strokes: string;
  moved: "yes" | "no" | "nothing";
  free: "yes" | "no" | "nothing";
  /** inHg vacuum on the pump's gauge */
  vacuum: number;
  watch: Watch;
  /** ms since 1970 when each watch began */
  began: Record<Watch, number | null>;
  still: [number, number][];
  wiggled: [number, number][];
  /** Gas space between pump and part, as typed */
  volume: string;
  instrument: typeof NO_INSTRUMENT;
}
const EMPTY: Draft = {
  joint: "",
  part: "actuator",
  strokes: "",
  moved: "nothing",
  free: "nothing",
  vacuum: 0,
  watch: "still",
  began: { still: null, wiggled: null },
  still: [],
  wiggled: [],
  volume: "",
  instrument: NO_INSTRUMENT,
};
const WATCHES: readonly (readonly [Watch, string])[] = [
  ["still", "Left alone"],
  ["wiggled", "While wiggled"],
];
const YES_NO = (yes: string, no: string, nothing: string) =>
  [
    ["yes", yes],
    ["no", no],
    ["nothing", nothing],
  ] as const;

/** Hand pump and gauge: each reading is a timed sample, left alone and while the pipe ends are wiggled. */
export function HoldCheck({ head }: { head: ReactNode }) {
  const { context, shop, state } = useJob();
  const { number } = usePreferences();
  const { draft, set, clear } = useCheckDraft<Draft>("hold", EMPTY);
  const joints = useJoints("hold");
  const best = state.next.find((n) => n.check === "hold")?.place;
  const joint = draft.joint || best || joints[0]?.id || "";
  const running = draft.began[draft.watch];
  usePlace(
    joint,
    (j) => joints.some((x) => x.id === j.id),
    (id) => set({ joint: id }),
    running === null ? [] : [{ name: "Hold", end: running + 60_000, done: "60 s watched" }],
  );
  if (!context) return null;
  const instrument = instrumentOf(draft.instrument, shop.instruments, "pressure", REACH.vacuum);
  const take = (vacuum: number) => {
    const now = Date.now();
    const start = draft.began[draft.watch] ?? now;
    const sample: [number, number] = [Math.round((now - start) / 100) / 10, vacuum];
    const rest = draft[draft.watch].filter(([t]) => t < sample[0] - 0.5);
    set({ began: { ...draft.began, [draft.watch]: start }, [draft.watch]: [...rest, sample] });
  };
  const strokes = readNumber(draft.strokes);
  const volume = readField(draft.volume, "trapped", "mL");
  const yes = (v: Draft["moved"]) => (v === "nothing" ? undefined : v === "yes");
  const record = (): HoldRecord | string => {
    if (!instrument) return "Say which gauge, its division, and what it shows with nothing on it.";
    if (draft.still.length < 2) return "Pump up, take a reading, leave it alone, and take another after 60 s.";
    const [moved, free] = [yes(draft.moved), yes(draft.free)];
    return {
      joint,
      part: draft.part,
      unit: "inHg",
      ...(strokes === undefined ? {} : { strokes }),
      ...(moved === undefined ? {} : { moved }),
      ...(free === undefined ? {} : { freeByHand: free }),
      still: draft.still,
      wiggled: draft.wiggled,
      ...(volume ? { volume } : {}),
      instrument,
    };
  };
  return (
    <CheckFrame
      kind="hold"
      head={head}
      plan={hold.plan(context, { joint })}
      record={record()}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <JointField label="Part" joints={joints} value={joint} onChange={(id) => set({ joint: id })} />
        <Choice
          label="It is"
          options={HOLD_PARTS.map((p) => [p, HOLD_PART_NAMES[p]] as const)}
          value={draft.part}
          onChange={(part) => set({ part })}
        />
      </div>
      <InstrumentField
        measures="pressure"
        reach={REACH.vacuum}
        value={draft.instrument}
        onChange={(i) => set({ instrument: i })}
      />
      <div className="grid gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <Dial
          label="Pump gauge, inHg vacuum"
          value={draft.vacuum}
          min={0}
          max={30}
          step={0.1}
          unit="inHg vacuum"
          onMove={(vacuum) => set({ vacuum })}
        />
        <div className="flex min-w-0 flex-col gap-3">
          <Choice label="Watching it" options={WATCHES} value={draft.watch} onChange={(watch) => set({ watch })} />
          <div className="flex flex-wrap items-end gap-3">
            <div className="w-40">
              <TextField
                label="Gauge, inHg vacuum"
                inputMode="decimal"
                value={String(draft.vacuum)}
                onChange={(e) => {
                  const v = readNumber(e.target.value);
                  if (v !== undefined) set({ vacuum: v });
                }}
              />
            </div>
            <Button look="primary" onClick={() => take(draft.vacuum)}>
              Take reading
            </Button>
            <Button onClick={() => set({ began: { ...draft.began, [draft.watch]: null }, [draft.watch]: [] })}>
              Pump up again
            </Button>
          </div>
          {WATCHES.map(([watch, name]) => (
            <p key={watch} className={watch === draft.watch ? "" : "text-muted"}>
              {name}:{" "}
              {draft[watch].length === 0
                ? "nothing yet"
                : draft[watch].map(([t, v]) => `${number(v, 1)} inHg at ${number(t, 0)} s`).join(" → ")}
            </p>
          ))}
        </div>
      </div>
      <div className="grid items-start gap-4 sm:grid-cols-3">
        <TextField
          label="Moves after how many strokes"
          inputMode="numeric"
          value={draft.strokes}
          onChange={(e) => set({ strokes: e.target.value })}
        />
        <Choice
          label="Moves under vacuum"
          options={YES_NO("Moves", "Does not", "Nothing to move")}
          value={draft.moved}
          onChange={(moved) => set({ moved })}
        />
        <Choice
          label="Lever by hand"
          options={YES_NO("Free", "Stiff", "Not tried")}
          value={draft.free}
          onChange={(free) => set({ free })}
        />
      </div>
      <TrappedVolume value={draft.volume} onChange={(volume) => set({ volume })} />
    </CheckFrame>
  );
}
