"use client";

import type { ReactNode } from "react";
import { backPressure } from "@/core/checks/back-pressure";
import { backPressureForm } from "@/core/checks/back-pressure/fields";
import { fromSi, parseTrusted, toSi } from "@/core/units";
import { Dial } from "@/ui/dial";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

const kPa = (si: number) => Number(fromSi(si, "kPa").value.toFixed(1));

/** A gauge where the sensor sits: the needle at the raised speed, idle and snap beside it. */
export function BackPressureCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("back-pressure", backPressureForm);
  const { context, value, set } = check;
  const raised = parseTrusted(value<string | undefined>("raised") ?? "", "backPressure", "kPa");
  const limit = context.limits.backRaised;
  return (
    <CheckFrame check={check} head={head} plan={backPressure.plan(context, undefined)} at="catalyst">
      <div className="grid items-start gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <Dial
          label="Gauge at 2500 rpm, kPa gauge"
          value={raised && kPa(toSi(raised))}
          min={0}
          max={Math.max(60, 3 * kPa(limit.value))}
          step={0.5}
          unit="kPa gauge"
          band={{ low: 0, high: kPa(limit.value) }}
          onMove={(v) => set({ raised: `${v} kPa` })}
        />
        <div className="grid items-start gap-4 sm:grid-cols-2">
          <FormFields of={check} names={["raised", "idle", "snap", "warm"]} />
        </div>
      </div>
      <FormFields of={check} names={["instrument"]} />
    </CheckFrame>
  );
}
