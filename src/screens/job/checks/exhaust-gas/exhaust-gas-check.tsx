"use client";

import type { ReactNode } from "react";
import { exhaustGas } from "@/core/checks/exhaust-gas";
import { gasForm } from "@/core/checks/exhaust-gas/form";
import { lambdaOf } from "@/core/gas/exhaust";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** The analyser at idle and at a raised speed, λ beside each as it is typed. */
export function ExhaustGasCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("exhaust-gas", gasForm);
  const { context, record } = check;
  return (
    <CheckFrame check={check} head={head} plan={exhaustGas.plan(context, undefined)} at="tailpipe">
      <div className="grid gap-6 lg:grid-cols-2">
        {(["idle", "raised"] as const).map((at) => (
          <section
            key={at}
            aria-label={at === "idle" ? "At idle" : "At 2500 1/min"}
            className="flex flex-col gap-3 border-l-2 border-edge pl-4"
          >
            <Lambda at={at} point={record?.[at]} fuel={record?.fuel} />
            <div className="grid grid-cols-2 items-start gap-3">
              <FormFields of={check} names={[`${at}.co`, `${at}.co2`, `${at}.o2`, `${at}.hc`, `${at}.no`, `${at}.ecuLambda`]} />
            </div>
          </section>
        ))}
      </div>
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["probe", "loop", "warm", "fuel"]} />
      </div>
      <FormFields of={check} names={["zeroed"]} />
    </CheckFrame>
  );
}

function Lambda({
  at,
  point,
  fuel,
}: {
  at: "idle" | "raised";
  point: Parameters<typeof lambdaOf>[0] | undefined;
  fuel: Parameters<typeof lambdaOf>[1];
}) {
  const { number } = usePreferences();
  return (
    <p className="flex items-baseline gap-3">
      <span className="text-muted">{at === "idle" ? "At idle" : "At 2500 1/min"}</span>
      <strong className="font-mono text-4xl">{point ? number(lambdaOf(point, fuel), 3) : "–"}</strong>
      <span className="text-muted">λ</span>
    </p>
  );
}
