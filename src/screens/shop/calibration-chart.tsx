"use client";

import { ballCurve, type Calibration } from "@/core/shop/settings";
import { formatQuantity, fromSi, type UnitId } from "@/core/units";
import { AXIS, ChartFrame, GRID } from "@/ui/chart-frame";
import { usePreferences } from "../session/preferences";

/** Air of the day a machine was calibrated on, where it was not written down: standard. */
const DAY = { ambient: 101325, temperature: 293.15 };

/** A machine's own curve: flow over the ball's height, through its reference holes. */
export function CalibrationChart({ calibration, unit }: { calibration: Calibration; unit: UnitId }) {
  const { number, format } = usePreferences();
  const curve = ballCurve(calibration, DAY);
  const points = calibration.points.toSorted((a, b) => a.height - b.height);
  const top = (points.at(-1) as (typeof points)[number]).height;
  const flow = (height: number) => fromSi(curve.flowAt(height).flow, unit).value;
  const line = Array.from({ length: 41 }, (_, i) => ({ height: (top * i) / 40, flow: flow((top * i) / 40) }));
  const holes = points.map((p) => ({ height: p.height, hole: flow(p.height) }));
  const words = points.map((p) => `${format(p.diameter)} at ${number(p.height, 1)}`).join(", ");
  return (
    <ChartFrame
      title={`Calibrated ${calibration.on} at ${formatQuantity({ ...calibration.pressure, kind: "gauge" })}: flow (${unit}) over ball height`}
      words={words}
      height={200}
    >
      {({ CartesianGrid, ComposedChart, Line, Scatter, XAxis, YAxis }) => (
        <ComposedChart data={[...line, ...holes].toSorted((a, b) => a.height - b.height)} margin={{ top: 8, right: 16, left: 0 }}>
          <CartesianGrid {...GRID} />
          <XAxis type="number" dataKey="height" domain={[0, top]} tickFormatter={(v: number) => number(v, 1)} {...AXIS} />
          <YAxis width={48} tickFormatter={(v: number) => number(v, 1)} {...AXIS} />
          <Line dataKey="flow" stroke="var(--live)" strokeWidth={2.5} dot={false} connectNulls isAnimationActive={false} />
          <Scatter dataKey="hole" fill="var(--ink)" isAnimationActive={false} />
        </ComposedChart>
      )}
    </ChartFrame>
  );
}
