"use client";

import { Check, CircleDot } from "lucide-react";
import { memo } from "react";
import { STATION_NAMES, STATIONS, type StationId, type StationState } from "@/core/journal";
import { centreIn } from "@/ui/centre-in";
import { useJob } from "./use-job";

const STATE_WORDS: Record<StationState, string> = {
  untouched: "not started",
  "going-on": "going on",
  "needs-you": "next",
  settled: "settled",
};
const RINGS: Record<StationState, string> = {
  untouched: "border-2 border-edge text-muted",
  "going-on": "border-2 border-amber text-amber",
  "needs-you": "border-[3px] border-live text-live",
  settled: "bg-calm text-bg",
};

/** The nine stations in working order. Any can be opened; one is marked as next, with its reason. */
export const WorkLine = memo(function WorkLine({
  current,
  onOpen,
}: {
  current: StationId;
  onOpen: (station: StationId) => void;
}) {
  const { state } = useJob();
  return (
    <nav aria-label="Stations" className="border-line max-lg:border-b lg:row-span-3 lg:overflow-y-auto lg:border-r">
      <ol className="relative flex gap-1 overflow-x-auto p-2 lg:min-h-full lg:flex-col lg:items-center lg:justify-between lg:py-3">
        {STATIONS.map((station, i) => {
          const now = state.stations[station];
          const isHere = station === current;
          return (
            // On a phone the line is longer than the screen is wide.
            <li key={station} ref={isHere ? centreIn : undefined} className="shrink-0 lg:w-full">
              <button
                type="button"
                aria-current={isHere ? "step" : undefined}
                onClick={() => onOpen(station)}
                title={station === state.nextStation.station ? state.nextStation.reason : undefined}
                className={`flex w-20 cursor-pointer flex-col items-center gap-1 rounded-lg px-1 py-1.5 hover:bg-raised lg:w-full ${isHere ? "bg-raised" : ""}`}
              >
                <span aria-hidden className={`flex size-9 items-center justify-center rounded-full text-lg ${RINGS[now]}`}>
                  {now === "settled" ? <Check size={18} strokeWidth={3} /> : now === "going-on" ? <CircleDot size={18} /> : i + 1}
                </span>
                <span
                  className={`text-sm leading-tight ${isHere ? "font-bold" : ""} ${now === "needs-you" ? "text-live" : "text-ink"}`}
                >
                  {STATION_NAMES[station]}
                </span>
                <span className="sr-only">{STATE_WORDS[now]}</span>
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
});
