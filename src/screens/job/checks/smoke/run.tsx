"use client";

import { useState } from "react";
import { sampled } from "@/core/checks/smoke";
import { UNITS } from "@/core/units";
import { entryZone } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { Chips } from "@/ui/choice";
import { ErrorNote } from "@/ui/field";
import { Locked } from "@/ui/locked";
import { useKeys } from "../../../session/keys";
import { usePreferences } from "../../../session/preferences";
import { focusAfterwards } from "../../now";
import { useJob } from "../../use-job";
import { VerdictPanel } from "../../verdict";
import { Conclusion } from "../conclusion";
import { useRecordCheck } from "../use-record-check";
import { AfterRun } from "./after-run";
import { keepProof } from "./kept-proofs";
import { LiveMachine } from "./live-machine";
import { MarkSmoke } from "./mark-smoke";
import { RunReadings } from "./run-readings";
import type { SmokeHandle } from "./use-smoke-run";

/** The live run: ball and gauge follow the real ones, each move a timed sample; then what was seen, and the verdict. */
export function SmokeRunPanel({ run }: { run: SmokeHandle }) {
  const { draft, update, reach } = run;
  const { state, shop } = useJob();
  const record = useRecordCheck();
  const [error, setError] = useState<string>();
  const [marking, setMarking] = useState(false);
  const running = draft.startedAt !== null && draft.endedAt === null;
  const finish = async () => {
    const focus = focusAfterwards();
    const end = draft.endedAt ?? Date.now();
    const whole = run.recordAt(end);
    if (!whole) return;
    const span = { from: new Date(draft.startedAt ?? end).toISOString(), to: new Date(end).toISOString() };
    const sent = await run.send(() => record(run.kind, whole, span));
    if (sent.done || sent.wrong) setError(sent.wrong);
    if (!sent.done) return;
    if (!state.practice) keepProof({ check: run.kind, record: whole, at: span }, shop.limits);
    focus();
  };
  useKeys({
    mark: running ? () => update((d) => sampled(d, d.flow, d.pressure, Date.now())) : undefined,
    smoke: running ? () => setMarking(true) : undefined,
    record: draft.endedAt === null ? undefined : () => void finish(),
  });
  if (!reach || draft.startedAt === null) return null;
  const verdict = run.record && !running ? run.verdict(run.record) : undefined;

  return (
    <div className="flex flex-col gap-4">
      {run.circuit === "evap" && <VapourWarnings run={run} />}
      <Locked when={run.busy}>
        <RunReadings run={run} />
        <LiveMachine run={run} />
        {running ? <Arrivals run={run} /> : <AfterRun run={run} />}
      </Locked>
      {!running && error && <ErrorNote>{error}</ErrorNote>}
      <Conclusion
        verdict={verdict && <VerdictPanel check={run.kind} verdict={verdict} title="Verdict of this run" />}
        actions={
          running ? (
            <RunningKeys run={run} onMark={() => setMarking(true)} />
          ) : (
            <>
              <Button look="primary" onClick={() => void finish()}>
                Record the run
              </Button>
              <Button disabled={run.busy} onClick={() => run.set({ endedAt: null, noSmokeOutside: false })}>
                Go on with the run
              </Button>
            </>
          )
        }
      />
      <MarkSmoke run={run} open={marking} onOpenChange={setMarking} />
    </div>
  );
}

/** Verdict that can be said of a run while it goes. */
function RunningKeys({ run: { draft, set, circuit }, onMark }: { run: SmokeHandle; onMark: () => void }) {
  const { context } = useJob();
  // A command that had let go before it was given again left the vent open meanwhile.
  const rearm = () => {
    const holds = (context?.limits.outputTime.value ?? 0) * 1000;
    const lapsed = draft.ventAt !== null && Date.now() > draft.ventAt + holds;
    set({ ventAt: Date.now(), ...(lapsed ? { cameUndone: [...new Set([...draft.cameUndone, "vent-valve"])] } : {}) });
  };
  return (
    <>
      <Button look="primary" onClick={onMark}>
        I see smoke: mark it
      </Button>
      <Button onClick={() => set({ noSmokeOutside: true, seen: [], endedAt: Date.now() })}>
        Looked everywhere: none outside
      </Button>
      <Button onClick={() => set({ endedAt: Date.now() })}>End the run</Button>
      {circuit === "evap" && draft.vent === "command" && <Button onClick={rearm}>Vent commanded again</Button>}
    </>
  );
}

/** Warnings for a vapour system while its run goes: a touched cap, and more pressure than it bears. */
function VapourWarnings({ run: { draft, units } }: { run: SmokeHandle }) {
  const { context } = useJob();
  const { number } = usePreferences();
  const { scale } = UNITS[units.pressure];
  const ceiling = context?.limits.evapCeiling.value ?? 0;
  return (
    <>
      {draft.entry !== "filler-cap" && draft.endedAt === null && (
        <p className="border-l-4 border-amber px-4 py-1 text-lg font-bold text-amber">
          Do not touch the cap until this run is read.
        </p>
      )}
      {draft.pressure * scale > ceiling && (
        <p role="alert" className="border-4 border-ember bg-raised px-4 py-3 text-xl font-bold text-ember">
          Too much pressure: {number(draft.pressure, 2)} {units.pressure} gauge stands above the ceiling of{" "}
          {number(ceiling / scale, 2)} {units.pressure}. Take the hose off now, then regulate the machine down.
        </p>
      )}
    </>
  );
}

/** Far ends that smoke was shown to arrive at, and where it was seen to come out so far. */
function Arrivals({ run: { draft, set, reach } }: { run: SmokeHandle }) {
  const { layout } = useJob();
  if (!layout || !reach) return null;
  const far = reach.zones.filter((z) => z !== entryZone(layout, draft) && !reach.behindEngine.includes(z));
  return (
    <div className="flex flex-col gap-3">
      <Chips
        label="Smoke shown to arrive (far end opened until it came, then shut)"
        options={far.map((z) => [z, layout.zones.find((x) => x.id === z)?.name ?? z] as const)}
        value={draft.arrivals.map((a) => a.zone)}
        onChange={(zones) =>
          set({ arrivals: zones.map((zone) => draft.arrivals.find((a) => a.zone === zone) ?? { zone, at: Date.now() }) })
        }
      />
      {far.length - draft.arrivals.length > 1 && (
        <div>
          <Button
            onClick={() => {
              const at = Date.now();
              set({ arrivals: far.map((zone) => draft.arrivals.find((a) => a.zone === zone) ?? { zone, at }) });
            }}
          >
            Smoke at all of them
          </Button>
        </div>
      )}
      {draft.seen.length > 0 && (
        <p className="text-ember">
          Smoke at {draft.seen.map((s) => layout.joints.find((j) => j.id === s.joint)?.name ?? s.joint).join(", ")}. Lower the
          flow to narrow it in, then end the run.
        </p>
      )}
    </div>
  );
}
