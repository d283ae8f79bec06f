"use client";

import { useState } from "react";
import { type SmokeReading, sampled } from "@/core/checks/smoke";
import { fromSi } from "@/core/units";
import { BallTube } from "@/ui/ball-tube";
import { Button } from "@/ui/button";
import { usePerson } from "../../../session/person";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";
import { StandBack } from "../stand-back";
import { LiveMirror } from "./live-mirror";
import { SettlingPlot } from "./settling-plot";
import type { SmokeHandle } from "./use-smoke-run";

const marksUpTo = (max: number) => {
  const step = max > 60 ? 20 : max > 12 ? 5 : max > 6 ? 2 : 1;
  return Array.from({ length: Math.floor(max / step) + 1 }, (_, i) => i * step);
};

/** Ball and gauge, which follow the real ones by hand, each move a timed sample, and what they settle to. */
export function RunReadings({ run }: { run: SmokeHandle }) {
  const { layout } = useJob();
  const { number } = usePreferences();
  const { person } = usePerson();
  const { draft, update, units, maxFlow, reading } = run;
  // Only once the ball is let go is it a reading: on its way nothing else is worked out or kept.
  const [moving, setMoving] = useState<number>();
  const flow = moving ?? draft.flow;
  const running = draft.endedAt === null;
  const words = !reading?.flow
    ? ""
    : reading.flow.settled
      ? "Settled"
      : `Still filling, about ${number(reading.flow.timeLeft, 0)} s left`;
  const names = new Map(layout?.joints.map((j) => [j.id, j.name]));
  return (
    <div className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-5 gap-y-4 xl:grid-cols-[auto_12rem_minmax(0,1fr)]">
      <BallTube
        label={`Flow ball, ${units.flow}`}
        value={flow}
        max={maxFlow}
        unit={units.flow}
        marks={marksUpTo(maxFlow)}
        disabled={!running}
        onMove={setMoving}
        onSettle={(at) => {
          setMoving(undefined);
          update((d) => sampled(d, at, d.pressure, Date.now()));
        }}
      />
      <Gauges run={run} flow={flow} />
      <div className="col-span-2 flex min-w-0 flex-col gap-3 xl:col-span-1">
        {reading && <SettlingWords reading={reading} vapour={run.circuit === "evap"} />}
        {reading && reading.times.length > 0 ? (
          <SettlingPlot reading={reading} unit={units.flow} scale={run.flowScale} />
        ) : (
          <p className="py-10 text-center text-muted">Drag the ball to match the real one.</p>
        )}
        <div className="flex flex-wrap gap-2">
          {running && draft.startedAt !== null && (
            <StandBack
              first={{ name: "Ball", value: number(flow, 1), unit: `${units.flow} on the scale` }}
              second={{ name: "Pressure", value: number(draft.pressure, 2), unit: `${units.pressure} gauge` }}
              since={draft.startedAt}
              word={words}
            />
          )}
          <LiveMirror
            run={{
              by: person ?? "the first device",
              machine: run.machine.name,
              seconds: Math.max(0, Math.round(((draft.endedAt ?? Date.now()) - (draft.startedAt ?? Date.now())) / 1000)),
              running,
              flow: { value: flow, max: maxFlow, unit: units.flow },
              pressure: { value: draft.pressure, unit: units.pressure },
              words,
              seen: draft.seen.map((s) => names.get(s.joint) ?? s.joint),
            }}
          />
        </div>
      </div>
    </div>
  );
}

/** Keys that move a slider; with the others one only comes past it. */
const MOVES: ReadonlySet<string> = new Set([
  "ArrowUp",
  "ArrowDown",
  "ArrowLeft",
  "ArrowRight",
  "PageUp",
  "PageDown",
  "Home",
  "End",
]);

/** Readings of ball and gauge, large; the gauge moved by hand, and a reading taken of both. */
function Gauges({ run: { draft, set, update, units, rated }, flow }: { run: SmokeHandle; flow: number }) {
  const { number } = usePreferences();
  const running = draft.endedAt === null;
  // A gauge set before the ball was ever moved is no reading: it would say that nothing flows.
  const follow = () => draft.samples.length > 0 && take();
  const take = () => update((d) => sampled(d, flow, d.pressure, Date.now()));
  return (
    <div className="flex min-w-0 flex-col gap-2">
      <div>
        <p className="text-sm text-muted">Ball</p>
        <p className="text-5xl leading-none font-bold">{number(flow, 1)}</p>
        <p className="text-muted">{units.flow} on the scale</p>
      </div>
      <div>
        <label className="text-sm text-muted" htmlFor="smoke-pressure">
          Pressure
        </label>
        <p className="text-4xl leading-none font-bold">{number(draft.pressure, 2)}</p>
        <p className="text-muted">{units.pressure} gauge</p>
        <input
          id="smoke-pressure"
          type="range"
          min={0}
          max={rated * 1.2}
          step={rated / 100}
          value={draft.pressure}
          disabled={!running}
          className="h-11 w-full accent-[var(--accent)]"
          aria-valuetext={`${number(draft.pressure, 2)} ${units.pressure} gauge`}
          onChange={(e) => set({ pressure: Math.round(Number(e.target.value) * 100) / 100 })}
          onPointerUp={follow}
          onKeyUp={(e) => MOVES.has(e.key) && follow()}
        />
      </div>
      <Button disabled={!running} onClick={take}>
        Take reading
      </Button>
      <p className="text-sm text-muted">{draft.samples.length} readings; every move is one.</p>
    </div>
  );
}

/**
 * State of the ball: while it falls what the openings are at most, once it has settled what they are together. Fuel gives off
 * vapour, which passes out without having come in: there nothing is bounded before it has settled.
 */
function SettlingWords({ reading, vapour }: { reading: SmokeReading; vapour: boolean }) {
  const { number, format } = usePreferences();
  const { flow, hole, atMost } = reading;
  const size = (m: number) => format(fromSi(m, "mm"), 1);
  if (!flow?.settled) {
    const most = vapour ? undefined : atMost;
    if (!flow && most === undefined) return null;
    return (
      <p role="status" className="text-lg font-bold text-amber">
        Still filling{flow && `, about ${number(flow.timeLeft, 0)} s left`}
        {most !== undefined && <>: all openings together at most {size(most)}</>}
      </p>
    );
  }
  return (
    <p role="status" className="text-lg font-bold">
      Settled
      {hole && (
        <>
          : all openings together ≈ {size(hole.diameter)}{" "}
          <span className="font-normal text-muted">
            (95 %: {size(hole.low)} to {size(hole.high)}, as one sharp-edged hole)
          </span>
        </>
      )}
    </p>
  );
}
