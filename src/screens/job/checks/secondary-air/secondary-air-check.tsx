"use client";

import type { ReactNode } from "react";
import { secondaryAir } from "@/core/checks/secondary-air";
import { secondaryAirForm } from "@/core/checks/secondary-air/form";
import type { RunBy } from "@/core/checks/secondary-air/record";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** Pump, joints, valve open, valve shut: four questions in the order they are done. */
export function SecondaryAirCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("secondary-air", secondaryAirForm);
  const { context, holds } = check;
  const runBy = holds<RunBy | undefined>("runBy") ?? "scan-tool";
  const window = Number(holds("window"));
  return (
    <CheckFrame
      check={check}
      head={head}
      plan={secondaryAir.plan(context, { runBy, ...(window > 0 ? { window } : {}) })}
      at={holds<string | undefined>("joint") ?? "air-pump"}
    >
      <Step of="Pump">
        <FormFields of={check} names={["joint", "runBy", "window", "pumped"]} />
        <FormFields of={check} names={["rearmed"]} />
      </Step>
      <Step of="Soap">
        <FormFields of={check} names={["bubbles", "soaped"]} />
      </Step>
      <Step of="Valve open">
        <FormFields of={check} names={["engineRunning", "openedBy", "oxygen", "watched", "trim"]} />
      </Step>
      <Step of="Valve shut">
        <FormFields of={check} names={["whenShut"]} />
      </Step>
    </CheckFrame>
  );
}

function Step({ of, children }: { of: string; children: ReactNode }) {
  return (
    <section aria-label={of} className="grid gap-2 border-l-2 border-edge pl-4">
      <h3 className="font-bold">{of}</h3>
      <div className="grid items-start gap-4 sm:grid-cols-2">{children}</div>
    </section>
  );
}
