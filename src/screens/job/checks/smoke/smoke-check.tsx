"use client";

import { type ReactNode, useEffect, useMemo } from "react";
import { sighted } from "@/core/checks/smoke";
import { smokeArrivalTime } from "@/core/gas/vessel";
import { toSi } from "@/core/units";
import { type Circuit, hoseEnds, markable, usualSetup } from "@/core/vehicle";
import { ConfirmButton } from "@/ui/confirm-button";
import { useOverlay } from "../../overlay";
import { useJob } from "../../use-job";
import { VerdictList } from "../../verdict";
import { EvapSetup } from "./evap-setup";
import { SmokeProof } from "./proof";
import { SmokeRunPanel } from "./run";
import { RunOnCar } from "./run-on-car";
import { SmokeSetup } from "./setup";
import { useSmokeRun } from "./use-smoke-run";

const PHASES = [
  ["setup", "Set up"],
  ["proof", "Machine proof"],
  ["run", "Read"],
] as const;

/** The smoke run as an instrument: set up, prove the machine, read, conclude. The air map shows what the fill reaches. */
export function SmokeCheck({ head }: { head: ReactNode }) {
  return <SmokeInstrument head={head} circuit="intake" />;
}

/** The same instrument on the vapour system: its own entries, the vent, and a ceiling for its pressure. */
export function EvapSmokeCheck({ head }: { head: ReactNode }) {
  return <SmokeInstrument head={head} circuit="evap" />;
}

function SmokeInstrument({ head, circuit }: { head: ReactNode; circuit: Circuit }) {
  const run = useSmokeRun(circuit);
  const { draft, set, update, clear, machine, reach } = run;
  const { layout } = useJob();
  const { setOverlay } = useOverlay();
  const arrival = reach ? smokeArrivalTime(reach.intakeVolume, toSi(machine.maxFlow)) : 0;
  const swept = circuit === "evap" ? "Smoke has swept the system" : "Smoke has swept the intake";

  const { phase, entry, into, blocked, heldOpen, seen, heaterOn, startedAt, endedAt, ventAt } = draft;
  const { context } = useJob();
  const { fill } = run;
  const seeable = useMemo(() => {
    if (!layout) return [];
    const { tested, rest } = markable(layout, fill, circuit);
    return [...tested, ...rest];
  }, [layout, fill, circuit]);
  const commanded = circuit === "evap" && draft.vent === "command" && ventAt !== null && context;
  const ventLetsGo = commanded ? (ventAt as number) + context.limits.outputTime.value * 1000 : undefined;

  useEffect(() => {
    const usual = (at: string) => (layout ? usualSetup(layout, at) : { entry: at });
    const toggle = (list: readonly string[], id: string) => (list.includes(id) ? list.filter((x) => x !== id) : [...list, id]);
    setOverlay({
      setup: { entry, into, blocked, heldOpen },
      seen: seen.map((s) => s.joint),
      clocks:
        endedAt !== null
          ? []
          : [
              ...(heaterOn === null
                ? []
                : [{ name: "Smoke machine stops", end: heaterOn + machine.autoOff * 1000, done: "stopped", before: 20 }]),
              ...(ventLetsGo === undefined
                ? []
                : [{ name: "Vent command times out", end: ventLetsGo, done: "let go", before: 10 }]),
              ...(startedAt === null ? [] : [{ name: swept, end: startedAt + arrival * 1000, done: "swept" }]),
            ],
      actions: (joint) => [
        ...(phase === "setup" && layout && hoseEnds(layout, circuit).includes(joint)
          ? [{ label: "Smoke in here", run: () => set({ into: undefined, ...usual(joint.id) }) }]
          : []),
        ...(phase === "setup" && joint.kind !== "seal"
          ? [
              {
                label: blocked.includes(joint.id) ? "Unblock" : "Block here",
                run: () => set({ blocked: toggle(blocked, joint.id) }),
              },
            ]
          : []),
        ...(phase === "run" && seeable.includes(joint)
          ? [
              {
                label: "Smoke seen here",
                run: () => update((d) => sighted(d, joint.id, Date.now())),
              },
            ]
          : []),
      ],
    });
  }, [
    phase,
    entry,
    into,
    blocked,
    heldOpen,
    seen,
    heaterOn,
    startedAt,
    endedAt,
    ventLetsGo,
    layout,
    machine,
    arrival,
    circuit,
    swept,
    set,
    update,
    seeable,
    setOverlay,
  ]);
  useEffect(() => () => setOverlay({}), [setOverlay]);

  return (
    <div className="flex flex-col gap-5">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3">
        {head}
        <ol className="flex flex-wrap gap-4" aria-label="Steps">
          {PHASES.map(([phase, name], i) => (
            <li
              key={phase}
              aria-current={draft.phase === phase ? "step" : undefined}
              className={`flex items-center gap-2 border-b-2 px-1 py-1.5 ${draft.phase === phase ? "border-live font-bold text-live" : "border-line text-muted"}`}
            >
              <span aria-hidden>{i + 1}</span> {name}
            </li>
          ))}
        </ol>
        {draft.phase !== "setup" && (
          <ConfirmButton
            look="bare"
            ask="Discard this run?"
            why="Its readings and marks are not recorded yet, and would be gone."
            sure="Discard it"
            onSure={clear}
          >
            Discard this run
          </ConfirmButton>
        )}
      </div>
      {draft.phase === "setup" && <RunOnCar run={run} />}
      {draft.phase === "setup" && (circuit === "evap" ? <EvapSetup run={run} /> : <SmokeSetup run={run} />)}
      {draft.phase === "proof" && <SmokeProof run={run} />}
      {draft.phase === "run" && <SmokeRunPanel run={run} />}
      <VerdictList kind={run.kind} />
    </div>
  );
}
