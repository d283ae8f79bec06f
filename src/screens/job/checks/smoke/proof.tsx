"use client";

import { format as formatDate } from "date-fns";
import { useState } from "react";
import { type EvapSmokeDraft, regulatedTo } from "@/core/checks/evap-smoke";
import { simulatedDevice } from "@/core/checks/fields";
import { proofRead, type SmokeRun } from "@/core/checks/smoke";
import { type CheckState, SESSION } from "@/core/journal";
import { fromSi, toSi } from "@/core/units";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Note } from "@/ui/note";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { typedQuantity } from "../../fields";
import { useJob } from "../../use-job";
import type { SmokeHandle } from "./use-smoke-run";
import { useSmokeSetup } from "./use-smoke-setup";

/** Hose clamped: pressure up to its rating, ball at the bottom; hose open: smoke. Without it a run proves nothing. */
export function SmokeProof({ run }: { run: SmokeHandle }) {
  const { state, context, append } = useJob();
  const { format } = usePreferences();
  const { draft, set, machine } = run;
  const { of, change } = useSmokeSetup(run);
  const [error, setError] = useState<string>();
  const ceiling = run.circuit === "evap" ? context?.limits.evapCeiling : undefined;
  const mustRegulate = ceiling !== undefined && toSi(machine.ratedPressure) > ceiling.value;
  const regulated = regulatedTo(draft, machine);
  // Nothing goes on a vapour system before its pressure is known to be one that it bears.
  const tooStrong = mustRegulate && (!regulated || toSi(regulated) > ceiling.value);
  const earlier = sessionProof(state.checks, run);
  const begin = async (proof: Pick<EvapSmokeDraft, "proved" | "provedAt"> & Partial<EvapSmokeDraft>) => {
    const plan = run.plan();
    if (!plan) return;
    const open = state.offCar.filter((i) => i.open);
    const fresh = plan.displaces.filter((d) => !open.some((i) => i.what === d.what));
    if (fresh.length > 0) {
      const wrong = await append(
        ...fresh.map((d) => ({ kind: "displaced" as const, body: { what: d.what, ...(d.joint ? { joint: d.joint } : {}) } })),
      );
      setError(wrong);
      if (wrong) return;
    }
    set({
      phase: "run",
      ...proof,
      startedAt: Date.now(),
      ventAt: Date.now(),
      endedAt: null,
      samples: [],
      source: undefined,
      seen: [],
      arrivals: [],
      flow: run.maxFlow,
      pressure: 0,
    });
  };
  return (
    <div className="flex max-w-2xl flex-col gap-4">
      <h3 className="text-xl font-bold">Machine proof</h3>
      {mustRegulate && (
        <Note tone="amber" className="flex flex-col gap-2">
          <p className="text-amber">
            {machine.name} is stronger than this system bears: regulate it to at most{" "}
            {format(fromSi(ceiling.value, machine.ratedPressure.unit, "gauge"))} ({ceiling.source}) and show it here. The hose
            goes on no sooner.
          </p>
          <FormFields of={of} names={["regulated"]} onChange={change} />
          {regulated && tooStrong && (
            <ErrorNote>
              {format({ ...regulated, kind: "gauge" })} is above the ceiling: turn the regulator down and show it again.
            </ErrorNote>
          )}
        </Note>
      )}
      {earlier && (
        <Note tone="edge" className="flex flex-wrap items-center gap-3">
          <p className="mr-auto">
            {machine.name} was proved at {formatDate(new Date(earlier.at), "HH:mm")}
            {earlier.proof.pressure && `: ${format({ ...earlier.proof.pressure, kind: "gauge" })}, hose clamped`}. One proof
            serves the session.
          </p>
          <Button
            disabled={tooStrong}
            onClick={() =>
              void begin({
                proved: true,
                provedAt: earlier.at,
                proofPressure: typedQuantity(earlier.proof.pressure),
                ballAtBottom: earlier.proof.ballAtBottom,
                smokeSeen: earlier.proof.smokeSeen,
              })
            }
          >
            Hose on, with that proof
          </Button>
        </Note>
      )}
      <ProofFields run={run} />
      {error && <ErrorNote>{error}</ErrorNote>}
      <div className="flex flex-wrap gap-3">
        <Button
          look="primary"
          disabled={tooStrong || !proofSaid(draft, machine)}
          onClick={() => void begin({ proved: true, provedAt: "" })}
        >
          Hose on: start the run
        </Button>
        <Button disabled={tooStrong} onClick={() => void begin({ proved: false, provedAt: "" })}>
          Start now, prove it after the run
        </Button>
        <Button look="bare" onClick={() => set({ phase: "setup" })}>
          Back to the setup
        </Button>
      </div>
    </div>
  );
}

/** The newest proof of this machine among the job's runs of the last hours; nothing where it was proved for another circuit. */
function sessionProof(checks: readonly CheckState[], { kind, machine }: SmokeHandle) {
  const runs = checks.flatMap((c) => {
    // A stand-in's proof is none of the machine's.
    if (c.check !== kind || simulatedDevice(c.record) !== undefined) return [];
    const { machine: used, proof } = c.record as SmokeRun;
    if (used.name !== machine.name || !proof) return [];
    return [{ at: proof.takenAt ?? (typeof c.at === "string" ? c.at : c.at.from), proof }];
  });
  const newest = runs.toSorted((a, b) => (a.at < b.at ? 1 : -1))[0];
  return newest && Date.now() - Date.parse(newest.at) < SESSION ? newest : undefined;
}

/** Whether all that a proof shows was said: a plain machine's can only come by its smoke. */
export function proofSaid(draft: EvapSmokeDraft, machine: SmokeHandle["machine"]): boolean {
  if (machine.kind === "plain") return draft.smokeSeen === true;
  return proofRead(draft, machine) !== undefined && draft.ballAtBottom !== undefined && draft.smokeSeen !== undefined;
}

/** Readings of a proof: what the gauge read with the hose clamped, where the ball sat, whether smoke came. */
export function ProofFields({ run }: { run: SmokeHandle }) {
  const { format } = usePreferences();
  const { draft, machine } = run;
  const { of, change } = useSmokeSetup(run);
  // A machine that was turned down comes up to what it was turned down to, and no further.
  const regulated = run.circuit === "evap" && regulatedTo(draft, machine);
  const full = { ...(regulated || machine.ratedPressure), kind: "gauge" as const };
  return (
    <>
      {machine.kind === "plain" ? (
        <p>
          {machine.name} has neither ball nor gauge: it can find a leak, and it can clear nothing. Let it run with the hose open
          until smoke comes.
        </p>
      ) : (
        <p>
          Clamp the hose at its end. {machine.name} must come up to {format(full)} and the ball must sit at the bottom. Open the
          hose: smoke.
        </p>
      )}
      <FormFields of={of} names={["proofPressure", "ballAtBottom", "smokeSeen"]} onChange={change} />
    </>
  );
}
