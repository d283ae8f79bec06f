"use client";

import { memo } from "react";
import type { SmokeReading } from "@/core/checks/smoke";
import type { UnitId } from "@/core/units";
import { AXIS, ChartFrame, GRID } from "@/ui/chart-frame";
import { usePreferences } from "../../../session/preferences";

/** How the ball settles: the samples, the fitted approach and where it is going. */
export const SettlingPlot = memo(function SettlingPlot({
  reading,
  unit,
  scale,
}: {
  reading: SmokeReading;
  unit: UnitId;
  scale: number;
}) {
  const { number } = usePreferences();
  const { times, flows, flow } = reading;
  const rows = times.map((t, i) => ({ t, taken: (flows[i] as number) / scale, fit: flow ? flow.at(t) / scale : undefined }));
  const settled = flow ? Math.max(0, flow.value) / scale : undefined;
  const words = settled === undefined ? `${times.length} samples` : `Settling to ${number(settled, 2)} ${unit}`;
  return (
    <ChartFrame title={`Flow over time (${unit} at 20 °C, 101.325 kPa)`} words={words} height={150}>
      {({ CartesianGrid, ComposedChart, Line, ReferenceLine, Scatter, XAxis, YAxis }) => (
        <ComposedChart data={rows} margin={{ top: 8, right: 12, bottom: 0, left: 0 }}>
          <CartesianGrid {...GRID} />
          <XAxis type="number" dataKey="t" unit=" s" domain={[0, "dataMax"]} {...AXIS} />
          <YAxis width={48} tickFormatter={(v: number) => number(v, v % 1 ? 1 : 0)} domain={[0, "auto"]} {...AXIS} />
          <Line dataKey="fit" stroke="var(--live)" strokeWidth={2.5} dot={false} isAnimationActive={false} />
          <Scatter dataKey="taken" fill="var(--ink)" isAnimationActive={false} />
          {settled !== undefined && (
            <ReferenceLine
              y={settled}
              stroke="var(--amber)"
              strokeDasharray="6 5"
              label={{
                value: `settling to ${number(settled, 2)} ${unit}`,
                fill: "var(--amber)",
                position: "insideTopRight",
                fontSize: 13,
              }}
            />
          )}
        </ComposedChart>
      )}
    </ChartFrame>
  );
});
