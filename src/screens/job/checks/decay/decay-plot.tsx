"use client";

import { memo } from "react";
import type { Sample } from "@/core/checks/table";
import type { DecayResult } from "@/core/gas/decay";
import { UNITS, type UnitId } from "@/core/units";
import { AXIS, ChartFrame, GRID } from "@/ui/chart-frame";
import { usePreferences } from "../../../session/preferences";

/** The fall as it was read, with the fitted decay, and the run with the reference hole open beside it. */
export const DecayPlot = memo(function DecayPlot({
  samples,
  reference,
  fit,
  unit,
}: {
  samples: readonly Sample[];
  reference: readonly Sample[];
  fit: DecayResult | undefined;
  unit: UnitId;
}) {
  const { number } = usePreferences();
  const { scale } = UNITS[unit];
  const origin = samples[0]?.[0] ?? 0;
  const rows = [
    ...samples.map(([t, p]) => ({ t: t - origin, read: p })),
    ...reference.map(([t, p]) => ({ t: t - (reference[0]?.[0] ?? 0), known: p })),
    ...(fit?.fitted.times ?? []).map((t, i) => ({ t, fit: (fit?.fitted.pressures[i] as number) / scale })),
  ].toSorted((a, b) => a.t - b.t);
  const last = samples.at(-1);
  return (
    <ChartFrame
      title={`Pressure after shut-off (${unit} gauge)${reference.length > 0 ? "; hollow: reference hole open" : ""}`}
      words={last ? `${samples.length} readings, down to ${number(last[1], 2)} ${unit} gauge` : "No reading yet"}
      height={190}
    >
      {({ CartesianGrid, ComposedChart, Line, Scatter, XAxis, YAxis }) => (
        <ComposedChart data={rows} margin={{ top: 8, right: 12, bottom: 0, left: 0 }}>
          <CartesianGrid {...GRID} />
          <XAxis type="number" dataKey="t" unit=" s" domain={[0, "dataMax"]} {...AXIS} />
          <YAxis width={48} tickFormatter={(v: number) => number(v, v % 1 ? 1 : 0)} domain={[0, "auto"]} {...AXIS} />
          <Line dataKey="fit" stroke="var(--live)" strokeWidth={2.5} dot={false} connectNulls isAnimationActive={false} />
          <Scatter dataKey="read" fill="var(--ink)" isAnimationActive={false} />
          <Scatter dataKey="known" fill="none" stroke="var(--amber)" isAnimationActive={false} />
        </ComposedChart>
      )}
    </ChartFrame>
  );
});
