"use client";

import { useState } from "react";
import { draftOfRun, type SmokeRun } from "@/core/checks/smoke";
import { markable } from "@/core/vehicle";
import { Chips } from "@/ui/choice";
import { FromTheCar } from "../../practice/read-on-car";
import { useBay } from "../../practice/use-bay";
import { useJob } from "../../use-job";
import type { SmokeHandle } from "./use-smoke-run";

/** A whole run on the practice car, by this machine and as it is set up; looked over, and recorded, as any other. */
export function RunOnCar({ run }: { run: SmokeHandle }) {
  const { draft, update, machine, fill, kind, circuit } = run;
  const { state, layout } = useJob();
  const bay = useBay();
  const [looked, setLooked] = useState<readonly string[]>([]);
  if (!bay || bay.over || !layout) return null;
  const places = markable(layout, fill, circuit).tested;
  return (
    <div className="flex flex-col gap-2">
      <FromTheCar
        label="Run it on the car"
        take={async (bay) => {
          if (!state.conditions) return "Read the bay's conditions first (above): every size is judged under them";
          const vent = draft.vent === "command" ? { by: "command", at: 0, seconds: 600 } : { by: "plug" };
          const { id: _, kind: __, service: ___, ...ofMachine } = machine;
          const record = await bay.read(kind, {
            ...fill,
            machine: ofMachine,
            ...(looked.length > 0 ? { lookedAt: looked } : {}),
            ...(circuit === "evap" ? { vent } : {}),
          });
          const { fuelLevel } = (record ?? {}) as { readonly fuelLevel?: number };
          const filled = fuelLevel === undefined ? {} : { fuelLevel: String(fuelLevel) };
          if (record) update((d) => ({ ...draftOfRun(d, record as SmokeRun, Date.now()), ...filled }));
          return record ? undefined : "This car gives no reading for that";
        }}
      />
      <details>
        <summary className="flex min-h-11 cursor-pointer items-center gap-2 text-muted">
          Where you look: {looked.length === 0 ? "along every joint" : `at ${looked.length} of ${places.length} joints`}
        </summary>
        <Chips label="Only at" options={places.map((j) => [j.id, j.name] as const)} value={looked} onChange={setLooked} />
      </details>
    </div>
  );
}
