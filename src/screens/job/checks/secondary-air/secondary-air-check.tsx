"use client";

import type { ReactNode } from "react";
import { secondaryAir } from "@/core/checks/secondary-air";
import type { RunBy } from "@/core/checks/secondary-air/fields";
import { secondaryAirForm } from "@/core/checks/secondary-air/fields";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { CommandNow, commandClock } from "../command-now";
import { useCheckForm } from "../use-check-form";

/** Pump, joints, valve open, valve shut: four questions in the order they are done. */
export function SecondaryAirCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("secondary-air", secondaryAirForm);
  const { context, value, set } = check;
  const runBy = value<RunBy | undefined>("runBy") ?? "scan-tool";
  const window = Number(value("window"));
  const seconds = window > 0 ? window : context.limits.outputTime.value;
  const commanded = runBy === "scan-tool";
  const commandedAt = commanded ? value<number | undefined>("commandedAt") : undefined;
  /** The sensor's answer stands for the moment it was given, on the clock of the command. */
  const answered = (oxygen: unknown) => {
    const since = commandedAt === undefined ? undefined : Math.round((Date.now() - commandedAt) / 100) / 10;
    set({ oxygen, answeredAfter: since });
  };
  return (
    <CheckFrame
      check={check}
      head={head}
      plan={secondaryAir.plan(context, { runBy, ...(window > 0 ? { window } : {}) })}
      at={value<string | undefined>("joint") ?? "air-pump"}
      clocks={commandClock(commandedAt, seconds)}
    >
      <Step of="Pump">
        <FormFields of={check} names={["joint", "runBy", "window", "pumped"]} />
        <FormFields of={check} names={["rearmed"]} />
        {commanded && (
          <div className="sm:col-span-2">
            <CommandNow
              joint="air-pump"
              what="Secondary-air pump commanded on"
              seconds={seconds}
              commandedAt={commandedAt}
              // A second command needs the tool armed anew.
              onCommand={(at) => set({ commandedAt: at, ...(commandedAt === undefined ? {} : { rearmed: "" }) })}
            />
          </div>
        )}
      </Step>
      <Step of="Soap">
        <FormFields of={check} names={["bubbles", "soaped"]} />
      </Step>
      <Step of="Valve open">
        <FormFields of={check} names={["engineRunning", "openedBy"]} />
        <FormFields of={check} names={["oxygen"]} onChange={(_, oxygen) => answered(oxygen)} />
        <FormFields of={check} names={["watched", "trim"]} />
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
