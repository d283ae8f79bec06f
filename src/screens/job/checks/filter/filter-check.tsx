"use client";

import type { ReactNode } from "react";
import { filter } from "@/core/checks/filter";
import { filterForm } from "@/core/checks/filter/form";
import { fromSi, parseTrusted, toSi } from "@/core/units";
import { Dial } from "@/ui/dial";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

const hPa = (si: number) => Number(fromSi(si, "hPa").value.toFixed(1));

/** The display three times: standing, idling, held; each state with what makes it comparable. */
export function FilterCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("filter", filterForm);
  const { context, holds, set } = check;
  const held = parseTrusted(holds<string | undefined>("held.pressure") ?? "", "filterPressure", "hPa");
  const { filterGood, filterMost } = context.limits;
  return (
    <CheckFrame check={check} head={head} plan={filter.plan(context, undefined)} at="filter-core">
      <div className="grid items-start gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <div className="max-w-56">
          <Dial
            label="Filter pressure held at 3000 1/min, hPa gauge"
            value={held && hPa(toSi(held))}
            min={0}
            max={Math.max(150, 2 * hPa(filterMost.value))}
            step={1}
            unit="hPa gauge"
            band={{ low: 0, high: hPa(filterGood.value) }}
            onMove={(v) => set({ "held.pressure": `${v} hPa` })}
          />
          <p className="text-muted">
            Good up to {hPa(filterGood.value)} hPa, at most {hPa(filterMost.value)} hPa gauge, by {filterMost.source}
          </p>
        </div>
        <div className="flex min-w-0 flex-col gap-4">
          <div className="grid items-start gap-4 sm:grid-cols-2">
            <FormFields of={check} names={["held.pressure", "held.rpm", "idle.pressure", "idle.rpm", "keyOn", "division"]} />
          </div>
        </div>
      </div>
      <FormFields of={check} names={["pipes", "egr"]} />
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields
          of={check}
          names={[
            "held.maf",
            "held.exhaustTemperature",
            "idle.maf",
            "idle.exhaustTemperature",
            "sootModel",
            "sootMeasured",
            "warm",
          ]}
        />
      </div>
    </CheckFrame>
  );
}
