"use client";

import type { ReactNode } from "react";
import { FILTER_EXTRACTOR, filter } from "@/core/checks/filter";
import { filterForm } from "@/core/checks/filter/fields";
import { loggedEngine } from "@/core/scan-log";
import { fromSi, parseTrusted, toSi } from "@/core/units";
import { Dial } from "@/ui/dial";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { LogTake } from "../scan-log/log-take";
import { useScanLog, warmth } from "../scan-log/use-scan-log";
import { useCheckForm } from "../use-check-form";

const hPa = (si: number) => Number(fromSi(si, "hPa").value.toFixed(1));

const READ = ["pressure", "rpm", "maf", "exhaustTemperature"] as const;
/** Values that another log read before is gone with it. */
const UNREAD = Object.fromEntries(["keyOn", ...READ.flatMap((r) => [`idle.${r}`, `held.${r}`])].map((name) => [name, ""]));

/** The display three times: standing, idling, held; each state with what makes it comparable. */
export function FilterCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("filter", filterForm);
  const { context, value, set, fill } = check;
  const scan = useScanLog(context.limits, loggedEngine(context.vehicle));
  const take = async (file: File, log: ImportedLog) => {
    const found = await scan.extract("filter", context.limits);
    if (!found)
      return "No steady idle or raised speed was found with the filter's pressure difference, warm and standing: log it with engine speed and the clock, ten seconds each.";
    set(UNREAD);
    fill({ ...warmth(log), ...found, source: { kind: "log", file: file.name, sha256: log.sha256, extractor: FILTER_EXTRACTOR } });
    return undefined;
  };
  const held = parseTrusted(value<string | undefined>("held.pressure") ?? "", "filterPressure", "hPa");
  const { filterGood, filterMost } = context.limits;
  return (
    <CheckFrame check={check} head={head} plan={filter.plan(context, undefined)} at="filter-core" onDone={scan.cancel}>
      <div className="grid items-start gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <div className="max-w-56">
          <Dial
            label="Filter pressure held at 3000 rpm, hPa gauge"
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
      <LogTake aside scan={scan} take={take} beside={<p className="pb-3 text-muted">Or out of a scan tool's log:</p>} />
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
