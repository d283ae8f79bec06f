"use client";

import { useEffect, useState } from "react";
import { CartesianGrid, ComposedChart, Legend, Line, ReferenceArea, Tooltip, XAxis, YAxis } from "recharts";
import type { DrawnRow } from "@/core/scan-log";
import { AXIS, ChartFrame, GRID, TOOLTIP } from "@/ui/chart-frame";
import { useSpan } from "@/ui/pan-zoom";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { usePreferences } from "../../../session/preferences";
import type { ScanLogHandle } from "./use-scan-log";

/** The log over time with its steady windows marked; zoom and pan fetch a fresh slice, so nothing is drawn twice too coarse. */
export function LogPlot({ log, slice }: { log: ImportedLog; slice: ScanLogHandle["slice"] }) {
  const { number } = usePreferences();
  const span = useSpan(0, log.seconds, 2);
  const { from, to } = span;
  const [rows, setRows] = useState<readonly DrawnRow[]>([]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the slice function is new on every render, the worker behind it is not
  useEffect(() => {
    let live = true;
    void slice(["rpm", "short-trim-1", "long-trim-1", "maf"], from, to, 600).then((r) => live && setRows(r));
    return () => {
      live = false;
    };
  }, [from, to, log]);
  return (
    <ChartFrame
      title={`Log, ${number(from, 0)} to ${number(to, 0)} s; steady windows shaded`}
      words={`${log.windows.length} steady windows in ${number(log.seconds, 0)} s.`}
      height={220}
      span={{ handle: span, less: "Earlier", more: "Later" }}
    >
      <ComposedChart data={[...rows]} margin={{ top: 4, right: 0, bottom: 4, left: 0 }}>
        <CartesianGrid {...GRID} />
        {log.windows
          .filter((w) => w.to > from && w.from < to)
          .map((w) => (
            <ReferenceArea
              key={w.from}
              yAxisId="trim"
              x1={Math.max(w.from, from)}
              x2={Math.min(w.to, to)}
              fill="var(--calm)"
              fillOpacity={0.18}
            />
          ))}
        <XAxis
          type="number"
          dataKey="time"
          domain={[from, to]}
          unit=" s"
          allowDataOverflow
          tickFormatter={(t: number) => number(t, 0)}
          {...AXIS}
        />
        <YAxis yAxisId="trim" unit=" %" width={58} {...AXIS} />
        <YAxis yAxisId="rpm" orientation="right" unit=" rpm" width={84} {...AXIS} />
        <Tooltip
          {...TOOLTIP}
          formatter={(v, name) => [typeof v === "number" ? number(v, 1) : String(v), name]}
          labelFormatter={(t) => `${number(Number(t), 1)} s`}
        />
        <Legend verticalAlign="top" height={28} />
        <Line
          yAxisId="rpm"
          dataKey="rpm"
          name="Engine speed, rpm"
          stroke="var(--muted)"
          dot={false}
          connectNulls
          isAnimationActive={false}
        />
        <Line
          yAxisId="trim"
          dataKey="short-trim-1"
          name="Short-term trim, %"
          stroke="var(--live)"
          dot={false}
          connectNulls
          isAnimationActive={false}
        />
        <Line
          yAxisId="trim"
          dataKey="long-trim-1"
          name="Long-term trim, %"
          stroke="var(--amber)"
          strokeWidth={2}
          dot={false}
          connectNulls
          isAnimationActive={false}
        />
      </ComposedChart>
    </ChartFrame>
  );
}
