"use client";

import type { ReactNode } from "react";
import { hold } from "@/core/checks/hold";
import { holdForm } from "@/core/checks/hold/fields";
import { parseQuantity } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { Dial } from "@/ui/dial";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

type Watch = "still" | "wiggled";
type Samples = readonly (readonly [number, number])[];
const WATCHES: readonly (readonly [Watch, string])[] = [
  ["still", "Left alone"],
  ["wiggled", "While wiggled"],
];
/** How long a hold is watched, s */
const WATCHED = 60;

/** inHg that the field holds, as the needle shows it. */
const shownOn = (typed: string) => {
  const read = parseQuantity(typed, { dimension: "pressure", unit: "inHg" });
  return read.ok && read.value.unit === "inHg" ? read.value.value : undefined;
};

/** Hand pump and gauge: each reading is a timed sample, left alone and while the pipe ends are wiggled. */
export function HoldCheck({ head }: { head: ReactNode }) {
  const { number } = usePreferences();
  const check = useCheckForm("hold", holdForm);
  const { context, value, set } = check;
  const watch = value<Watch | undefined>("watch") ?? "still";
  const began = value<Partial<Record<Watch, number>> | undefined>("began") ?? {};
  const samplesOf = (which: Watch) => value<Samples | undefined>(which) ?? [];
  const running = began[watch];
  const vacuum = shownOn(value<string>("gauge"));
  // The needle follows the hand, and what an instrument that is read live has shown last.
  const [, needle] = [...samplesOf("still"), ...samplesOf("wiggled")].at(-1) ?? [];
  const take = () => {
    const vacuum = shownOn(check.latest<string>("gauge"));
    if (vacuum === undefined) return;
    const now = Date.now();
    const start = running ?? now;
    const seconds = Math.round((now - start) / 100) / 10;
    const before = samplesOf(watch).filter(([t]) => t < seconds - 0.5);
    set({ began: { ...began, [watch]: start }, [watch]: [...before, [seconds, vacuum]] });
  };
  return (
    <CheckFrame
      check={check}
      head={head}
      plan={hold.plan(context, { joint: value("joint") })}
      clocks={running === undefined ? [] : [{ name: "Hold", end: running + WATCHED * 1000, done: `${WATCHED} s watched` }]}
    >
      <div className="grid items-start gap-x-6 gap-y-4 md:grid-cols-[auto_minmax(0,1fr)]">
        <div className="flex flex-wrap items-center gap-x-4 max-md:justify-between">
          <Dial
            label="Pump gauge, inHg vacuum"
            value={vacuum || needle || 0}
            min={0}
            max={30}
            step={0.1}
            unit="inHg vacuum"
            onMove={(v) => set({ gauge: String(v) })}
          />
        </div>
        <div className="flex min-w-0 flex-col gap-3">
          <Choice label="Watching it" options={WATCHES} value={watch} onChange={(w) => set({ watch: w })} />
          <div className="flex flex-wrap items-end gap-3">
            <div className="w-40">
              <FormFields of={check} names={["gauge"]} />
            </div>
            <Button look="primary" disabled={vacuum === undefined} onClick={take}>
              Take reading
            </Button>
            <Button onClick={() => set({ began: { ...began, [watch]: undefined }, [watch]: [] })}>Pump up again</Button>
          </div>
          {WATCHES.map(([which, name]) => (
            <p key={which} className={which === watch ? "" : "text-muted"}>
              {name}:{" "}
              {samplesOf(which).length === 0
                ? "nothing yet"
                : samplesOf(which)
                    .map(([t, v]) => `${number(v, 1)} inHg at ${number(t, 0)} s`)
                    .join(" → ")}
            </p>
          ))}
        </div>
      </div>
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["joint", "part"]} />
      </div>
      <div className="grid items-start gap-4 sm:grid-cols-3">
        <FormFields of={check} names={["strokes", "moved", "freeByHand", "startsAt", "fullAt", "reach", "back", "venting"]} />
      </div>
      <FormFields of={check} names={["isolated"]} />
      <FormFields of={check} names={["instrument"]} />
      <div className="max-w-md">
        <FormFields of={check} names={["volume"]} />
      </div>
    </CheckFrame>
  );
}
