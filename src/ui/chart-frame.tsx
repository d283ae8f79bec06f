"use client";

import type { ReactElement } from "react";
import type { Charts } from "./charts";
import { PanArea, type SpanHandle, SpanKeys } from "./pan-zoom";
import { useCharts } from "./use-charts";

/** A chart with its title and what it says in words, for those who cannot see it. */
export function ChartFrame({
  title,
  words,
  height = 260,
  span,
  legend,
  children,
}: {
  title: string;
  words: string;
  height?: number;
  /** Lets the chart be zoomed and panned along its axis, with the words for less and more of it */
  span?: { readonly handle: SpanHandle; readonly less: string; readonly more: string };
  /** Legend of each line; a dashed one is drawn so */
  legend?: readonly { readonly name: string; readonly colour: string; readonly dashed?: boolean }[];
  /** Draws it, with what it is drawn with */
  children: (charts: Charts) => ReactElement;
}) {
  const { charts, away } = useCharts();
  const chart = charts ? (
    <charts.ResponsiveContainer width="100%" height="100%">
      {children(charts)}
    </charts.ResponsiveContainer>
  ) : (
    away && <p className="py-4 text-muted">Drawn once the server is back. {words}</p>
  );
  return (
    <figure className="min-w-0">
      <figcaption className="mb-1 flex flex-wrap items-center justify-between gap-2 text-sm text-muted">
        <span>{title}</span>
        {span && <SpanKeys span={span.handle} less={span.less} more={span.more} />}
      </figcaption>
      {legend && (
        <ul className="mb-1 flex flex-wrap gap-x-4 text-sm" aria-hidden>
          {legend.map(({ name, colour, dashed }) => (
            <li key={name} className="flex items-center gap-2">
              <svg width="24" height="8" aria-hidden>
                <line x1="0" x2="24" y1="4" y2="4" stroke={colour} strokeWidth={3} strokeDasharray={dashed ? "6 4" : undefined} />
              </svg>
              {name}
            </li>
          ))}
        </ul>
      )}
      <div role="img" aria-label={`${title}. ${words}`} style={{ height }}>
        {span ? <PanArea span={span.handle}>{chart}</PanArea> : chart}
      </div>
    </figure>
  );
}

export const AXIS = { stroke: "var(--edge)", tick: { fill: "var(--muted)", fontSize: 13 }, tickLine: false } as const;
export const GRID = { stroke: "var(--line)", strokeDasharray: "2 5" } as const;
export const TOOLTIP = {
  contentStyle: { background: "var(--panel)", border: "1px solid var(--edge)", borderRadius: 6, color: "var(--ink)" },
  itemStyle: { color: "var(--ink)" },
  labelStyle: { color: "var(--muted)" },
  isAnimationActive: false,
} as const;

/**
 * The span of an axis that holds all its values and is never so short that its marks stand for nothing: a single reading, or
 * readings all alike, lie in the middle of it. @param least that span, a multiple of `step`; @param step its ends are multiples of it.
 */
export const spanning =
  (least: number, step: number, ...holds: readonly number[]) =>
  ([low, high]: readonly [number, number]): [number, number] => {
    const [from, to] = [Math.min(low, ...holds), Math.max(high, ...holds)];
    if (!Number.isFinite(from) || !Number.isFinite(to)) return [0, least];
    const spare = Math.max(0, least - (to - from)) / 2;
    return [Math.floor((from - spare) / step) * step, Math.ceil((to + spare) / step) * step];
  };
