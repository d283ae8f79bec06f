"use client";

import type { ReactNode } from "react";
import {
  expectedVacuum,
  NEEDLE_NAMES,
  NEEDLES,
  type Needle,
  SNAP_NAMES,
  SNAPS,
  type Snap,
  type VacuumReading,
  vacuum,
} from "@/core/checks/vacuum";
import { fromSi, toSi } from "@/core/units";
import { Choice, Tick, YesNo } from "@/ui/choice";
import { Dial } from "@/ui/dial";
import { TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { usePreferences } from "../../../session/preferences";
import { readField, warmNow } from "../../fields";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { InstrumentField, instrumentOf, NO_INSTRUMENT, REACH } from "../instrument-field";
import { readNumber } from "../read-number";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";
import { NeedlePicture } from "./needle-picture";

const EMPTY = {
  vacuum: "",
  rpm: "",
  needle: "steady" as Needle,
  snap: "not-tried" as Snap,
  portSound: false,
  /** Nobody said yet, where it is undefined */
  warm: undefined as boolean | undefined,
  instrument: NO_INSTRUMENT,
};

/** The gauge on the manifold: set to match the real one, its needle picked from how it moves. */
export function VacuumCheck({ head }: { head: ReactNode }) {
  const { context, state, shop } = useJob();
  const { number } = usePreferences();
  const { draft, set, clear } = useCheckDraft("vacuum", EMPTY);
  usePlace("gauge-port", () => false, undefined);
  if (!context) return null;
  const read = readField(draft.vacuum, "vacuum", "inHg");
  const rpm = readNumber(draft.rpm);
  const warm = draft.warm ?? warmNow(state.conditions);
  const ambient = state.conditions?.ambient;
  const band = ambient && expectedVacuum(context, { ambient: toSi(ambient), rpm: rpm ?? context.limits.idleSpeed.value });
  const inHg = (pa: number) => fromSi(pa, "inHg").value;
  const instrument = instrumentOf(draft.instrument, shop.instruments, "pressure", REACH.vacuum);
  const record = (): VacuumReading | string => {
    if (!ambient) return "Set the conditions first (top right): the band goes by ambient pressure.";
    if (!instrument) return "Say which gauge, its division, and what it shows with nothing on it.";
    if (!read) return "Set the gauge to match the real one, or type the vacuum.";
    if (rpm === undefined) return "Type the idle speed: the band goes by it, and a high idle hides a leak.";
    if (warm === undefined) return "Say whether the engine is warm.";
    return {
      vacuum: read,
      rpm,
      needle: draft.needle,
      snap: draft.snap,
      portSound: draft.portSound,
      warm,
      instrument,
      ambient,
    };
  };
  return (
    <CheckFrame
      kind="vacuum"
      head={head}
      plan={vacuum.plan(context, undefined)}
      record={record()}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <InstrumentField
        measures="pressure"
        reach={REACH.vacuum}
        value={draft.instrument}
        onChange={(i) => set({ instrument: i })}
      />
      <div className="grid gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <Dial
          label="Vacuum gauge, inHg vacuum"
          value={read ? Number(fromSi(toSi(read), "inHg").value.toFixed(1)) : undefined}
          min={0}
          max={30}
          step={0.1}
          unit="inHg vacuum"
          band={band ? { low: inHg(band.low), high: inHg(band.high) } : undefined}
          onMove={(v) => set({ vacuum: `${v} inHg` })}
        />
        <div className="flex min-w-0 flex-col gap-3">
          {band && (
            <p className="text-muted">
              Here and at this idle it should stand at{" "}
              <strong className="text-calm">
                {number(inHg(band.low), 1)} to {number(inHg(band.high), 1)} inHg vacuum
              </strong>
            </p>
          )}
          <div className="grid gap-4 sm:grid-cols-2">
            <QuantityField
              label="Vacuum at idle"
              field="vacuum"
              example="19"
              unit="inHg"
              units={["inHg", "kPa", "mbar"]}
              value={draft.vacuum}
              onChange={(v) => set({ vacuum: v })}
            />
            <TextField
              label="Idle speed, 1/min"
              inputMode="numeric"
              value={draft.rpm}
              onChange={(e) => set({ rpm: e.target.value })}
            />
          </div>
          <div className="grid gap-x-6 sm:grid-cols-2">
            <Tick
              label="The port's own nipple and hose are sound"
              checked={draft.portSound}
              onChange={(portSound) => set({ portSound })}
            />
            <YesNo label="Engine" yes="Warm" no="Not warm" value={warm} onChange={(warm) => set({ warm })} />
          </div>
        </div>
      </div>
      <Choice
        label="The needle at idle"
        options={NEEDLES.map((n) => [
          n,
          <>
            <NeedlePicture pattern={n} /> {NEEDLE_NAMES[n]}
          </>,
        ])}
        value={draft.needle}
        onChange={(needle) => set({ needle })}
      />
      <Choice
        label="After a snap of the throttle"
        options={SNAPS.map((s) => [
          s,
          <>
            {s === "slow-return" && <NeedlePicture pattern="slow-return" />} {SNAP_NAMES[s]}
          </>,
        ])}
        value={draft.snap}
        onChange={(snap) => set({ snap })}
      />
    </CheckFrame>
  );
}
