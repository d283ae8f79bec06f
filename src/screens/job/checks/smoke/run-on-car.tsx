"use client";

import { draftOfRun, type SmokeRun } from "@/core/checks/smoke";
import { FromTheCar } from "../../practice/read-on-car";
import { useJob } from "../../use-job";
import type { SmokeHandle } from "./use-smoke-run";

/** A whole run on the practice car, by this machine and as it is set up; looked over, and recorded, as any other. */
export function RunOnCar({ run }: { run: SmokeHandle }) {
  const { draft, update, machine, fill, kind, circuit } = run;
  const { state } = useJob();
  return (
    <FromTheCar
      label="Run it on the car"
      take={async (bay) => {
        if (!state.conditions) return "Read the bay's conditions first (above): every size is judged under them";
        const vent = draft.vent === "command" ? { by: "command", at: 0, seconds: 600 } : { by: "plug" };
        const { id: _, kind: __, service: ___, ...ofMachine } = machine;
        const record = await bay.read(kind, { ...fill, machine: ofMachine, ...(circuit === "evap" ? { vent } : {}) });
        const { fuelLevel } = (record ?? {}) as { readonly fuelLevel?: number };
        const filled = fuelLevel === undefined ? {} : { fuelLevel: String(fuelLevel) };
        if (record) update((d) => ({ ...draftOfRun(d, record as SmokeRun, Date.now()), ...filled }));
        return record ? undefined : "This car has nothing to say to that";
      }}
    />
  );
}
