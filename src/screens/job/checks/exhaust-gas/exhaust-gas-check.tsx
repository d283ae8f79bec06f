"use client";

import { type ReactNode, useState } from "react";
import { exhaustGas, GAS_EXTRACTOR, type GasPoint } from "@/core/checks/exhaust-gas";
import { gasForm } from "@/core/checks/exhaust-gas/fields";
import { lambdaOf } from "@/core/gas/exhaust";
import { loggedEngine } from "@/core/scan-log";
import { Button } from "@/ui/button";
import { Note } from "@/ui/note";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { CheckFrame } from "../check-frame";
import { LogTake } from "../scan-log/log-take";
import { useScanLog } from "../scan-log/use-scan-log";
import { useCheckForm } from "../use-check-form";

/** The analyser at idle and at a raised speed, λ beside each as it is typed. */
export function ExhaustGasCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("exhaust-gas", gasForm);
  const { context, record, fill } = check;
  const scan = useScanLog(context.limits, loggedEngine(context.vehicle));
  const [unplaced, setUnplaced] = useState<GasPoint>();
  const take = async (file: File, log: ImportedLog) => {
    const found = await scan.extract("exhaust-gas");
    if (!found)
      return "CO, CO₂, O₂ and HC were not found together for longer than the gas takes to arrive: name those columns, and let the analyser write half a minute at each speed.";
    const { unplaced: open, ...placed } = found;
    setUnplaced(open);
    fill({ ...placed, source: { kind: "log", file: file.name, sha256: log.sha256, extractor: GAS_EXTRACTOR } });
    return undefined;
  };
  const place = (at: "idle" | "raised") => {
    fill({ [at]: unplaced });
    setUnplaced(undefined);
  };
  return (
    <CheckFrame check={check} head={head} plan={exhaustGas.plan(context, undefined)} at="tailpipe" onDone={scan.cancel}>
      <LogTake
        aside
        scan={scan}
        take={take}
        beside={<p className="pb-3 text-muted">Type the display, or take the file that the analyser wrote:</p>}
      />
      {unplaced && (
        <Note role="status" tone="amber" tight className="flex flex-wrap items-center gap-3">
          <p>The file has no engine speed. It was written</p>
          <Button onClick={() => place("idle")}>At idle</Button>
          <Button onClick={() => place("raised")}>At 2500 rpm</Button>
        </Note>
      )}
      <div className="grid gap-6 lg:grid-cols-2">
        {(["idle", "raised"] as const).map((at) => (
          <section
            key={at}
            aria-label={at === "idle" ? "At idle" : "At 2500 rpm"}
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
      <span className="text-muted">{at === "idle" ? "At idle" : "At 2500 rpm"}</span>
      <strong className="font-mono text-4xl">{point ? number(lambdaOf(point, fuel), 3) : "–"}</strong>
      <span className="text-muted">λ</span>
    </p>
  );
}
