"use client";

import type { BoostRecord } from "@/core/checks/boost";
import { toSi } from "@/core/units";
import { AXIS, ChartFrame, GRID, spanning, TOOLTIP } from "@/ui/chart-frame";
import { usePreferences } from "../../../session/preferences";

/** Boost over engine speed, absolute: a ring where it was asked for, a dot where it was delivered. */
export function BoostPlot({ record }: { record: Pick<BoostRecord, "points" | "ambient"> }) {
  const { number } = usePreferences();
  const kPa = (q: Parameters<typeof toSi>[0] | undefined) => q && toSi(q) / 1000;
  const rows = record.points
    .map((p) => ({ rpm: p.rpm, got: kPa(p.charge ?? p.map), asked: kPa(p.asked) }))
    .toSorted((a, b) => a.rpm - b.rpm);
  const words = rows
    .slice(0, 20)
    .map((r) => `${number(r.rpm, 0)} rpm: ${number(r.got ?? 0, 0)} kPa${r.asked ? ` of ${number(r.asked, 0)} asked` : ""}`)
    .join(", ");
  return (
    <ChartFrame
      title="Boost (kPa absolute) against engine speed (rpm)"
      words={words}
      legend={[
        { name: "delivered", colour: "var(--live)" },
        { name: "asked for", colour: "var(--muted)", dashed: true },
      ]}
    >
      {({ CartesianGrid, ComposedChart, Line, ReferenceLine, Tooltip, XAxis, YAxis }) => (
        <ComposedChart data={rows} margin={{ top: 8, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid {...GRID} />
          <XAxis type="number" dataKey="rpm" domain={spanning(1000, 250)} tickFormatter={(v: number) => number(v, 0)} {...AXIS} />
          <YAxis unit=" kPa" width={76} domain={spanning(40, 10)} {...AXIS} />
          <ReferenceLine y={kPa(record.ambient) ?? 0} stroke="var(--edge)" strokeDasharray="4 4" />
          <Tooltip
            {...TOOLTIP}
            formatter={(v, line) => [`${number(Number(v), 0)} kPa absolute`, line]}
            labelFormatter={(v) => `${number(Number(v), 0)} rpm`}
          />
          <Line
            dataKey="asked"
            name="asked for"
            stroke="var(--muted)"
            strokeWidth={0}
            dot={{ r: 6, fill: "none", stroke: "var(--muted)", strokeWidth: 2 }}
            isAnimationActive={false}
          />
          <Line
            dataKey="got"
            name="delivered"
            stroke="var(--live)"
            strokeWidth={0}
            dot={{ r: 4.5, fill: "var(--live)", stroke: "var(--bg)", strokeWidth: 1.5 }}
            isAnimationActive={false}
          />
        </ComposedChart>
      )}
    </ChartFrame>
  );
}
