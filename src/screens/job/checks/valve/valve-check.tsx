"use client";

import type { ReactNode } from "react";
import { judgeCheck } from "@/core/checks";
import {
  POWER_NAMES,
  POWERS,
  type Power,
  readState,
  type ValveCycles,
  type ValveRecord,
  type ValveState,
  valve,
} from "@/core/checks/valve";
import { toSi } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice, Tick } from "@/ui/choice";
import { TextField } from "@/ui/field";
import { readField } from "../../fields";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { InstrumentField, instrumentOf, NO_INSTRUMENT, REACH } from "../instrument-field";
import { JointField, useJoints } from "../joint-field";
import { readNumber } from "../read-number";
import { TrappedVolume } from "../trapped-volume";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

interface TypedState {
  start: string;
  end: string;
  seconds: string;
}
interface Draft {
  joint: string;
  rests: "closed" | "open";
  power: Power;
  unplugged: boolean;
  clicked: "yes" | "no" | undefined;
  part: "fitted" | "new";
  temperature: "cold" | "warm";
  rest: TypedState;
  energised: TypedState;
  vents: "yes" | "no" | undefined;
  cycles: TypedCycles[];
  volume: string;
  instrument: typeof NO_INSTRUMENT;
}
interface TypedCycles {
  temperature: "cold" | "hot";
  commanded: string;
  shut: string;
  passed: string;
  released: string;
}
const NO_CYCLES: TypedCycles = { temperature: "cold", commanded: "10", shut: "", passed: "", released: "" };
const COUNTS = [
  ["commanded", "Commanded"],
  ["shut", "Shut"],
  ["passed", "Passed"],
  ["released", "Released"],
] as const;

/** A counted cycle test, once every number of it is there. */
function cyclesOf(typed: TypedCycles): ValveCycles[] {
  const [commanded, shut, passed, released] = COUNTS.map(([key]) => readNumber(typed[key]));
  if (commanded === undefined || shut === undefined || passed === undefined || released === undefined) return [];
  return [{ temperature: typed.temperature, commanded, shut, passed, released }];
}

const NO_STATE: TypedState = { start: "", end: "", seconds: "60" };
const EMPTY: Draft = {
  joint: "",
  rests: "closed",
  power: "scan-tool",
  unplugged: false,
  clicked: undefined,
  part: "fitted",
  temperature: "warm",
  rest: NO_STATE,
  energised: { ...NO_STATE, seconds: "5" },
  vents: undefined,
  cycles: [],
  volume: "",
  instrument: NO_INSTRUMENT,
};
const STATE_WORDS = { holds: "holds", weeps: "weeps", passes: "passes" } as const;

function stateOf(typed: TypedState): ValveState | undefined {
  const [start, end, seconds] = [typed.start, typed.end, typed.seconds].map(readNumber);
  return start === undefined || end === undefined || seconds === undefined ? undefined : { start, end, seconds };
}

/** A valve in both its states, side by side: what was put on, what was left, and what that state did. */
export function ValveCheck({ head }: { head: ReactNode }) {
  const { context, shop, state } = useJob();
  const { draft, set, clear } = useCheckDraft<Draft>("valve", EMPTY);
  const joints = useJoints("valve");
  const best = state.next.find((n) => n.check === "valve")?.place;
  const joint = draft.joint || best || joints[0]?.id || "";
  usePlace(
    joint,
    (j) => joints.some((x) => x.id === j.id),
    (id) => set({ joint: id }),
  );
  if (!context) return null;
  const instrument = instrumentOf(draft.instrument, shop.instruments, "pressure", REACH.vacuum);
  const [rest, energised] = [stateOf(draft.rest), stateOf(draft.energised)];
  const cycles = draft.cycles.flatMap(cyclesOf);
  const volume = readField(draft.volume, "trapped", "mL");
  const record = (): ValveRecord | string => {
    if (!instrument) return "Say which gauge, its division, and what it shows with nothing on it.";
    if (!rest) return "At rest: pump on, write down start, end and the time between.";
    if (!energised) return "Energised: the same again.";
    if (cycles.length < draft.cycles.length) return "Commanded again and again: say how often it shut, passed and released.";
    return {
      joint,
      rests: draft.rests,
      power: draft.power,
      unplugged: draft.unplugged,
      ...(draft.clicked ? { clicked: draft.clicked === "yes" } : {}),
      part: draft.part,
      temperature: draft.temperature,
      unit: "inHg",
      rest,
      energised,
      ...(draft.vents ? { vents: draft.vents === "yes" } : {}),
      ...(cycles.length > 0 ? { cycles } : {}),
      ...(volume ? { volume } : {}),
      instrument,
    };
  };
  const did = (s: ValveState | undefined) => {
    if (!s || !instrument) return undefined;
    const division = Math.abs(toSi(instrument.division) / toSi({ value: 1, unit: "inHg" }));
    return STATE_WORDS[readState(s, division, context.limits.holdLoss.value)];
  };
  return (
    <CheckFrame
      kind="valve"
      head={head}
      plan={valve.plan(context, { joint, power: draft.power, rests: draft.rests })}
      record={record()}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <JointField label="Valve" joints={joints} value={joint} onChange={(id) => set({ joint: id })} />
        <Choice
          label="Which part"
          options={[
            ["fitted", "The one on the car"],
            ["new", "The new one, on the bench"],
          ]}
          value={draft.part}
          onChange={(part) => set({ part })}
        />
        <Choice
          label="At rest it is"
          options={[
            ["closed", "Closed"],
            ["open", "Open"],
          ]}
          value={draft.rests}
          onChange={(rests) => set({ rests })}
        />
        <Choice
          label="Tested"
          options={[
            ["cold", "Cold"],
            ["warm", "Warm"],
          ]}
          value={draft.temperature}
          onChange={(temperature) => set({ temperature })}
        />
      </div>
      <Choice
        label="Powered by"
        options={POWERS.map((p) => [p, POWER_NAMES[p]] as const)}
        value={draft.power}
        onChange={(power) => set({ power })}
      />
      {draft.power === "12v" && (
        <Tick
          label="Its plug is off the car's loom: nothing can be fed back into the ECU"
          checked={draft.unplugged}
          onChange={(unplugged) => set({ unplugged })}
        />
      )}
      <InstrumentField
        measures="pressure"
        reach={REACH.vacuum}
        value={draft.instrument}
        onChange={(i) => set({ instrument: i })}
      />
      <div className="grid gap-6 md:grid-cols-2">
        {(["rest", "energised"] as const).map((which) => {
          const must = (which === "rest") === (draft.rests === "closed") ? "must hold" : "must pass";
          const word = did(which === "rest" ? rest : energised);
          return (
            <fieldset key={which} className="flex min-w-0 flex-col gap-3 border-l-4 border-edge pl-4">
              <legend className="sr-only">{which === "rest" ? "At rest" : "Energised"}</legend>
              <p className="text-xl">
                <strong>{which === "rest" ? "At rest" : "Energised"}</strong> <span className="text-muted">{must}</span>
                {word && (
                  <strong className={`ml-3 ${(word === "holds") === (must === "must hold") ? "text-calm" : "text-ember"}`}>
                    {word}
                  </strong>
                )}
              </p>
              <div className="grid grid-cols-3 gap-3">
                {(
                  [
                    ["start", "Put on, inHg"],
                    ["end", "Left, inHg"],
                    ["seconds", "After, s"],
                  ] as const
                ).map(([key, label]) => (
                  <TextField
                    key={key}
                    label={label}
                    aria-label={`${which === "rest" ? "At rest" : "Energised"}: ${label}`}
                    inputMode="decimal"
                    value={draft[which][key]}
                    onChange={(e) => set({ [which]: { ...draft[which], [key]: e.target.value } })}
                  />
                ))}
              </div>
            </fieldset>
          );
        })}
      </div>
      <Choice
        label="When switched"
        options={[
          ["yes", "It clicks"],
          ["no", "No click"],
        ]}
        value={draft.clicked}
        onChange={(clicked) => set({ clicked })}
      />
      <Choice
        label="Third port, when released"
        options={[
          ["yes", "Lets the vacuum go"],
          ["no", "Keeps it"],
        ]}
        value={draft.vents}
        onChange={(vents) => set({ vents })}
      />
      <Cycles cycles={draft.cycles} onChange={(cycles) => set({ cycles })} />
      <TrappedVolume value={draft.volume} onChange={(volume) => set({ volume })} />
      <OldAgainstNew joint={joint} />
    </CheckFrame>
  );
}

/** Commanded again and again, cold and hot: one cycle misses the valve that sticks one time in ten. */
function Cycles({ cycles, onChange }: { cycles: TypedCycles[]; onChange: (cycles: TypedCycles[]) => void }) {
  const change = (at: number, part: Partial<TypedCycles>) => onChange(cycles.map((c, i) => (i === at ? { ...c, ...part } : c)));
  const both = (["cold", "hot"] as const).filter((t) => !cycles.some((c) => c.temperature === t));
  return (
    <div className="flex flex-col gap-3">
      {cycles.map((c, at) => (
        <fieldset key={c.temperature} className="grid grid-cols-2 items-end gap-3 border-l-4 border-edge pl-4 sm:grid-cols-5">
          <legend className="font-bold">Commanded again and again, {c.temperature}</legend>
          {COUNTS.map(([key, label]) => (
            <TextField
              key={key}
              label={`${label}, times`}
              aria-label={`${c.temperature}: ${label}, times`}
              inputMode="numeric"
              value={c[key]}
              onChange={(e) => change(at, { [key]: e.target.value })}
            />
          ))}
          <Button look="bare" onClick={() => onChange(cycles.filter((_, i) => i !== at))}>
            Take out
          </Button>
        </fieldset>
      ))}
      <div className="flex flex-wrap gap-3">
        {both.map((temperature) => (
          <Button key={temperature} onClick={() => onChange([...cycles, { ...NO_CYCLES, temperature }])}>
            Count cycles, {temperature}
          </Button>
        ))}
      </div>
    </div>
  );
}

/** The fitted part's last test beside the new one's: the new one passes on the bench before it is fitted. */
function OldAgainstNew({ joint }: { joint: string }) {
  const { state, context } = useJob();
  if (!context) return null;
  const tests = state.checks.filter((c) => c.check === "valve" && c.place === joint);
  const last = (bench: boolean) => tests.findLast((c) => c.onBench === bench);
  const [old, fresh] = [last(false), last(true)];
  if (!old && !fresh) return null;
  const said = (c: typeof old) => (c ? judgeCheck("valve", c.record, context).headline : "not tested yet");
  return (
    <dl className="grid gap-x-6 gap-y-1 sm:grid-cols-[auto_1fr]">
      <dt className="text-muted">Fitted part</dt>
      <dd>{said(old)}</dd>
      <dt className="text-muted">New part, on the bench</dt>
      <dd>{said(fresh)}</dd>
    </dl>
  );
}
