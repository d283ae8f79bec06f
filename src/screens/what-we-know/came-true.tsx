"use client";

import { ENOUGH, type Tenth } from "@/core/lessons";
import { AXIS, ChartFrame, GRID } from "@/ui/chart-frame";
import { FigureTable } from "@/ui/figure-table";
import { usePreferences } from "../session/preferences";

const VERDICTS: Readonly<Record<Tenth["verdict"], string>> = {
  "too-few": "not enough yet",
  "as-said": "as predicted",
  oftener: "more often than predicted",
  rarer: "less often than predicted",
};

/** Whether odds come true: how often what was said at 80 % was found. */
export function CameTrue({ tenths }: { tenths: readonly Tenth[] }) {
  const { number } = usePreferences();
  const percent = (share: number) => number(100 * share, 0);
  const told = tenths.filter((t) => t.verdict !== "too-few");
  const points = told.map((t) => ({
    said: 100 * t.said,
    found: 100 * t.share,
    spread: [100 * (t.share - t.low), 100 * (t.high - t.share)],
  }));
  return (
    <section aria-label="Were the odds right?" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Were the odds right?</h2>
      <p className="max-w-3xl text-muted">
        The odds of every place just before the fault was found, by today&rsquo;s rules and without this shop&rsquo;s own
        experience, against whether it was found there. Jobs that nobody proved to the end are not among them, so easy ones count
        for more.
      </p>
      {told.length >= 2 ? (
        <ChartFrame
          title="Found (%) against predicted (%), with its range; on the dashed line the two agree"
          words={told.map((t) => `predicted ${percent(t.said)} %, found ${percent(t.share)} %`).join("; ")}
          height={280}
        >
          {({ CartesianGrid, ComposedChart, ErrorBar, Line, Scatter, XAxis, YAxis }) => (
            <ComposedChart
              data={[{ said: 0, line: 0 }, ...points, { said: 100, line: 100 }]}
              margin={{ top: 8, right: 16, left: 0 }}
            >
              <CartesianGrid {...GRID} />
              <XAxis type="number" dataKey="said" domain={[0, 100]} ticks={[0, 20, 40, 60, 80, 100]} unit=" %" {...AXIS} />
              <YAxis type="number" domain={[0, 100]} ticks={[0, 20, 40, 60, 80, 100]} unit=" %" width={56} {...AXIS} />
              <Line
                dataKey="line"
                stroke="var(--edge)"
                strokeDasharray="6 4"
                dot={false}
                connectNulls
                isAnimationActive={false}
              />
              <Scatter dataKey="found" fill="var(--live)" isAnimationActive={false}>
                <ErrorBar dataKey="spread" stroke="var(--live)" strokeWidth={2} width={8} />
              </Scatter>
            </ComposedChart>
          )}
        </ChartFrame>
      ) : (
        <p className="text-lg">
          Not enough yet for a chart: a tenth needs {ENOUGH.said} predictions of faults that were found later.
        </p>
      )}
      {tenths.length > 0 && (
        <FigureTable
          caption="Predicted, in tenths"
          heads={["Predicted", "Found"]}
          rows={tenths.map((t) => [
            `${percent(t.from)} to ${percent(t.from + 0.1)} %`.replaceAll(" ", "\u00a0"),
            <span key="found">
              {t.found} of {t.of}: {percent(t.share)} % ({percent(t.low)} to {percent(t.high)}){" "}
              <span
                className={`block sm:ml-4 sm:inline ${t.verdict === "rarer" ? "text-amber" : t.verdict === "as-said" ? "text-calm" : "text-muted"}`}
              >
                {VERDICTS[t.verdict]}
              </span>
            </span>,
          ])}
        />
      )}
    </section>
  );
}
