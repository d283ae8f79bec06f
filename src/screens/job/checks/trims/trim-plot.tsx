"use client";

import { CartesianGrid, ComposedChart, Legend, Line, ReferenceArea, Scatter, Tooltip, XAxis, YAxis } from "recharts";
import type { BankReading } from "@/core/checks/trims";
import { AXIS, ChartFrame, GRID, TOOLTIP } from "@/ui/chart-frame";

const BANK_COLOURS = ["var(--live)", "var(--calm)"];
const SHAPE_NAMES = {
  none: "near zero",
  constant: "constant",
  "fades-with-flow": "fades with flow",
  "grows-with-flow": "grows with flow",
  "rich-under-boost": "rich under boost",
} as const;

/** Total trim against airflow: the points, the fitted curve of each bank and of the runner-up shape. */
export function TrimPlot({ banks, good }: { banks: readonly BankReading[]; good: number }) {
  const percent = (fraction: number | undefined) => (fraction === undefined ? undefined : Math.round(fraction * 1000) / 10);
  const rows = banks.flatMap((bank, b) =>
    bank.points.map((p, i) => ({
      flow: Math.round(p.flow * banks.length * 10000) / 10,
      [`trim${b}`]: percent(p.trim),
      [`best${b}`]: percent(bank.fits[0]?.curve[i]),
      [`second${b}`]: percent(bank.fits[1]?.curve[i]),
    })),
  );
  rows.sort((a, b) => a.flow - b.flow);
  const words = banks
    .map(
      (bank, b) =>
        `Bank ${b + 1}: ${bank.points.map((p) => `${(p.trim * 100).toFixed(0)} % at ${(p.flow * banks.length * 1000).toFixed(1)} g/s`).join(", ")}`,
    )
    .join(". ");
  const name = (b: number) => (banks.length > 1 ? `Bank ${b + 1}` : "Total trim");
  return (
    <ChartFrame title="Total trim (%) against airflow (g/s)" words={words}>
      <ComposedChart data={rows} margin={{ top: 8, right: 16, bottom: 4, left: 0 }}>
        <CartesianGrid {...GRID} />
        <ReferenceArea y1={-good * 100} y2={good * 100} fill="var(--calm)" fillOpacity={0.14} />
        <XAxis type="number" dataKey="flow" domain={[0, "dataMax"]} unit=" g/s" {...AXIS} />
        <YAxis unit=" %" width={64} domain={["auto", "auto"]} {...AXIS} />
        <Tooltip {...TOOLTIP} formatter={(v) => `${String(v)} %`} labelFormatter={(v) => `${String(v)} g/s`} />
        <Legend verticalAlign="top" height={30} />
        {banks.map((bank, b) => {
          const colour = BANK_COLOURS[b] as string;
          const [best, second] = bank.fits;
          return [
            <Line
              key={`${name(b)} best`}
              dataKey={`best${b}`}
              name={`${name(b)}, ${SHAPE_NAMES[best?.id ?? "none"]} ${Math.round((best?.odds ?? 0) * 100)} %`}
              stroke={colour}
              strokeWidth={2.5}
              dot={false}
              connectNulls
              isAnimationActive={false}
            />,
            <Line
              key={`${name(b)} second`}
              dataKey={`second${b}`}
              name={`runner-up, ${SHAPE_NAMES[second?.id ?? "none"]}`}
              stroke="var(--muted)"
              strokeDasharray="6 5"
              dot={false}
              connectNulls
              isAnimationActive={false}
            />,
            <Scatter
              key={`${name(b)} points`}
              dataKey={`trim${b}`}
              name={name(b)}
              fill={colour}
              shape={b === 0 ? "circle" : "square"}
              legendType="none"
              isAnimationActive={false}
            />,
          ];
        })}
      </ComposedChart>
    </ChartFrame>
  );
}
