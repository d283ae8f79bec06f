"use client";

import { format as formatDate } from "date-fns";
import { type EvapSmokeDraft, regulatedTo } from "@/core/checks/evap-smoke";
import { proofRead } from "@/core/checks/smoke";
import { fromSi, toSi } from "@/core/units";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Note } from "@/ui/note";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";
import { useBegin } from "./use-begin";
import type { SmokeHandle } from "./use-smoke-run";
import { useSmokeSetup } from "./use-smoke-setup";

/** Hose clamped: pressure up to its rating, ball at the bottom; hose open: smoke. Without it a run proves nothing. */
export function SmokeProof({ run }: { run: SmokeHandle }) {
  const { context } = useJob();
  const { format } = usePreferences();
  const { draft, set, machine } = run;
  const { of, change } = useSmokeSetup(run);
  const ceiling = run.circuit === "evap" ? context?.limits.evapCeiling : undefined;
  const mustRegulate = ceiling !== undefined && toSi(machine.ratedPressure) > ceiling.value;
  const regulated = regulatedTo(draft, machine);
  // Nothing goes on a vapour system before its pressure is known to be one that it bears.
  const tooStrong = mustRegulate && (!regulated || toSi(regulated) > ceiling.value);
  const { begin, beginAsProved, earlier, error } = useBegin(run);
  return (
    <div className="flex max-w-2xl flex-col gap-4">
      <h3 className="text-xl font-bold">Machine proof</h3>
      {mustRegulate && (
        <Note tone="amber" className="flex flex-col gap-2">
          <p className="text-amber">
            {machine.name} puts out more than this system is rated for: regulate it to at most{" "}
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
      {earlier && !regulated && (
        <Note tone="edge" className="flex flex-wrap items-center gap-3">
          <p className="mr-auto">
            {machine.name} was proved at {formatDate(new Date(earlier.at), "HH:mm")}
            {earlier.proof.pressure && `: ${format({ ...earlier.proof.pressure, kind: "gauge" })}, hose clamped`}. One proof
            serves the session.
          </p>
          <Button disabled={tooStrong} onClick={() => void beginAsProved(earlier)}>
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
