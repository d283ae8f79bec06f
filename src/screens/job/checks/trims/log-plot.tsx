"use client";

import { useEffect, useMemo, useState } from "react";
import type { ChannelId, DrawnRow } from "@/core/scan-log";
import { AXIS, ChartFrame, GRID, spanning, TOOLTIP } from "@/ui/chart-frame";
import { useSpan } from "@/ui/pan-zoom";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { usePreferences } from "../../../session/preferences";
import type { ScanLogHandle } from "../scan-log/use-scan-log";

/** The trims a log may hold: short-term dashed, long-term solid, a colour a bank. */
const TRIMS: readonly { readonly id: ChannelId; readonly name: string; readonly colour: string; readonly dashed: boolean }[] = [
  { id: "short-trim-1", name: "Short-term, bank 1, %", colour: "var(--live)", dashed: true },
  { id: "long-trim-1", name: "Long-term, bank 1, %", colour: "var(--live)", dashed: false },
  { id: "short-trim-2", name: "Short-term, bank 2, %", colour: "var(--calm)", dashed: true },
  { id: "long-trim-2", name: "Long-term, bank 2, %", colour: "var(--calm)", dashed: false },
];

/** The log over time with its steady windows marked; zoom and pan fetch a fresh slice, so nothing is drawn twice too coarse. */
export function LogPlot({ log, slice }: { log: ImportedLog; slice: ScanLogHandle["slice"] }) {
  const { number } = usePreferences();
  const span = useSpan(0, log.seconds, 2);
  const { from, to } = span;
  const trims = useMemo(() => TRIMS.filter((t) => log.channels.includes(t.id)), [log]);
  const [rows, setRows] = useState<readonly DrawnRow[]>([]);
  useEffect(() => {
    let live = true;
    void slice(["rpm", ...trims.map((t) => t.id)], from, to, 600).then((r) => live && setRows(r));
    return () => {
      live = false;
    };
  }, [from, to, trims, slice]);
  return (
    <ChartFrame
      title={`Log, ${number(from, 0)} to ${number(to, 0)} s; steady windows shaded`}
      words={`${log.windows.length} steady windows in ${number(log.seconds, 0)} s.`}
      height={220}
      legend={[{ name: "Engine speed, rpm", colour: "var(--muted)" }, ...trims]}
      span={{ handle: span, less: "Earlier", more: "Later" }}
    >
      {({ CartesianGrid, ComposedChart, Line, ReferenceArea, Tooltip, XAxis, YAxis }) => (
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
          <YAxis yAxisId="trim" unit=" %" width={58} domain={spanning(10, 5, 0)} {...AXIS} />
          <YAxis yAxisId="rpm" orientation="right" unit=" rpm" width={84} domain={spanning(500, 250, 0)} {...AXIS} />
          <Tooltip
            {...TOOLTIP}
            formatter={(v, name) => [typeof v === "number" ? number(v, 1) : String(v), name]}
            labelFormatter={(t) => `${number(Number(t), 1)} s`}
          />
          <Line
            yAxisId="rpm"
            dataKey="rpm"
            name="Engine speed, rpm"
            stroke="var(--muted)"
            dot={false}
            connectNulls
            isAnimationActive={false}
          />
          {trims.map((t) => (
            <Line
              key={t.id}
              yAxisId="trim"
              dataKey={t.id}
              name={t.name}
              stroke={t.colour}
              strokeWidth={t.dashed ? 1.5 : 2}
              {...(t.dashed ? { strokeDasharray: "3 3" } : {})}
              dot={false}
              connectNulls
              isAnimationActive={false}
            />
          ))}
        </ComposedChart>
      )}
    </ChartFrame>
  );
}
