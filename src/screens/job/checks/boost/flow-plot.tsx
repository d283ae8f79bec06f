"use client";

import { useDeferredValue, useMemo } from "react";
import { type BoostRecord, judgedOf } from "@/core/checks/boost";
import { fromSi, type UnitId } from "@/core/units";
import { AXIS, ChartFrame, GRID, TOOLTIP } from "@/ui/chart-frame";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";

/** Points further apart than this are of two stretches, s: nothing is drawn between them. */
const APART = 6;

interface Row {
  readonly time: number;
  readonly metered?: number;
  readonly engine?: number;
  readonly both?: number;
  readonly lost?: readonly [number, number];
}

/** What every metered point of a log is made of, over time; undefined where the log says nothing of breathing, or has no clock. */
function rowsOf(record: BoostRecord, context: Parameters<typeof judgedOf>[1], unit: UnitId): readonly Row[] | undefined {
  const { fit, hole } = judgedOf(record, context);
  if (!fit?.every((f) => f.time !== undefined)) return undefined;
  const shown = (flow: number) => fromSi(flow, unit).value;
  return fit.flatMap(({ time = 0, metered, breathed, lost }, i): Row[] => {
    const before = fit[i - 1]?.time;
    const [engine, both] = [shown(breathed), shown(breathed + lost)];
    const row: Row = { time, metered: shown(metered), engine, ...(hole ? { both, lost: [engine, both] } : {}) };
    return before !== undefined && time - before > APART ? [{ time: (time + before) / 2 }, row] : [row];
  });
}

/** Metered flow over time beside what the engine breathes, and what the leak that is named takes from it. */
export function FlowPlot({ record }: { record: BoostRecord }) {
  const { context } = useJob();
  const { number } = usePreferences();
  const unit: UnitId = record.points.find((p) => p.maf)?.maf?.unit ?? "g/s";
  const whole = useDeferredValue(record);
  const rows = useMemo(() => (context ? rowsOf(whole, context, unit) : undefined), [whole, context, unit]);
  if (!rows) return null;
  const leak = rows.some((r) => r.lost);
  const most = rows.reduce((a, r) => ((r.metered ?? 0) > (a.metered ?? 0) ? r : a));
  const words = `At ${number(most.time, 0)} s the MAF shows ${number(most.metered ?? 0, 0)} ${unit}, the engine breathes ${number(most.engine ?? 0, 0)} ${unit}${leak ? `, the leak takes ${number((most.both ?? 0) - (most.engine ?? 0), 1)} ${unit}` : ""}.`;
  return (
    <ChartFrame
      title={`Air flow (${unit}) over the log (s)`}
      words={words}
      height={220}
      legend={[
        { name: "MAF", colour: "var(--live)" },
        { name: "engine breathes", colour: "var(--muted)" },
        ...(leak ? [{ name: "lost through the leak", colour: "var(--ember)" }] : []),
      ]}
    >
      {({ Area, CartesianGrid, ComposedChart, Line, Tooltip, XAxis, YAxis }) => (
        <ComposedChart data={[...rows]} margin={{ top: 8, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid {...GRID} />
          <XAxis
            type="number"
            dataKey="time"
            unit=" s"
            domain={[0, "dataMax"]}
            tickFormatter={(v: number) => number(v, 0)}
            {...AXIS}
          />
          <YAxis unit={` ${unit}`} width={76} domain={[0, "auto"]} tickFormatter={(v: number) => number(v, 0)} {...AXIS} />
          <Tooltip
            {...TOOLTIP}
            formatter={(v, line) => [
              Array.isArray(v) ? `${number(Number(v[1]) - Number(v[0]), 1)} ${unit}` : `${number(Number(v), 1)} ${unit}`,
              line,
            ]}
            labelFormatter={(v) => `${number(Number(v), 1)} s`}
          />
          {leak && (
            <Area
              dataKey="lost"
              name="lost through the leak"
              stroke="none"
              fill="var(--ember)"
              fillOpacity={0.45}
              isAnimationActive={false}
            />
          )}
          <Line
            dataKey="engine"
            name="engine breathes"
            stroke="var(--muted)"
            strokeWidth={2}
            dot={false}
            isAnimationActive={false}
          />
          <Line
            dataKey="metered"
            name="MAF"
            stroke="var(--live)"
            strokeWidth={0}
            dot={{ r: 3.5, fill: "var(--live)", stroke: "var(--bg)", strokeWidth: 1 }}
            isAnimationActive={false}
          />
        </ComposedChart>
      )}
    </ChartFrame>
  );
}
