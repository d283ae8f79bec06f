"use client";

import { useState } from "react";
import { fromSi, toSi } from "@/core/units";
import { Button } from "@/ui/button";
import { Tick } from "@/ui/choice";
import { ErrorNote } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { usePreferences } from "../../../session/preferences";
import { readField } from "../../fields";
import { useJob } from "../../use-job";
import type { SmokeHandle } from "./use-smoke-run";

/** Hose clamped: pressure up to its rating, ball at the bottom; hose open: smoke. Without it a run proves nothing. */
export function SmokeProof({ run }: { run: SmokeHandle }) {
  const { state, context, append } = useJob();
  const { format } = usePreferences();
  const { draft, set, machine } = run;
  const pressure = readField(draft.proofPressure, "smokePressure", machine.ratedPressure.unit);
  const [error, setError] = useState<string>();
  const ceiling = run.circuit === "evap" ? context?.limits.evapCeiling : undefined;
  const mustRegulate = ceiling !== undefined && toSi(machine.ratedPressure) > ceiling.value;
  const begin = async (proved: boolean) => {
    const plan = run.plan();
    if (!plan) return;
    const open = state.offCar.filter((i) => i.open);
    const fresh = plan.displaces.filter((d) => !open.some((i) => i.what === d.what));
    if (fresh.length > 0) {
      const wrong = await append(
        ...fresh.map((d) => ({ kind: "displaced" as const, body: { what: d.what, ...(d.joint ? { joint: d.joint } : {}) } })),
      );
      setError(wrong);
      if (wrong) return;
    }
    set({
      phase: "run",
      proved,
      startedAt: Date.now(),
      ventAt: Date.now(),
      endedAt: null,
      samples: [],
      seen: [],
      arrivals: [],
      flow: run.maxFlow,
      pressure: 0,
    });
  };
  return (
    <div className="flex max-w-2xl flex-col gap-4">
      <h3 className="text-xl font-bold">Machine proof</h3>
      <p>
        Clamp the hose at its end. {machine.name} must come up to {format({ ...machine.ratedPressure, kind: "gauge" })} and the
        ball must sit at the bottom. Open the hose: smoke.
      </p>
      {mustRegulate && (
        <div className="flex flex-col gap-2 border-l-4 border-amber bg-amber-soft px-4 py-3">
          <p className="text-amber">
            {machine.name} is stronger than this system bears: regulate it to at most{" "}
            {format(fromSi(ceiling.value, machine.ratedPressure.unit, "gauge"))} ({ceiling.source}) and show it here.
          </p>
          <QuantityField
            label="Regulated to, hose clamped"
            field="ratedPressure"
            example="0.45"
            unit={machine.ratedPressure.unit}
            units={["psi", "inH2O", "mbar", "kPa"]}
            value={draft.regulated}
            onChange={(regulated) => set({ regulated })}
          />
        </div>
      )}
      <QuantityField
        label="Pressure with the hose clamped"
        field="smokePressure"
        example="12.5"
        unit={machine.ratedPressure.unit}
        units={["inH2O", "psi", "mbar", "kPa"]}
        value={draft.proofPressure}
        onChange={(proofPressure) => set({ proofPressure })}
        hint={`Rated ${format({ ...machine.ratedPressure, kind: "gauge" })}`}
      />
      <Tick label="The ball sat at the bottom" checked={draft.ballAtBottom} onChange={(ballAtBottom) => set({ ballAtBottom })} />
      <Tick label="Smoke came out of the open hose" checked={draft.smokeSeen} onChange={(smokeSeen) => set({ smokeSeen })} />
      {error && <ErrorNote>{error}</ErrorNote>}
      <div className="flex flex-wrap gap-3">
        <Button look="primary" disabled={!pressure} onClick={() => void begin(true)}>
          Hose on: start the run
        </Button>
        <Button onClick={() => void begin(false)}>Start without proof (the run will be void)</Button>
        <Button look="bare" onClick={() => set({ phase: "setup" })}>
          Back to the setup
        </Button>
      </div>
    </div>
  );
}
