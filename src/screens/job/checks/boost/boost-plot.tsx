"use client";

import type { BoostRecord } from "@/core/checks/boost";
import { toSi } from "@/core/units";
import { AXIS, ChartFrame, GRID, spanning, TOOLTIP } from "@/ui/chart-frame";
import { usePreferences } from "../../../session/preferences";

/** Boost over the time of a log, or over engine speed where points were typed; absolute: a ring where it was asked for, a dot where it was delivered. */
export function BoostPlot({ record }: { record: Pick<BoostRecord, "points" | "ambient"> }) {
  const { number } = usePreferences();
  const kPa = (q: Parameters<typeof toSi>[0] | undefined) => q && toSi(q) / 1000;
  const timed = record.points.every((p) => p.time !== undefined);
  const unit = timed ? "s" : "rpm";
  const rows = record.points
    .map((p) => ({ at: timed ? (p.time as number) : p.rpm, got: kPa(p.charge ?? p.map), asked: kPa(p.asked) }))
    .toSorted((a, b) => a.at - b.at);
  const words = rows
    .slice(0, 20)
    .map((r) => `${number(r.at, 0)} ${unit}: ${number(r.got ?? 0, 0)} kPa${r.asked ? ` of ${number(r.asked, 0)} asked` : ""}`)
    .join(", ");
  return (
    <ChartFrame
      title={`Boost (kPa absolute) ${timed ? "over the log (s)" : "against engine speed (rpm)"}`}
      height={timed ? 220 : 260}
      words={words}
      legend={[
        { name: "delivered", colour: "var(--live)" },
        { name: "asked for", colour: "var(--muted)", dashed: true },
      ]}
    >
      {({ CartesianGrid, ComposedChart, Line, ReferenceLine, Tooltip, XAxis, YAxis }) => (
        <ComposedChart data={rows} margin={{ top: 8, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid {...GRID} />
          <XAxis
            type="number"
            dataKey="at"
            {...(timed ? { unit: " s", domain: [0, "dataMax"] } : { domain: spanning(1000, 250) })}
            tickFormatter={(v: number) => number(v, 0)}
            {...AXIS}
          />
          <YAxis unit=" kPa" width={76} domain={spanning(40, 10)} {...AXIS} />
          <ReferenceLine y={kPa(record.ambient) ?? 0} stroke="var(--edge)" strokeDasharray="4 4" />
          <Tooltip
            {...TOOLTIP}
            formatter={(v, line) => [`${number(Number(v), 0)} kPa absolute`, line]}
            labelFormatter={(v) => `${number(Number(v), timed ? 1 : 0)} ${unit}`}
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
