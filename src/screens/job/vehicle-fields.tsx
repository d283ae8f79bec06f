"use client";

import type { ReactNode } from "react";
import { useFormState } from "react-hook-form";
import { MAKERS_LIMITS, type VehicleFormFacts, type vehicleForm } from "@/core/journal";
import { FormFields } from "../form/form-field";
import type { TypedForm } from "../form/use-typed-form";

type Of = typeof vehicleForm extends { readonly fields: infer F } ? Extract<keyof F, string> : never;

const COMMON = [
  "make",
  "model",
  "year",
  "registration",
  "vin",
  "odometer",
  "displacement",
  "fuel",
  "gas",
  "ethanol",
  "induction",
  "metering",
  "banks",
] as const satisfies readonly Of[];

/** The facts that change what a reading means, the rarer ones folded away. @param without what was asked before. */
export function VehicleFields({ of, without = [] }: { of: TypedForm<object, VehicleFormFacts, Of>; without?: readonly Of[] }) {
  const { errors } = useFormState({ control: of.control });
  const fitted = of.value<readonly string[] | undefined>("fitted") ?? [];
  return (
    <div className="grid items-start gap-4 sm:grid-cols-2">
      <FormFields of={of} names={COMMON.filter((name) => !without.includes(name))} />
      <div className="flex flex-col gap-2 sm:col-span-2">
        <FormFields of={of} names={["fitted"]} />
        <FormFields
          of={of}
          names={["fittedKnown"]}
          onChange={(_, all) => of.set({ fittedKnown: all === true ? true : undefined })}
        />
      </div>
      <p className="text-muted sm:col-span-2">
        Fuel and displacement are enough to begin. Unknown items use typical values, and no check clears anything on the strength
        of them.
      </p>
      <Folded title="What moves its valves: turbo, EGR, secondary air, intake flap">
        <FormFields of={of} names={["boostWorked", "egrWorked", "airValveWorked", "airPorts", "throttleFlap"]} />
      </Folded>
      <Folded
        title="Ports tapped into the intake for good"
        open={(of.value<readonly string[] | undefined>("tapped") ?? []).length > 0}
      >
        <div className="sm:col-span-2">
          <FormFields of={of} names={["tapped"]} />
        </div>
      </Folded>
      {fitted.includes("evap") && (
        <Folded title="Vapour system (EVAP): tank, port, neck, who tests it" open={errors.evap !== undefined}>
          <FormFields of={of} names={["evap.tank", "evap.monitor", "evap.market", "evap.neck"]} />
          <div className="flex flex-col">
            <FormFields of={of} names={["evap.servicePort", "evap.neckFlap", "evap.tankOneWay"]} />
          </div>
          <FormFields of={of} names={["evap.requiredLeak", "evap.sensor.zero"]} />
          <div className="grid grid-cols-[1fr_7rem] gap-2">
            <FormFields of={of} names={["evap.sensor.perUnit", "evap.sensor.unit"]} />
          </div>
          <FormFields of={of} names={["evap.referenceOrifice"]} />
        </Folded>
      )}
      <Folded
        title="What the maker says of this vehicle: boost, crankcase band, idle, limits"
        open={errors.maxBoost !== undefined || errors.crankcaseBand !== undefined || errors.limits !== undefined}
      >
        <FormFields
          of={of}
          names={["maxBoost", "crankcaseBand.low", "crankcaseBand.high", ...MAKERS_LIMITS.map((id) => `limits.${id}` as const)]}
        />
      </Folded>
    </div>
  );
}

/** Rarer facts under their title; open where something in them is wrong. */
function Folded({ title, open = false, children }: { title: string; open?: boolean; children: ReactNode }) {
  return (
    <details className="sm:col-span-2" open={open}>
      <summary className="flex min-h-11 cursor-pointer items-center text-muted">{title}</summary>
      <div className="grid items-start gap-4 pb-2 sm:grid-cols-2">{children}</div>
    </details>
  );
}
