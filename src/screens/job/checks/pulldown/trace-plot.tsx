"use client";

import { memo } from "react";
import type { Sample } from "@/core/checks/table";
import type { UnitId } from "@/core/units";
import { AXIS, ChartFrame, GRID } from "@/ui/chart-frame";
import { usePreferences } from "../../../session/preferences";

export interface Phases {
  readonly ventShutAt: number;
  readonly purgeOpenAt: number;
  readonly purgeShutAt: number;
  readonly ventOpenAt: number;
}

/** Tank pressure with its phases: all shut, pull-down, hold, relief. */
export const TracePlot = memo(function TracePlot({
  samples,
  phases,
  unit,
  deep,
}: {
  samples: readonly Sample[];
  phases: Partial<Phases>;
  unit: UnitId;
  /** Depth asked for, in `unit`, positive down */
  deep: number;
}) {
  const { number } = usePreferences();
  const rows = samples.map(([t, p]) => ({ t, p }));
  const { ventShutAt, purgeOpenAt, purgeShutAt, ventOpenAt } = phases;
  const marks = [
    [ventShutAt, "vent shut"],
    [purgeOpenAt, "purge open"],
    [purgeShutAt, "purge shut"],
    [ventOpenAt, "vent open"],
  ] as const;
  return (
    <ChartFrame
      title={`Tank pressure (${unit} gauge; below ambient is negative)`}
      words={`${samples.length} readings, lowest ${number(Math.min(0, ...samples.map((s) => s[1])), 1)} ${unit} gauge`}
      height={220}
    >
      {({ CartesianGrid, ComposedChart, Line, ReferenceArea, ReferenceLine, XAxis, YAxis }) => (
        <ComposedChart data={rows} margin={{ top: 18, right: 12, bottom: 0, left: 0 }}>
          <CartesianGrid {...GRID} />
          <XAxis type="number" dataKey="t" unit=" s" domain={["dataMin", "dataMax"]} {...AXIS} />
          <YAxis width={60} tickFormatter={(v: number) => number(v, Math.abs(v) < 10 && v % 1 ? 1 : 0)} {...AXIS} />
          {purgeShutAt !== undefined && ventOpenAt !== undefined && (
            <ReferenceArea x1={purgeShutAt} x2={ventOpenAt} fill="var(--calm)" fillOpacity={0.16} />
          )}
          <ReferenceLine
            y={-deep}
            stroke="var(--amber)"
            strokeDasharray="6 5"
            label={{
              value: `${number(deep, 1)} ${unit} vacuum asked for`,
              fill: "var(--amber)",
              position: "insideBottomRight",
              fontSize: 13,
            }}
          />
          {marks.map(([x, label]) =>
            x === undefined ? null : (
              <ReferenceLine
                key={label}
                x={x}
                stroke="var(--muted)"
                label={{ value: label, fill: "var(--muted)", position: "top", fontSize: 12 }}
              />
            ),
          )}
          <Line dataKey="p" stroke="var(--live)" strokeWidth={2.5} dot={false} isAnimationActive={false} />
        </ComposedChart>
      )}
    </ChartFrame>
  );
});
