"use client";

import { type ReactNode, useDeferredValue, useEffect, useMemo } from "react";
import { type DecayRecord, decay, readDecay } from "@/core/checks/decay";
import { entryPrice, preferredEntry } from "@/core/checks/evap-smoke";
import type { DecayResult } from "@/core/gas/decay";
import type { UnitId } from "@/core/units";
import { entriesOf, usualSetup } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { Chips, Choice, Tick } from "@/ui/choice";
import { Clock } from "@/ui/clock";
import { SelectField, TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { readField } from "../../fields";
import { useOverlay } from "../../overlay";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { EvapConditions } from "../evap-conditions";
import { InstrumentField, instrumentOf, NO_INSTRUMENT, REACH } from "../instrument-field";
import { readNumber } from "../read-number";
import { NO_SAMPLES, type SamplesDraft, SamplesField } from "../samples";
import { useCheckDraft } from "../use-check-draft";
import { useRequired } from "../use-required";
import { DecayPlot } from "./decay-plot";

const EMPTY = {
  entry: "",
  vent: "plug" as "plug" | "command",
  ventAt: null as number | null,
  commandSeconds: "",
  fuelLevel: "",
  unit: "inH2O" as UnitId,
  holdFrom: null as number | null,
  hotTank: false,
  riseStart: "0",
  riseEnd: "",
  riseSeconds: "120",
  held: "",
  alone: NO_SAMPLES,
  byReference: false,
  diameter: "0.508 mm",
  known: NO_SAMPLES,
  volume: "",
  instrument: NO_INSTRUMENT,
  touched: [] as string[],
  adapterLeaks: false,
};
const HOLD = 120;

/** Hold, shut off, watch it fall: by volume, and with a reference hole open for a second run. */
export function DecayCheck({ head }: { head: ReactNode }) {
  const { state, layout, context, shop } = useJob();
  const { draft, set, clear } = useCheckDraft("decay", EMPTY);
  const required = useRequired();
  const { setOverlay } = useOverlay();
  const entry = draft.entry || (context ? preferredEntry(context) : "");
  const setup = useMemo(
    () =>
      layout && entry
        ? { ...usualSetup(layout, entry), blocked: [draft.vent === "command" ? "vent-valve" : "vent-filter"] }
        : { entry, blocked: [], heldOpen: [] },
    [layout, entry, draft.vent],
  );
  useEffect(() => {
    setOverlay(setup.entry ? { setup } : {});
    return () => setOverlay({});
  }, [setup, setOverlay]);
  const instrument = instrumentOf(draft.instrument, shop.instruments, "pressure", REACH.lowPressure);
  const level = readNumber(draft.fuelLevel);
  const record = (): DecayRecord | string => {
    if (!context || !layout) return "Describe the vehicle first.";
    if (!state.conditions) return "Set the conditions first (top right): a size needs ambient pressure and temperature.";
    if (level === undefined) return "Type the fuel level: the gas space hangs on it.";
    if (!instrument) return "Say which gauge, its division, and what it shows with nothing on it.";
    if (draft.alone.samples.length < 4) return "Shut off, and note the pressure every few seconds: at least 4 readings.";
    const held = readNumber(draft.held);
    const [start, end, seconds] = [draft.riseStart, draft.riseEnd, draft.riseSeconds].map(readNumber);
    const vapourRise = start === undefined || end === undefined || seconds === undefined ? undefined : { start, end, seconds };
    const volume = readField(draft.volume, "volume", "L");
    const diameter = readField(draft.diameter, "hole", "mm");
    const zero = draft.alone.startedAt;
    return {
      ...setup,
      source: draft.alone.source,
      vent:
        draft.vent === "plug"
          ? { by: "plug" }
          : {
              by: "command",
              at: zero && draft.ventAt ? Math.round((draft.ventAt - zero) / 100) / 10 : 0,
              seconds: readNumber(draft.commandSeconds) ?? context.limits.outputTime.value,
            },
      fuelLevel: level,
      ...(required ? { required: required.field } : {}),
      touchedBefore: draft.touched,
      adapterLeaks: draft.adapterLeaks,
      ambient: state.conditions.ambient,
      temperature: state.conditions.bayTemperature,
      unit: draft.unit,
      ...(vapourRise ? { vapourRise } : {}),
      ...(held === undefined ? {} : { held }),
      samples: draft.alone.samples,
      ...(draft.byReference && diameter && draft.known.samples.length >= 4
        ? { reference: { diameter, samples: draft.known.samples } }
        : {}),
      ...(volume ? { volume } : {}),
      instrument,
    };
  };
  const whole = useDeferredValue(record());
  const fit = useMemo((): DecayResult | undefined => {
    if (typeof whole === "string" || !context) return undefined;
    try {
      return readDecay(whole, context);
    } catch {
      return undefined;
    }
  }, [whole, context]);
  if (!context || !layout) return null;
  const plan = decay.plan(context, {
    ...setup,
    vent: draft.vent,
    byReference: draft.byReference,
    hotTank: draft.hotTank,
    ...(level === undefined ? {} : { fuelLevel: level }),
  });
  const part = (key: "alone" | "known") => (change: Partial<SamplesDraft>) => set({ [key]: { ...draft[key], ...change } });
  const shutOff = (change: Partial<SamplesDraft>) => {
    const held = change.startedAt && draft.holdFrom ? String(Math.round((change.startedAt - draft.holdFrom) / 1000)) : draft.held;
    set({ alone: { ...draft.alone, ...change }, held });
  };
  const knownRuns = draft.byReference && draft.known.startedAt !== null;
  const chosen = entriesOf(layout, "evap").find((e) => e.id === entry);
  return (
    <CheckFrame kind="decay" head={head} plan={plan} record={record()} startedAt={draft.startedAt} onDone={clear}>
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <SelectField
          label="Pressure goes in at"
          options={entriesOf(layout, "evap").map((j) => [j.id, j.name] as const)}
          value={entry}
          onChange={(e) => set({ entry: e.target.value })}
          hint={chosen ? `Price: ${entryPrice(chosen)}` : undefined}
        />
        <Choice
          label="Unit of the gauge"
          options={(["inH2O", "Pa", "mbar", "psi"] as const).map((u) => [u, u] as const)}
          value={draft.unit}
          onChange={(unit) => set({ unit })}
        />
      </div>
      <EvapConditions
        vent={draft.vent}
        onVent={(vent) => set({ vent, ventAt: vent === "command" ? Date.now() : null })}
        fuelLevel={draft.fuelLevel}
        onFuelLevel={(fuelLevel) => set({ fuelLevel })}
        holds={draft.commandSeconds}
        onHolds={(commandSeconds) => set({ commandSeconds })}
      />
      <InstrumentField
        measures="pressure"
        reach={REACH.lowPressure}
        value={draft.instrument}
        onChange={(i) => set({ instrument: i })}
      />
      <Tick label="The tank is warm to the hand" checked={draft.hotTank} onChange={(hotTank) => set({ hotTank })} />
      <fieldset className="flex flex-col gap-2">
        <legend className="font-bold">Shut, before anything is pushed in: what vapour does by itself</legend>
        <div className="flex flex-wrap items-end gap-4">
          {(
            [
              ["riseStart", `Shut at, ${draft.unit} gauge`],
              ["riseEnd", `Then, ${draft.unit} gauge`],
              ["riseSeconds", "After, s"],
            ] as const
          ).map(([key, label]) => (
            <TextField
              key={key}
              className="w-40"
              label={label}
              inputMode="decimal"
              value={draft[key]}
              onChange={(e) => set({ [key]: e.target.value })}
            />
          ))}
        </div>
      </fieldset>
      <div className="flex flex-wrap items-end gap-4">
        {draft.holdFrom === null ? (
          <Button onClick={() => set({ holdFrom: Date.now() })}>Pressure is up: hold begins</Button>
        ) : (
          <p className="text-lg">
            Holding: <Clock end={draft.holdFrom + HOLD * 1000} done="held long enough" />
          </p>
        )}
        <TextField
          label="Held before shut-off, s"
          inputMode="decimal"
          className="max-w-40"
          value={draft.held}
          onChange={(e) => set({ held: e.target.value })}
        />
      </div>
      <SamplesField
        label="Decay"
        draft={draft.alone}
        onChange={shutOff}
        unit={draft.unit}
        kind="gauge"
        start="Shut off now"
        keyed={!knownRuns}
      />
      <Tick
        label="Once more with a reference hole open: it takes volume and yielding walls out"
        checked={draft.byReference}
        onChange={(byReference) => set({ byReference })}
      />
      {draft.byReference && (
        <>
          <QuantityField
            label="Reference hole"
            field="hole"
            example="0.508"
            unit="mm"
            units={["mm", "in", "thou"]}
            value={draft.diameter}
            onChange={(diameter) => set({ diameter })}
          />
          <SamplesField
            label="With the reference hole"
            draft={draft.known}
            onChange={part("known")}
            unit={draft.unit}
            kind="gauge"
            start="Shut off now, reference open"
          />
        </>
      )}
      {draft.alone.samples.length > 1 && (
        <DecayPlot
          samples={draft.alone.samples}
          reference={draft.byReference ? draft.known.samples : []}
          fit={fit}
          unit={draft.unit}
        />
      )}
      <details className="border-y border-line">
        <summary className="flex min-h-11 cursor-pointer items-center">Did anything spoil it? Volume known better?</summary>
        <div className="flex flex-col gap-3 pb-3">
          <QuantityField
            label="Gas space, where it is known better than by fuel level"
            field="volume"
            example="33"
            unit="L"
            units={["L"]}
            value={draft.volume}
            onChange={(volume) => set({ volume })}
          />
          <Tick
            label="The adapter leaked at its own seal"
            checked={draft.adapterLeaks}
            onChange={(adapterLeaks) => set({ adapterLeaks })}
          />
          <Chips
            label="Tightened or touched before the test"
            options={layout.joints
              .filter((j) => j.kind === "seal" && ["tank", "neck", "canister", "purge-line"].includes(j.from))
              .map((j) => [j.id, j.name] as const)}
            value={draft.touched}
            onChange={(touched) => set({ touched })}
          />
        </div>
      </details>
    </CheckFrame>
  );
}
