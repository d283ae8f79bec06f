"use client";

import type { BankReading } from "@/core/checks/trims";
import { AXIS, ChartFrame, GRID, spanning, TOOLTIP } from "@/ui/chart-frame";
import { useSpan } from "@/ui/pan-zoom";
import { usePreferences } from "../../../session/preferences";

const BANK_COLOURS = ["var(--live)", "var(--calm)"];
const RUNNER_UP_COLOURS = ["var(--muted)", "var(--edge)"];
const SHAPE_NAMES = {
  none: "near zero",
  constant: "constant",
  "fades-with-flow": "fades with flow",
  "grows-with-flow": "grows with flow",
  "rich-under-boost": "rich under boost",
  "rich-fades-with-flow": "rich, fading with flow",
  "rich-grows-with-flow": "rich, growing with flow",
} as const;

/** Total trim against airflow: the points, the fitted curve of each bank and of the runner-up shape. */
export function TrimPlot({ banks, good }: { banks: readonly BankReading[]; good: number }) {
  const { number } = usePreferences();
  // The meter's whole flow on the axis: what a bank breathes is its share of it.
  const grams = (flow: number) => flow * banks.length * 1000;
  const percent = (fraction: number | undefined) => (fraction === undefined ? undefined : fraction * 100);
  const rows = banks.flatMap((bank, b) => [
    ...bank.points.map((p) => ({ flow: grams(p.flow), [`trim${b}`]: percent(p.trim) })),
    ...bank.drawn.map((p, i) => ({
      flow: grams(p.flow),
      [`best${b}`]: percent(bank.fits[0]?.curve[i]),
      [`second${b}`]: percent(bank.fits[1]?.curve[i]),
    })),
  ]);
  rows.sort((a, b) => a.flow - b.flow);
  const span = useSpan(0, Math.ceil((rows.at(-1)?.flow ?? 1) * 1.02), 2);
  const said = (bank: BankReading) =>
    bank.points.map((p) => `${number(p.trim * 100, 0)} % at ${number(grams(p.flow), 1)} g/s`).join(", ");
  const words = banks.map((bank, b) => `Bank ${b + 1}: ${said(bank)}`).join(". ");
  const name = (b: number) => (banks.length > 1 ? `Bank ${b + 1}` : "Total trim");
  const percentOf = (odds: number) => number(Math.min(99, odds * 100), 0);
  const legend = banks.flatMap(({ fits: [best, second] }, b) => [
    ...(best
      ? [{ name: `${name(b)}: ${SHAPE_NAMES[best.id]}, ${percentOf(best.odds)} %`, colour: BANK_COLOURS[b] as string }]
      : []),
    ...(second
      ? [
          {
            name: `${banks.length > 1 ? `Bank ${b + 1}, ` : ""}runner-up: ${SHAPE_NAMES[second.id]}`,
            colour: RUNNER_UP_COLOURS[b] as string,
            dashed: true,
          },
        ]
      : []),
  ]);
  return (
    <ChartFrame
      title="Total trim (%) against airflow (g/s)"
      words={words}
      legend={legend}
      span={{ handle: span, less: "Less airflow", more: "More airflow" }}
    >
      {({ CartesianGrid, ComposedChart, Line, ReferenceArea, Tooltip, XAxis, YAxis }) => (
        <ComposedChart data={rows} margin={{ top: 8, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid {...GRID} />
          <ReferenceArea y1={-good * 100} y2={good * 100} fill="var(--calm)" fillOpacity={0.14} />
          <XAxis
            type="number"
            dataKey="flow"
            domain={[span.from, span.to]}
            allowDataOverflow
            unit=" g/s"
            tickFormatter={(v: number) => number(v, span.to - span.from < 8 ? 1 : 0)}
            {...AXIS}
          />
          <YAxis unit=" %" width={64} domain={spanning(10, 5, 0)} {...AXIS} />
          <Tooltip
            {...TOOLTIP}
            formatter={(v, line) => [`${number(Number(v), 1)} %`, line]}
            labelFormatter={(v) => `${number(Number(v), 1)} g/s`}
          />
          {banks.map((bank, b) => {
            const colour = BANK_COLOURS[b] as string;
            const [best, second] = bank.fits;
            return [
              <Line
                key={`${name(b)} best`}
                dataKey={`best${b}`}
                name={`${name(b)}, ${SHAPE_NAMES[best?.id ?? "none"]}`}
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
                stroke={RUNNER_UP_COLOURS[b] as string}
                strokeDasharray="6 5"
                dot={false}
                connectNulls
                isAnimationActive={false}
              />,
              <Line
                key={`${name(b)} points`}
                dataKey={`trim${b}`}
                name={`${name(b)}, measured`}
                stroke={colour}
                strokeWidth={0}
                dot={{ r: 5, fill: colour, stroke: "var(--bg)", strokeWidth: 1.5 }}
                isAnimationActive={false}
              />,
            ];
          })}
        </ComposedChart>
      )}
    </ChartFrame>
  );
}
