"use client";

import { useState } from "react";
import type { SmokeReading } from "@/core/checks/smoke";
import { fromSi, UNITS } from "@/core/units";
import { EVAP_ZONES, entryZone } from "@/core/vehicle";
import { BallTube } from "@/ui/ball-tube";
import { Button } from "@/ui/button";
import { Chips, Tick } from "@/ui/choice";
import { Dialog } from "@/ui/dialog";
import { ErrorNote } from "@/ui/field";
import { useKeys } from "../../../session/keys";
import { usePerson } from "../../../session/person";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";
import { VerdictPanel } from "../../verdict";
import { Conclusion } from "../conclusion";
import { StandBack } from "../stand-back";
import { useRecordCheck } from "../use-record-check";
import { CapOffs } from "./cap-offs";
import { LiveMirror } from "./live-mirror";
import { ProofFields } from "./proof";
import { SettlingPlot } from "./settling-plot";
import type { SmokeDraft, SmokeHandle } from "./use-smoke-run";

const marksUpTo = (max: number) => {
  const step = max > 60 ? 20 : max > 12 ? 5 : max > 6 ? 2 : 1;
  return Array.from({ length: Math.floor(max / step) + 1 }, (_, i) => i * step);
};

/** The live run: ball and gauge follow the real ones, each move a timed sample; then what was seen, and the verdict. */
export function SmokeRunPanel({ run, onDone }: { run: SmokeHandle; onDone: () => void }) {
  const { layout, context } = useJob();
  const { number } = usePreferences();
  const { person } = usePerson();
  const { draft, set, update, units, maxFlow, rated, reading, reach } = run;
  const record = useRecordCheck();
  const [error, setError] = useState<string>();
  const [marking, setMarking] = useState(false);
  const running = draft.startedAt !== null && draft.endedAt === null;
  const sample = (flow: number, pressure: number) =>
    update((before) => {
      const t = Math.round((Date.now() - (before.startedAt as number)) / 100) / 10;
      const rest = before.samples.filter((s) => t - s[0] > 0.45);
      return { ...before, flow, pressure, samples: [...rest, [t, flow, pressure]] };
    });
  useKeys({
    mark: running ? () => sample(draft.flow, draft.pressure) : undefined,
    smoke: running ? () => setMarking(true) : undefined,
  });
  if (!layout || !context || !reach || draft.startedAt === null) return null;
  const verdict = run.record && !running ? run.verdict(run.record) : undefined;
  const names = new Map(layout.joints.map((j) => [j.id, j.name]));
  const evap = run.circuit === "evap";
  const touchable = evap ? layout.joints.filter((j) => j.kind === "seal" && EVAP_ZONES.includes(j.from)) : reach.tested;
  const markable = evap ? reach.tested.filter((j) => EVAP_ZONES.includes(j.from)) : reach.tested;
  const far = reach.zones.filter((z) => z !== entryZone(layout, draft) && !reach.behindEngine.includes(z));

  // A command that had let go before it was given again left the vent open meanwhile.
  const ceiling = context.limits.evapCeiling;
  const pressed = draft.pressure * UNITS[units.pressure].scale;
  const rearm = () => {
    const lapsed = draft.ventAt !== null && Date.now() > draft.ventAt + context.limits.outputTime.value * 1000;
    set({ ventAt: Date.now(), ...(lapsed ? { cameUndone: [...new Set([...draft.cameUndone, "vent-valve"])] } : {}) });
  };

  const words = !reading?.flow
    ? ""
    : reading.flow.settled
      ? "Settled"
      : `Still filling, about ${number(reading.flow.timeLeft, 0)} s left`;

  const finish = async () => {
    const whole = run.recordAt(draft.endedAt ?? Date.now());
    if (!whole) return;
    const wrong = await record(run.kind, whole, {
      from: new Date(draft.startedAt as number).toISOString(),
      to: new Date(draft.endedAt ?? Date.now()).toISOString(),
    });
    setError(wrong);
    if (!wrong) onDone();
  };

  return (
    <div className="flex flex-col gap-4">
      {evap && draft.entry !== "filler-cap" && running && (
        <p className="border-l-4 border-amber px-4 py-1 text-lg font-bold text-amber">
          Do not touch the cap until this run is read.
        </p>
      )}
      {evap && pressed > ceiling.value && (
        <p role="alert" className="border-4 border-ember bg-raised px-4 py-3 text-xl font-bold text-ember">
          Too much pressure: {number(draft.pressure, 2)} {units.pressure} gauge stands above the ceiling of{" "}
          {number(ceiling.value / UNITS[units.pressure].scale, 2)} {units.pressure}. Take the hose off now, then regulate the
          machine down.
        </p>
      )}
      <div className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-5 gap-y-4 xl:grid-cols-[auto_12rem_minmax(0,1fr)]">
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
        <div className="flex min-w-0 flex-col gap-2">
          <div>
            <p className="text-sm text-muted">Ball</p>
            <p className="text-5xl leading-none font-bold">{number(draft.flow, 1)}</p>
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
              onPointerUp={() => sample(draft.flow, draft.pressure)}
              onKeyUp={() => sample(draft.flow, draft.pressure)}
            />
          </div>
          <Button disabled={!running} onClick={() => sample(draft.flow, draft.pressure)}>
            Take reading
          </Button>
          <p className="text-sm text-muted">{draft.samples.length} readings; every move is one.</p>
        </div>
        <div className="col-span-2 flex min-w-0 flex-col gap-3 xl:col-span-1">
          {reading && reading.times.length > 0 ? (
            <SettlingPlot reading={reading} unit={units.flow} scale={run.flowScale} />
          ) : (
            <p className="py-10 text-center text-muted">Drag the ball to match the real one.</p>
          )}
          {reading?.flow && <SettlingWords reading={reading} />}
          <div className="flex flex-wrap gap-2">
            {running && (
              <StandBack
                first={{ name: "Ball", value: number(draft.flow, 1), unit: `${units.flow} on the scale` }}
                second={{ name: "Pressure", value: number(draft.pressure, 2), unit: `${units.pressure} gauge` }}
                since={draft.startedAt}
                word={words}
              />
            )}
            <LiveMirror
              run={{
                by: person ?? "the first device",
                machine: run.machine.name,
                seconds: Math.max(0, Math.round(((draft.endedAt ?? Date.now()) - draft.startedAt) / 1000)),
                running,
                flow: { value: draft.flow, max: maxFlow, unit: units.flow },
                pressure: { value: draft.pressure, unit: units.pressure },
                words,
                seen: draft.seen.map((s) => names.get(s.joint) ?? s.joint),
              }}
            />
          </div>
        </div>
      </div>

      {running ? (
        <div className="flex flex-col gap-3">
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
          <Tick
            label="Looked along every joint: no smoke outside"
            checked={draft.noSmokeOutside}
            onChange={(noSmokeOutside) => set({ noSmokeOutside, ...(noSmokeOutside ? { seen: [] } : {}) })}
          />
          <details className="border-y border-line">
            <summary className="flex min-h-11 cursor-pointer items-center">Did anything spoil the run?</summary>
            <div className="flex flex-col gap-3 pb-3">
              <div className="grid gap-x-6 sm:grid-cols-2">
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
              </div>
              {draft.blocked.length + draft.heldOpen.length > 0 && (
                <Chips
                  label="Came undone, dropped out or wept during the run"
                  options={[...draft.blocked, ...draft.heldOpen].map((id) => [id, names.get(id) ?? id] as const)}
                  value={draft.cameUndone}
                  onChange={(cameUndone) => set({ cameUndone })}
                />
              )}
              <Chips
                label="Tightened or touched before the run"
                options={touchable.map((j) => [j.id, j.name] as const)}
                value={draft.touchedBefore}
                onChange={(touchedBefore) => set({ touchedBefore })}
              />
            </div>
          </details>
          {!provedEarlier(draft) && (
            <section
              aria-label="Machine proof after the run"
              className="flex max-w-2xl flex-col gap-3 border-l-4 border-amber pl-4"
            >
              <h3 className="text-lg font-bold">Prove the machine now</h3>
              <p className="text-muted">Without a proof the run proves nothing; taken right after it, a proof counts.</p>
              <ProofFields run={run} />
              <Tick
                label="That is what the machine shows now"
                checked={draft.proved}
                onChange={(proved) => set({ proved, provedAt: proved ? new Date().toISOString() : "" })}
              />
            </section>
          )}
          {evap && <CapOffs run={run} />}
          {error && <ErrorNote>{error}</ErrorNote>}
        </div>
      )}
      <Conclusion
        verdict={verdict && <VerdictPanel check={run.kind} verdict={verdict} title="Verdict of this run" />}
        actions={
          running ? (
            <>
              <Button look="primary" onClick={() => setMarking(true)}>
                I see smoke: mark it
              </Button>
              <Button onClick={() => set({ noSmokeOutside: true, seen: [], endedAt: Date.now() })}>
                Looked everywhere: none outside
              </Button>
              <Button onClick={() => set({ endedAt: Date.now() })}>End the run</Button>
              {evap && draft.vent === "command" && <Button onClick={rearm}>Vent commanded again</Button>}
            </>
          ) : (
            <>
              <Button look="primary" onClick={() => void finish()}>
                Record the run
              </Button>
              <Button onClick={() => set({ endedAt: null, noSmokeOutside: false })}>Go on with the run</Button>
            </>
          )
        }
      />
      <Dialog
        open={marking}
        onOpenChange={setMarking}
        title="Where do you see smoke?"
        description="Joints this fill puts to the test. A zone on the air map can be tapped as well."
      >
        <div className="flex flex-wrap gap-2">
          {markable.map((j) => (
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

/** Whether the proof was taken before the hose went on. */
const provedEarlier = ({ proved, provedAt, startedAt }: SmokeDraft) =>
  proved && (provedAt === "" || Date.parse(provedAt) < (startedAt ?? 0));

/** What the ball is doing, and once it has settled, the size of all openings together. */
function SettlingWords({ reading }: { reading: SmokeReading }) {
  const { number, format } = usePreferences();
  const { flow, hole } = reading;
  if (!flow) return null;
  if (!flow.settled) {
    return (
      <p role="status" className="text-lg font-bold text-amber">
        Still filling, about {number(flow.timeLeft, 0)} s left
      </p>
    );
  }
  const size = (m: number) => format(fromSi(m, "mm"), 1);
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
