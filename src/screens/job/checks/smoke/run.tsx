"use client";

import { useState } from "react";
import { judgeSmoke } from "@/core/checks/smoke";
import { formatNumber } from "@/core/units";
import { BallTube } from "@/ui/ball-tube";
import { Button } from "@/ui/button";
import { Chips, Tick } from "@/ui/choice";
import { Dialog } from "@/ui/dialog";
import { ErrorNote } from "@/ui/field";
import { useJob } from "../../use-job";
import { VerdictPanel } from "../../verdict";
import { useRecordCheck } from "../use-record-check";
import { SettlingPlot } from "./settling-plot";
import type { SmokeHandle } from "./use-smoke-run";

const marksUpTo = (max: number) => {
  const step = max > 60 ? 20 : max > 12 ? 5 : max > 6 ? 2 : 1;
  return Array.from({ length: Math.floor(max / step) + 1 }, (_, i) => i * step);
};

/** The live run: ball and gauge follow the real ones, each move a timed sample; then what was seen, and the verdict. */
export function SmokeRunPanel({ run, onDone }: { run: SmokeHandle; onDone: () => void }) {
  const { state, layout, shop } = useJob();
  const { draft, set, update, units, maxFlow, rated, reading, reach } = run;
  const record = useRecordCheck();
  const [error, setError] = useState<string>();
  const [marking, setMarking] = useState(false);
  if (!layout || !state.vehicle || !reach || draft.startedAt === null) return null;
  const running = draft.endedAt === null;
  const sample = (flow: number, pressure: number) =>
    update((before) => {
      const t = Math.round((Date.now() - (before.startedAt as number)) / 100) / 10;
      const rest = before.samples.filter((s) => t - s[0] > 0.45);
      return { ...before, flow, pressure, samples: [...rest, [t, flow, pressure]] };
    });
  const context = { vehicle: state.vehicle, layout, limits: shop.limits, house: shop.house };
  const verdict = run.record && !running ? judgeSmoke(run.record, context) : undefined;
  const names = new Map(layout.joints.map((j) => [j.id, j.name]));
  const far = reach.zones.filter((z) => z !== entryZone(layout, draft.entry));
  const hole = reading?.hole;

  const finish = async () => {
    const whole = run.recordAt(draft.endedAt ?? Date.now());
    if (!whole) return;
    const wrong = await record("smoke", whole, {
      from: new Date(draft.startedAt as number).toISOString(),
      to: new Date(draft.endedAt ?? Date.now()).toISOString(),
    });
    setError(wrong);
    if (!wrong) onDone();
  };

  return (
    <div className="flex flex-col gap-5">
      <div className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-5 gap-y-4 xl:grid-cols-[auto_15rem_minmax(0,1fr)]">
        <BallTube
          label={`Flow ball, ${units.flow}`}
          value={draft.flow}
          max={maxFlow}
          unit={units.flow}
          marks={marksUpTo(maxFlow)}
          disabled={!running}
          onMove={(flow) => set({ flow })}
          onSettle={(flow) => sample(flow, draft.pressure)}
        />
        <div className="flex min-w-0 flex-col gap-3">
          <div>
            <p className="text-sm text-muted">Flow</p>
            <p className="text-5xl leading-none font-bold">{draft.flow}</p>
            <p className="text-muted">{units.flow} at 20 °C, 101.325 kPa</p>
          </div>
          <div>
            <label className="text-sm text-muted" htmlFor="smoke-pressure">
              Pressure
            </label>
            <p className="text-4xl leading-none font-bold">{draft.pressure}</p>
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
              aria-valuetext={`${draft.pressure} ${units.pressure} gauge`}
              onChange={(e) => set({ pressure: Number(Number(e.target.value).toFixed(2)) })}
              onPointerUp={() => sample(draft.flow, draft.pressure)}
              onKeyUp={() => sample(draft.flow, draft.pressure)}
            />
          </div>
          <Button disabled={!running} onClick={() => sample(draft.flow, draft.pressure)}>
            Take reading
          </Button>
          <p className="text-sm text-muted">{draft.samples.length} readings. Every move of ball or gauge is one.</p>
        </div>
        <div className="col-span-2 min-w-0 xl:col-span-1">
          {reading && reading.times.length > 0 ? (
            <SettlingPlot reading={reading} unit={units.flow} scale={run.flowScale} />
          ) : (
            <p className="py-10 text-center text-muted">Drag the ball to match the real one.</p>
          )}
          {reading?.flow && (
            <p role="status" className={`text-lg font-bold ${reading.flow.settled ? "" : "text-amber"}`}>
              {reading.flow.settled
                ? `Settled${hole ? `: all openings together ≈ ${formatNumber(hole.diameter * 1000, 1)} mm (${formatNumber(hole.low * 1000, 1)} to ${formatNumber(hole.high * 1000, 1)}), sharp-edged hole` : ""}`
                : `Still filling, about ${formatNumber(reading.flow.timeLeft, 0)} s left`}
            </p>
          )}
        </div>
      </div>

      {running ? (
        <div className="flex flex-col gap-3">
          <div className="flex flex-wrap gap-3">
            <Button look="primary" onClick={() => setMarking(true)}>
              I see smoke: mark it
            </Button>
            <Button onClick={() => set({ noSmokeOutside: true, seen: [], endedAt: Date.now() })}>
              Looked everywhere: none outside
            </Button>
            <Button onClick={() => set({ endedAt: Date.now() })}>End the run</Button>
          </div>
          <Chips
            label="Smoke shown to arrive (far end opened until it came, then shut)"
            options={far.map((z) => [z, layout.zones.find((x) => x.id === z)?.name ?? z] as const)}
            value={draft.arrivals.map((a) => a.zone)}
            onChange={(zones) =>
              set({ arrivals: zones.map((zone) => draft.arrivals.find((a) => a.zone === zone) ?? { zone, at: Date.now() }) })
            }
          />
          {draft.seen.length > 0 && (
            <p className="text-ember">
              Smoke at {draft.seen.map((s) => names.get(s.joint)).join(", ")}. Lower the flow to narrow it in, then end the run.
            </p>
          )}
        </div>
      ) : (
        <div className="flex flex-col gap-3">
          <div className="grid gap-x-6 sm:grid-cols-2">
            <Tick
              label="A plug or a held-open part came undone"
              checked={draft.cameUndone.length > 0}
              onChange={(yes) => set({ cameUndone: yes ? [draft.blocked[0] ?? draft.entry] : [] })}
            />
            <Tick
              label="The adapter leaked at its own seal"
              checked={draft.adapterLeaks}
              onChange={(adapterLeaks) => set({ adapterLeaks })}
            />
            <Tick
              label="Draught or bright daylight"
              checked={draft.draughtOrGlare}
              onChange={(draughtOrGlare) => set({ draughtOrGlare })}
            />
            <Tick
              label="A suspect clamp or cap was touched before"
              checked={draft.touchedBefore.length > 0}
              onChange={(yes) => set({ touchedBefore: yes ? [draft.seen[0]?.joint ?? draft.entry] : [] })}
            />
            <Tick
              label="Looked along every joint: no smoke outside"
              checked={draft.noSmokeOutside}
              onChange={(noSmokeOutside) => set({ noSmokeOutside })}
            />
          </div>
          {verdict && <VerdictPanel check="smoke" verdict={verdict} title="Verdict of this run" />}
          {error && <ErrorNote>{error}</ErrorNote>}
          <div className="flex flex-wrap gap-3">
            <Button look="primary" onClick={() => void finish()}>
              Record the run
            </Button>
            <Button onClick={() => set({ endedAt: null })}>Go on with the run</Button>
          </div>
        </div>
      )}
      <Dialog
        open={marking}
        onOpenChange={setMarking}
        title="Where do you see smoke?"
        description="Joints this fill puts to the test. A zone on the air map can be tapped as well."
      >
        <div className="flex flex-wrap gap-2">
          {reach.tested.map((j) => (
            <Button
              key={j.id}
              onClick={() => {
                set({
                  seen: [...draft.seen.filter((s) => s.joint !== j.id), { joint: j.id, at: Date.now() }],
                  noSmokeOutside: false,
                });
                setMarking(false);
              }}
            >
              {j.name}
            </Button>
          ))}
        </div>
      </Dialog>
    </div>
  );
}

function entryZone(layout: NonNullable<ReturnType<typeof useJob>["layout"]>, entry: string) {
  const joint = layout.joints.find((j) => j.id === entry);
  return joint && (joint.to === "outside" ? joint.from : joint.to);
}
