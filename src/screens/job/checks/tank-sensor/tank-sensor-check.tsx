"use client";

import type { ReactNode } from "react";
import { tankSensor } from "@/core/checks/tank-sensor";
import { tankSensorForm } from "@/core/checks/tank-sensor/fields";
import { parseTrusted, toSi } from "@/core/units";
import { Dial } from "@/ui/dial";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** The tank-pressure sensor against its own curve: cap off, then under a known pressure. */
export function TankSensorCheck({ head }: { head: ReactNode }) {
  const { number } = usePreferences();
  const check = useCheckForm("tank-sensor", tankSensorForm);
  const { context, value, set } = check;
  const zero = parseTrusted(value<string | undefined>("zero") ?? "", "voltage", "V");
  const curve = context.vehicle.evap?.sensor;
  const limit = context.limits.sensorZero.value;
  return (
    <CheckFrame check={check} head={head} plan={tankSensor.plan(context, undefined)} at="tank-flange">
      {curve ? (
        <p>
          Its own curve: <strong>{number(toSi(curve.zero), 2)} V</strong> with nothing on it,{" "}
          <strong>
            {number(curve.perUnit, 2)} V per {curve.unit}
          </strong>{" "}
          gauge.
        </p>
      ) : (
        <p className="text-amber">Its own curve is not known yet: enter it with the vehicle (Story).</p>
      )}
      <div className="grid items-start gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <Dial
          label="Signal, V"
          value={zero ? toSi(zero) : undefined}
          min={0}
          max={5}
          step={0.01}
          unit="V"
          band={curve ? { low: toSi(curve.zero) - limit, high: toSi(curve.zero) + limit } : undefined}
          onMove={(v) => set({ zero: `${v} V` })}
        />
        <div className="flex min-w-0 flex-col gap-3">
          <FormFields of={check} names={["keyOn", "capOff", "zero"]} />
          <div className="grid items-start gap-4 sm:grid-cols-2">
            <FormFields of={check} names={["second.pressure", "second.signal"]} />
          </div>
        </div>
      </div>
      <FormFields of={check} names={["instrument"]} />
    </CheckFrame>
  );
}
