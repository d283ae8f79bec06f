"use client";

import type { ReactNode } from "react";
import { cap } from "@/core/checks/cap";
import { capForm } from "@/core/checks/cap/fields";
import type { UnitId } from "@/core/units";
import { parseBare } from "@/core/units";
import { Dial } from "@/ui/dial";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** Where the scale of a tester's gauge ends. */
const FULL: Partial<Record<UnitId, number>> = { inH2O: 40, mbar: 100, psi: 1.5, kPa: 10 };

/** The filler cap by itself on a tester. */
export function CapCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("cap", capForm);
  const { context, value, set } = check;
  const unit = value<UnitId>("unit");
  const full = FULL[unit] ?? 40;
  const start = parseBare(value<string | undefined>("start") ?? "");
  return (
    <CheckFrame check={check} head={head} plan={cap.plan(context, undefined)} at="filler-cap">
      <div className="flex flex-wrap gap-4">
        <FormFields of={check} names={["part", "unit"]} />
      </div>
      <div className="grid items-start gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <Dial
          label={`Left on the cap, ${unit} gauge`}
          value={parseBare(value<string | undefined>("end") ?? "")}
          min={0}
          max={full}
          step={full / 200}
          unit={`${unit} gauge`}
          band={start ? { low: start * (1 - context.limits.capLoss.value), high: start } : undefined}
          onMove={(v) => set({ end: String(v) })}
        />
        <div className="flex min-w-0 flex-col gap-3">
          <div className="grid items-start gap-4 sm:grid-cols-3">
            <FormFields of={check} names={["start", "end", "seconds"]} />
          </div>
          <FormFields of={check} names={["seal", "testerProved"]} />
        </div>
      </div>
      <FormFields of={check} names={["instrument", "volume"]} />
    </CheckFrame>
  );
}
