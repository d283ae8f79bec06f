"use client";

import type { ReactNode } from "react";
import { type TankSensorRecord, tankSensor } from "@/core/checks/tank-sensor";
import { toSi } from "@/core/units";
import { Tick } from "@/ui/choice";
import { Dial } from "@/ui/dial";
import { QuantityField } from "@/ui/quantity-field";
import { usePreferences } from "../../../session/preferences";
import { readField } from "../../fields";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { InstrumentField, instrumentOf, NO_INSTRUMENT, REACH } from "../instrument-field";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

const EMPTY = { keyOn: false, capOff: false, zero: "", pressure: "", signal: "", instrument: NO_INSTRUMENT };

/** The tank-pressure sensor against its own curve: cap off, then under a known pressure. */
export function TankSensorCheck({ head }: { head: ReactNode }) {
  const { context, shop } = useJob();
  const { number } = usePreferences();
  const { draft, set, clear } = useCheckDraft("tank-sensor", EMPTY);
  usePlace("tank-flange", () => false, undefined);
  if (!context) return null;
  const zero = readField(draft.zero, "voltage", "V");
  const pressure = readField(draft.pressure, "tankPressure", "inH2O");
  const signal = readField(draft.signal, "voltage", "V");
  const instrument = instrumentOf(draft.instrument, shop.instruments, "voltage", REACH.volts);
  const curve = context.vehicle.evap?.sensor;
  const limit = context.limits.sensorZero.value;
  const record = (): TankSensorRecord | string => {
    if (!instrument) return "Say which meter, its division, and what it shows with its leads together.";
    if (!zero) return "Set the meter to match the real one, or type the volts with the cap off.";
    return {
      keyOn: draft.keyOn,
      capOff: draft.capOff,
      zero,
      ...(pressure && signal ? { second: { pressure, signal } } : {}),
      instrument,
    };
  };
  return (
    <CheckFrame
      kind="tank-sensor"
      head={head}
      plan={tankSensor.plan(context, undefined)}
      record={record()}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      {curve ? (
        <p>
          Its own curve: <strong>{number(toSi(curve.zero), 2)} V</strong> with nothing on it,{" "}
          <strong>
            {number(curve.perUnit, 2)} V per {curve.unit}
          </strong>{" "}
          gauge.
        </p>
      ) : (
        <p className="text-amber">Its own curve is not known yet: enter it with the vehicle (Story).</p>
      )}
      <InstrumentField measures="voltage" reach={REACH.volts} value={draft.instrument} onChange={(i) => set({ instrument: i })} />
      <div className="grid gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <Dial
          label="Signal, V"
          value={zero ? toSi(zero) : undefined}
          min={0}
          max={5}
          step={0.01}
          unit="V"
          band={curve ? { low: toSi(curve.zero) - limit, high: toSi(curve.zero) + limit } : undefined}
          onMove={(v) => set({ zero: `${v} V` })}
        />
        <div className="flex min-w-0 flex-col gap-3">
          <Tick label="Key on, engine off" checked={draft.keyOn} onChange={(keyOn) => set({ keyOn })} />
          <Tick label="Filler cap off" checked={draft.capOff} onChange={(capOff) => set({ capOff })} />
          <QuantityField
            label="Signal, cap off"
            field="voltage"
            example="1.5"
            unit="V"
            units={["V"]}
            value={draft.zero}
            onChange={(v) => set({ zero: v })}
          />
          <div className="grid gap-4 sm:grid-cols-2">
            <QuantityField
              label="A known pressure put on it, if any"
              field="tankPressure"
              example="8"
              unit="inH2O"
              units={["inH2O", "kPa", "mbar"]}
              value={draft.pressure}
              onChange={(v) => set({ pressure: v })}
            />
            <QuantityField
              label="Signal under it"
              field="voltage"
              example="2.7"
              unit="V"
              units={["V"]}
              value={draft.signal}
              onChange={(v) => set({ signal: v })}
            />
          </div>
        </div>
      </div>
    </CheckFrame>
  );
}
