"use client";

import { type ReactNode, useDeferredValue, useMemo } from "react";
import { type DecayRecord, decay, readDecay } from "@/core/checks/decay";
import { decayForm, decaySetup } from "@/core/checks/decay/fields";
import { type TakenSamples, takenSamples } from "@/core/checks/samples";
import type { DecayResult } from "@/core/gas/decay";
import type { UnitId } from "@/core/units";
import { parseBare } from "@/core/units";
import { entriesOf } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { Clock } from "@/ui/clock";
import { FormFields } from "../../../form/form-field";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { MustBeCaught } from "../must-be-caught";
import { SamplesField } from "../samples";
import { type CheckInHand, useCheckForm } from "../use-check-form";
import { DecayPlot } from "./decay-plot";

type DecayInHand = CheckInHand<DecayRecord, keyof typeof decayForm.fields>;
/** How long pressure is held before it is shut off, s */
const HOLD = 120;

/** The decay, where the car has a vapour system; one that was carried to another car is kept, and says so. */
export function DecayCheck({ head }: { head: ReactNode }) {
  const { layout } = useJob();
  if (layout && entriesOf(layout, "evap").length > 0) return <Decay head={head} />;
  return (
    <>
      {head}
      <p className="mt-3 max-w-prose">
        This car has no vapour system to shut a pressure in, as its facts have it. What was typed is kept: correct the vehicle's
        facts in Story, or take another instrument.
      </p>
    </>
  );
}

/** Hold, shut off, watch it fall: by volume, and with a reference hole open for a second run. */
function Decay({ head }: { head: ReactNode }) {
  const check = useCheckForm("decay", decayForm);
  const { context, formState, value, set } = check;
  const unit = value<UnitId>("unit");
  const byReference = value("byReference") === true;
  const [alone, again] = [takenSamples(value("alone")), takenSamples(value("again"))];
  const fit = useFit(check);
  const level = parseBare(value<string | undefined>("fuelLevel") ?? "");
  const plan = decay.plan(context, {
    ...decaySetup(formState),
    vent: value<"plug" | "command">("vent.by"),
    byReference,
    hotTank: value("hotTank") === true,
    ...(level === undefined ? {} : { fuelLevel: level }),
  });
  const shutOff = (change: Partial<TakenSamples>) => {
    const from = value<number | undefined>("holdFrom");
    const held = change.startedAt && from ? { held: String(Math.round((change.startedAt - from) / 1000)) } : {};
    set({ alone: { ...alone, ...change }, ...held });
  };
  return (
    <CheckFrame check={check} head={head} plan={plan} setup={decaySetup(formState)}>
      {alone.samples.length > 1 && (
        <DecayPlot samples={alone.samples} reference={byReference ? again.samples : []} fit={fit} unit={unit} />
      )}
      <SamplesField
        label="Decay"
        draft={alone}
        onChange={shutOff}
        unit={unit}
        kind="gauge"
        start="Shut off now"
        keyed={!byReference || again.startedAt === null}
      />
      <Hold check={check} />
      <FormFields of={check} names={["byReference", "reference.diameter"]} />
      {byReference && (
        <SamplesField
          label="With the reference hole"
          draft={again}
          onChange={(change) => set({ again: { ...again, ...change } })}
          unit={unit}
          kind="gauge"
          start="Shut off now, reference open"
        />
      )}
      <fieldset className="flex flex-col gap-2">
        <legend className="font-bold">Shut, before anything is pushed in: what vapour does by itself</legend>
        <div className="grid items-start gap-4 sm:grid-cols-3">
          <FormFields of={check} names={["vapourRise.start", "vapourRise.end", "vapourRise.seconds"]} />
        </div>
      </fieldset>
      <Setup check={check} />
    </CheckFrame>
  );
}

/** The fitted curve, as soon as there is one: drawn after what was typed. */
function useFit({ record, context }: DecayInHand): DecayResult | undefined {
  const whole = useDeferredValue(record);
  return useMemo(() => {
    if (!whole) return undefined;
    try {
      return readDecay(whole, context);
    } catch {
      return undefined;
    }
  }, [whole, context]);
}

function Hold({ check }: { check: DecayInHand }) {
  const from = check.value<number | undefined>("holdFrom");
  return (
    <div className="flex flex-wrap items-end gap-4">
      {from === undefined ? (
        <Button onClick={() => check.set({ holdFrom: Date.now() })}>Pressure is up: hold begins</Button>
      ) : (
        <p className="text-lg">
          Holding: <Clock end={from + HOLD * 1000} done="held long enough" />
        </p>
      )}
      <FormFields of={check} names={["held"]} className="max-w-40" />
    </div>
  );
}

/** Reported exceptions that spoil a decay: untouched, nothing was. */
function spoiledSoFar({ value }: DecayInHand): string {
  const leaks = value<boolean | undefined>("adapterLeaks");
  if (leaks || (value<readonly string[] | undefined>("touchedBefore") ?? []).length > 0) return "Reported";
  return leaks === false ? "Nothing" : "Not reported";
}

function Setup({ check }: { check: DecayInHand }) {
  return (
    <>
      <MustBeCaught />
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields
          of={check}
          names={["entry", "unit", "vent.by", "gas", "fuelLevel", "vent.seconds", "hotTank"]}
          onChange={(name, value) =>
            check.set({
              [name]: value,
              ...(name === "vent.by" ? { ventAt: value === "command" ? Date.now() : undefined } : {}),
            })
          }
        />
      </div>
      <FormFields of={check} names={["instrument"]} />
      <details className="border-y border-line">
        <summary className="flex min-h-11 cursor-pointer items-center gap-2">
          Did anything spoil it? Volume known better? <span className="text-muted">{spoiledSoFar(check)}</span>
        </summary>
        <div className="flex flex-col gap-3 pb-3">
          <div>
            <Button onClick={() => check.set({ adapterLeaks: false, touchedBefore: [] })}>Nothing spoiled it</Button>
          </div>
          <FormFields of={check} names={["volume", "adapterLeaks", "touchedBefore"]} />
        </div>
      </details>
    </>
  );
}
