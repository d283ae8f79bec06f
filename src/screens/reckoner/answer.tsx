"use client";

import type { Answer, Reckoned } from "@/core/reckoner";
import type { Quantity } from "@/core/units";
import { AXIS, ChartFrame, GRID } from "@/ui/chart-frame";
import { usePreferences } from "../session/preferences";

/** Three figures are what any of it is worth. */
const digits = (value: number) =>
  Number.isInteger(value) ? 0 : Math.max(0, Math.min(6, 2 - Math.floor(Math.log10(Math.abs(value)))));

/** Results: the first large, the rest under it. */
export function AnswerRows({ answer }: { answer: Answer }) {
  const { number } = usePreferences();
  const said = ({ value }: Reckoned) => {
    const { kind } = value as Quantity;
    return `${number(value.value, digits(value.value))}${value.unit ? ` ${value.unit}` : ""}${kind ? ` ${kind}` : ""}`;
  };
  const [first, ...rest] = answer.rows;
  return (
    <>
      {first && (
        <div>
          <p className="text-muted">{first.name}</p>
          <p className="text-4xl font-bold tabular-nums">{said(first)}</p>
          {first.low !== undefined && first.high !== undefined && (
            <p className="text-muted tabular-nums">
              {number(first.low, digits(first.high))} to {number(first.high, digits(first.high))}
              {first.value.unit ? ` ${first.value.unit}` : ""}, 95 %
            </p>
          )}
        </div>
      )}
      {answer.fall && <Fall fall={answer.fall} />}
      <dl className="flex flex-col divide-y divide-line">
        {rest.map((row) => (
          <div key={row.name} className="flex flex-wrap items-baseline justify-between gap-x-4 py-1.5">
            <dt className="text-muted">{row.name}</dt>
            <dd className="font-bold tabular-nums">{said(row)}</dd>
          </div>
        ))}
      </dl>
      {answer.notes?.map((note) => (
        <p key={note} className="border-l-4 border-edge px-4 py-1 first-letter:uppercase">
          {note}
        </p>
      ))}
    </>
  );
}

function Fall({ fall }: { fall: NonNullable<Answer["fall"]> }) {
  const { number } = usePreferences();
  const rows = [...fall.read.map(([t, read]) => ({ t, read })), ...fall.fitted.map(([t, fit]) => ({ t, fit }))].toSorted(
    (a, b) => a.t - b.t,
  );
  const last = fall.read.at(-1);
  return (
    <ChartFrame
      title={`Pressure after shut-off (${fall.unit})`}
      words={last ? `${fall.read.length} readings, down to ${number(last[1], 2)} ${fall.unit}` : "No reading"}
      height={200}
    >
      {({ CartesianGrid, ComposedChart, Line, Scatter, XAxis, YAxis }) => (
        <ComposedChart data={rows} margin={{ top: 8, right: 12, bottom: 0, left: 0 }}>
          <CartesianGrid {...GRID} />
          <XAxis type="number" dataKey="t" unit=" s" domain={[0, "dataMax"]} {...AXIS} />
          <YAxis width={44} domain={[0, "auto"]} {...AXIS} />
          <Line dataKey="fit" dot={false} connectNulls stroke="var(--muted)" strokeDasharray="5 4" isAnimationActive={false} />
          <Scatter dataKey="read" fill="var(--live)" isAnimationActive={false} />
        </ComposedChart>
      )}
    </ChartFrame>
  );
}
