"use client";

import type { ProbeSeries, readTaps } from "@/core/checks/probe";
import { AXIS, ChartFrame, GRID, spanning, TOOLTIP } from "@/ui/chart-frame";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";

const INK = { reacts: "var(--ember)", quiet: "var(--calm)", void: "var(--muted)" } as const;

/** Trim and speed over time, each tap a line, the time its reaction may take shaded. */
export function ProbePlot({
  series,
  readings,
  name,
}: {
  series: ProbeSeries;
  readings: ReturnType<typeof readTaps>;
  name: (joint: string) => string;
}) {
  const { number } = usePreferences();
  const { context } = useJob();
  if (!context) return null;
  const { probeEarliest, probeLatest } = context.limits;
  const rows = series.time.map((time, i) => ({ time, trim: series.trim?.[i], rpm: series.rpm?.[i] }));
  const words = readings.map((r) => `${name(r.tap.joint)}: ${r.outcome}`).join(", ");
  const taps = readings.flatMap((r) =>
    r.tap.at === undefined ? [] : [{ at: r.tap.at, outcome: r.outcome, name: name(r.tap.joint) }],
  );
  return (
    <ChartFrame
      title="Trim and speed against the taps; when a reaction may come is shaded"
      words={words}
      height={230}
      legend={[
        { name: "Total trim, %", colour: "var(--live)" },
        { name: "Engine speed, rpm", colour: "var(--muted)" },
      ]}
    >
      {({ CartesianGrid, ComposedChart, Line, ReferenceArea, ReferenceLine, Tooltip, XAxis, YAxis }) => (
        <ComposedChart data={rows} margin={{ top: 16, right: 0, bottom: 4, left: 0 }}>
          <CartesianGrid {...GRID} />
          {taps.map((t) => (
            <ReferenceArea
              key={`area ${t.at}`}
              yAxisId="trim"
              x1={t.at + probeEarliest.value}
              x2={t.at + probeLatest.value}
              fill={INK[t.outcome]}
              fillOpacity={0.12}
            />
          ))}
          {taps.map((t, i) => (
            <ReferenceLine
              key={`line ${t.at}`}
              yAxisId="trim"
              x={t.at}
              stroke={INK[t.outcome]}
              strokeWidth={2}
              label={{ value: `${i + 1}`, position: "top", fill: INK[t.outcome], fontSize: 13 }}
            />
          ))}
          <XAxis
            type="number"
            dataKey="time"
            domain={["dataMin", "dataMax"]}
            unit=" s"
            tickFormatter={(t: number) => number(t, 0)}
            {...AXIS}
          />
          <YAxis yAxisId="trim" unit=" %" width={58} domain={spanning(5, 1)} {...AXIS} />
          <YAxis yAxisId="rpm" orientation="right" unit=" rpm" width={92} domain={spanning(100, 50)} {...AXIS} />
          <Tooltip
            {...TOOLTIP}
            formatter={(v, key) => [typeof v === "number" ? number(v, 1) : String(v), key]}
            labelFormatter={(t) => `${number(Number(t), 1)} s`}
          />
          <Line
            yAxisId="rpm"
            dataKey="rpm"
            name="Engine speed, rpm"
            stroke="var(--muted)"
            dot={false}
            isAnimationActive={false}
          />
          <Line
            yAxisId="trim"
            dataKey="trim"
            name="Total trim, %"
            stroke="var(--live)"
            strokeWidth={2}
            dot={false}
            isAnimationActive={false}
          />
        </ComposedChart>
      )}
    </ChartFrame>
  );
}
