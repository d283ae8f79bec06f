"use client";

import type { ReactNode } from "react";
import { crankcase } from "@/core/checks/crankcase";
import { crankcaseForm } from "@/core/checks/crankcase/fields";
import { fromSi, parseTrusted, toSi } from "@/core/units";
import { Dial } from "@/ui/dial";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** A manometer on the dipstick tube: suction to the left of zero, pressure to the right. */
export function CrankcaseCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("crankcase", crankcaseForm);
  const { context, value, set } = check;
  const idle = parseTrusted(value<string | undefined>("idle") ?? "", "crankcase", "hPa");
  const band = context.vehicle.crankcaseBand;
  const hPa = (si: number) => fromSi(si, "hPa").value;
  return (
    <CheckFrame check={check} head={head} plan={crankcase.plan(context, undefined)} at="dipstick">
      <div className="grid items-start gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <Dial
          label="Manometer, hPa gauge"
          value={idle ? Number(hPa(toSi(idle)).toFixed(1)) : undefined}
          min={-50}
          max={50}
          step={0.5}
          unit="hPa gauge"
          band={band ? { low: hPa(toSi(band.low)), high: hPa(toSi(band.high)) } : undefined}
          onMove={(v) => set({ idle: `${v} hPa` })}
        />
        <div className="flex min-w-0 flex-col gap-3">
          {!band && (
            <p className="text-amber">
              No band of this engine is entered (Story, vehicle): only the sign can be judged, and suction beyond any engine's.
            </p>
          )}
          <div className="grid items-start gap-4 sm:grid-cols-2">
            <FormFields of={check} names={["idle", "raised", "rpm", "warm"]} />
          </div>
          <FormFields of={check} names={["sealed"]} />
        </div>
      </div>
      <FormFields of={check} names={["instrument"]} />
    </CheckFrame>
  );
}
