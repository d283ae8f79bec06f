"use client";

import { ChevronLeft, ChevronRight, ZoomIn, ZoomOut } from "lucide-react";
import { useEffect, useState } from "react";
import { CartesianGrid, ComposedChart, Legend, Line, ReferenceArea, Tooltip, XAxis, YAxis } from "recharts";
import type { DrawnRow } from "@/core/scan-log";
import { IconButton } from "@/ui/button";
import { AXIS, ChartFrame, GRID, TOOLTIP } from "@/ui/chart-frame";
import type { ImportedLog } from "@/workers/scan-log.worker";
import type { ScanLogHandle } from "./use-scan-log";

/** The log over time with its steady windows marked; zoom and pan fetch a fresh slice, so nothing is drawn twice too coarse. */
export function LogPlot({ log, slice }: { log: ImportedLog; slice: ScanLogHandle["slice"] }) {
  const [view, setView] = useState({ from: 0, to: log.seconds });
  const [rows, setRows] = useState<readonly DrawnRow[]>([]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the slice function is new on every render, the worker behind it is not
  useEffect(() => {
    let live = true;
    void slice(["rpm", "short-trim-1", "long-trim-1", "maf"], view.from, view.to, 900).then((r) => live && setRows(r));
    return () => {
      live = false;
    };
  }, [view, log]);
  const span = view.to - view.from;
  const show = (middle: number, width: number) => {
    const w = Math.min(log.seconds, Math.max(2, width));
    const from = Math.min(Math.max(0, middle - w / 2), log.seconds - w);
    setView({ from, to: from + w });
  };
  const middle = (view.from + view.to) / 2;
  return (
    <ChartFrame
      title={`Log, ${view.from.toFixed(0)} to ${view.to.toFixed(0)} s; steady windows shaded`}
      words={`${log.windows.length} steady windows in ${log.seconds.toFixed(0)} s.`}
      height={240}
      actions={
        <span className="flex">
          <IconButton label="Earlier" onClick={() => show(middle - span / 2, span)}>
            <ChevronLeft aria-hidden size={18} />
          </IconButton>
          <IconButton label="Zoom in" onClick={() => show(middle, span / 2)}>
            <ZoomIn aria-hidden size={18} />
          </IconButton>
          <IconButton label="Zoom out" onClick={() => show(middle, span * 2)}>
            <ZoomOut aria-hidden size={18} />
          </IconButton>
          <IconButton label="Later" onClick={() => show(middle + span / 2, span)}>
            <ChevronRight aria-hidden size={18} />
          </IconButton>
        </span>
      }
    >
      <ComposedChart data={[...rows]} margin={{ top: 4, right: 0, bottom: 4, left: 0 }}>
        <CartesianGrid {...GRID} />
        {log.windows
          .filter((w) => w.to > view.from && w.from < view.to)
          .map((w) => (
            <ReferenceArea
              key={w.from}
              yAxisId="trim"
              x1={Math.max(w.from, view.from)}
              x2={Math.min(w.to, view.to)}
              fill="var(--calm)"
              fillOpacity={0.18}
            />
          ))}
        <XAxis
          type="number"
          dataKey="time"
          domain={[view.from, view.to]}
          unit=" s"
          allowDataOverflow
          tickFormatter={(t: number) => t.toFixed(0)}
          {...AXIS}
        />
        <YAxis yAxisId="trim" unit=" %" width={58} {...AXIS} />
        <YAxis yAxisId="rpm" orientation="right" unit=" rpm" width={84} {...AXIS} />
        <Tooltip
          {...TOOLTIP}
          formatter={(v, name) => [typeof v === "number" ? v.toFixed(1) : String(v), name]}
          labelFormatter={(t) => `${Number(t).toFixed(1)} s`}
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
