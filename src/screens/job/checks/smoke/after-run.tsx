"use client";

import { provedEarlier } from "@/core/checks/smoke";
import { EVAP_ZONES } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { Chips, Tick } from "@/ui/choice";
import { useJob } from "../../use-job";
import { CapOffs } from "./cap-offs";
import { ProofFields, proofSaid } from "./proof";
import type { SmokeHandle } from "./use-smoke-run";

/** Once a run has ended: who looked where, what spoiled it, and the machine's proof where it is still owed. */
export function AfterRun({ run }: { run: SmokeHandle }) {
  const { draft, set } = run;
  return (
    <div className="flex flex-col gap-3">
      <Tick
        label="Looked along every joint: no smoke outside"
        checked={draft.noSmokeOutside}
        onChange={(noSmokeOutside) => set({ noSmokeOutside, ...(noSmokeOutside ? { seen: [] } : {}) })}
      />
      <Spoiled run={run} />
      {!provedEarlier(draft) && (
        <section aria-label="Machine proof after the run" className="flex max-w-2xl flex-col gap-3 border-l-4 border-amber pl-4">
          <h3 className="text-lg font-bold">Prove the machine now</h3>
          <p className="text-muted">Without a proof the run proves nothing; taken right after it, a proof counts.</p>
          <ProofFields run={run} />
          <Tick
            label="That is what the machine shows now"
            checked={draft.proved}
            disabled={!proofSaid(draft, run.machine)}
            onChange={(proved) => set({ proved, provedAt: proved ? new Date().toISOString() : "" })}
          />
        </section>
      )}
      {run.circuit === "evap" && <CapOffs run={run} />}
    </div>
  );
}

/** Reported exceptions that spoil a run: untouched, nothing was. */
function spoiledSoFar({ adapterLeaks, draughtOrGlare, cameUndone, touchedBefore }: SmokeHandle["draft"]): string {
  if (adapterLeaks || draughtOrGlare || cameUndone.length > 0 || touchedBefore.length > 0) return "Reported";
  return adapterLeaks === false ? "None of these" : "Not reported";
}

/** Causes that make a run worth nothing, asked once it is over. */
function Spoiled({ run: { draft, set, circuit, reach } }: { run: SmokeHandle }) {
  const { layout } = useJob();
  if (!layout || !reach) return null;
  const ids = [...draft.blocked, ...draft.heldOpen];
  const touchable =
    circuit === "evap" ? layout.joints.filter((j) => j.kind === "seal" && EVAP_ZONES.includes(j.from)) : reach.tested;
  return (
    <details className="border-y border-line">
      <summary className="flex min-h-11 cursor-pointer items-center gap-2">
        Did anything spoil the run? <span className="text-muted">{spoiledSoFar(draft)}</span>
      </summary>
      <div className="flex flex-col gap-3 pb-3">
        <div>
          <Button onClick={() => set({ adapterLeaks: false, draughtOrGlare: false, cameUndone: [], touchedBefore: [] })}>
            None of these
          </Button>
        </div>
        <div className="grid gap-x-6 sm:grid-cols-2">
          <Tick
            label="The adapter leaked at its own seal"
            checked={draft.adapterLeaks === true}
            onChange={(adapterLeaks) => set({ adapterLeaks })}
          />
          <Tick
            label="Draught or bright daylight"
            checked={draft.draughtOrGlare === true}
            onChange={(draughtOrGlare) => set({ draughtOrGlare })}
          />
        </div>
        {ids.length > 0 && (
          <Chips
            label="Came undone, dropped out or wept during the run"
            options={ids.map((id) => [id, layout.joints.find((j) => j.id === id)?.name ?? id] as const)}
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
  );
}
