"use client";

import type { ComebackState, RecordedRun } from "@/core/journal";
import { usePreferences } from "../../session/preferences";
import { shortTime } from "../short-time";

/** Most rows that are drawn: the newest say most. */
const MOST = 16;

const WORDS: Readonly<Record<RecordedRun["says"], string>> = {
  came: "came back",
  clean: "without it",
  nothing: "does not count",
};
const BARS: Readonly<Record<RecordedRun["says"], string>> = {
  came: "bg-ember",
  clean: "bg-calm",
  nothing: "border border-edge",
};
const INKS: Readonly<Record<RecordedRun["says"], string>> = { came: "text-ember", clean: "text-calm", nothing: "text-muted" };

/** Onsets and runs as bars of their distance, oldest first, with the longest onset that a run must go past; cold starts as marks. */
export function ComebackPlot({ runs, past, kind }: Pick<ComebackState, "runs" | "past" | "kind">) {
  const { format } = usePreferences();
  const shown = runs.slice(-MOST);
  if (shown.length === 0) return null;
  const most = 1.05 * Math.max(past ?? 0, ...shown.map((r) => r.distance ?? 0));
  const km = (value: number) => format({ value, unit: "km" });
  const told = shown.findIndex((r) => r.when === "since");
  return (
    <figure className="flex flex-col gap-1 py-1">
      <figcaption className="text-muted">
        {kind === "cold-starts" ? "Starts recorded" : "Recorded: how far until it came, or without it"}
        {past !== undefined && `; a run counts that goes past ${km(past)}`}
        {runs.length > MOST && `; the last ${MOST} of ${runs.length}`}
      </figcaption>
      <ul className="flex flex-col gap-1">
        {shown.map((run, i) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: what was told has no time, and two may be alike
            key={i}
            className={`grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-3 text-sm sm:grid-cols-[6.5rem_minmax(0,1fr)_11rem] ${i > 0 && i === told ? "border-t border-edge pt-1" : ""}`}
          >
            <span className="text-muted">{run.at ? shortTime(run.at) : "told"}</span>
            {run.distance === undefined ? (
              <span aria-hidden className={`size-3 rounded-full max-sm:hidden ${BARS[run.says]}`} />
            ) : (
              <span aria-hidden className="relative block h-4 bg-line max-sm:order-last max-sm:col-span-2">
                <span
                  className={`absolute inset-y-0 left-0 ${BARS[run.says]}`}
                  style={{ width: `${(100 * run.distance) / most}%` }}
                />
                {past !== undefined && (
                  <span className="absolute -inset-y-0.5 border-l-2 border-amber" style={{ left: `${(100 * past) / most}%` }} />
                )}
              </span>
            )}
            <span className={INKS[run.says]}>
              {run.distance !== undefined && `${km(run.distance)} `}
              {WORDS[run.says]}
            </span>
          </li>
        ))}
      </ul>
    </figure>
  );
}
