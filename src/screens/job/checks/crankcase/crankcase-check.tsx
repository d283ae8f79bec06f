"use client";

import type { ReactNode } from "react";
import { type CrankcaseReading, crankcase } from "@/core/checks/crankcase";
import { fromSi, toSi } from "@/core/units";
import { Tick } from "@/ui/choice";
import { Dial } from "@/ui/dial";
import { TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { readField } from "../../fields";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { InstrumentField, instrumentOf, NO_INSTRUMENT, REACH } from "../instrument-field";
import { readNumber } from "../read-number";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

const EMPTY = { idle: "", raised: "", rpm: "750", warm: true, sealed: false, instrument: NO_INSTRUMENT };

/** A manometer on the dipstick tube: suction to the left of zero, pressure to the right. */
export function CrankcaseCheck({ head }: { head: ReactNode }) {
  const { context, shop } = useJob();
  const { draft, set, clear } = useCheckDraft("crankcase", EMPTY);
  usePlace("dipstick", () => false, undefined);
  if (!context) return null;
  const idle = readField(draft.idle, "crankcase", "hPa");
  const raised = readField(draft.raised, "crankcase", "hPa");
  const rpm = readNumber(draft.rpm);
  const instrument = instrumentOf(draft.instrument, shop.instruments, "pressure", REACH.crankcase);
  const band = context.vehicle.crankcaseBand;
  const hPa = (si: number) => fromSi(si, "hPa").value;
  const record = (): CrankcaseReading | string => {
    if (!instrument) return "Say which manometer, its division, and what it shows in free air.";
    if (!idle) return "Set the manometer to match the real one, or type the pressure: suction is negative.";
    if (rpm === undefined) return "Type the idle speed.";
    return { idle, rpm, ...(raised ? { raised } : {}), warm: draft.warm, sealed: draft.sealed, instrument };
  };
  return (
    <CheckFrame
      kind="crankcase"
      head={head}
      plan={crankcase.plan(context, undefined)}
      record={record()}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <InstrumentField
        measures="pressure"
        reach={REACH.crankcase}
        value={draft.instrument}
        onChange={(i) => set({ instrument: i })}
      />
      <div className="grid gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <Dial
          label="Manometer, hPa gauge"
          value={idle ? Number(hPa(toSi(idle)).toFixed(1)) : undefined}
          min={-50}
          max={50}
          step={0.5}
          unit="hPa gauge"
          band={band ? { low: hPa(toSi(band.low)), high: hPa(toSi(band.high)) } : undefined}
          onMove={(v) => set({ idle: `${v} hPa` })}
        />
        <div className="flex min-w-0 flex-col gap-3">
          {!band && (
            <p className="text-amber">
              No band of this engine is entered (Story, vehicle): only the sign can be judged, and suction beyond any engine's.
            </p>
          )}
          <div className="grid gap-4 sm:grid-cols-2">
            <QuantityField
              label="Crankcase at idle; suction is negative"
              field="crankcase"
              example="-3"
              unit="hPa"
              units={["hPa", "mbar", "inH2O", "kPa"]}
              value={draft.idle}
              onChange={(v) => set({ idle: v })}
            />
            <QuantityField
              label="At 2500 1/min, if read"
              field="crankcase"
              example="-2"
              unit="hPa"
              units={["hPa", "mbar", "inH2O", "kPa"]}
              value={draft.raised}
              onChange={(v) => set({ raised: v })}
            />
            <TextField
              label="Idle speed, 1/min"
              inputMode="numeric"
              value={draft.rpm}
              onChange={(e) => set({ rpm: e.target.value })}
            />
          </div>
          <Tick
            label="Oil cap on, hose sealed round the dipstick tube"
            checked={draft.sealed}
            onChange={(sealed) => set({ sealed })}
          />
          <Tick label="Engine warm" checked={draft.warm} onChange={(warm) => set({ warm })} />
        </div>
      </div>
    </CheckFrame>
  );
}
