"use client";

import { format as formatDate } from "date-fns";
import { toSi } from "@/core/units";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { useJob } from "../../use-job";
import { useBegin } from "./use-begin";
import type { SmokeHandle } from "./use-smoke-run";

/** Onwards from the set-up: to the machine's proof, or straight to the run where one of this session serves. */
export function ToProof({ run, ready }: { run: SmokeHandle; ready: boolean }) {
  const { context } = useJob();
  const { draft, set, machine } = run;
  const { earlier, beginAsProved, error } = useBegin(run);
  // A machine that must be turned down is shown turned down first.
  const ceiling = run.circuit === "evap" ? context?.limits.evapCeiling : undefined;
  const serves = ceiling !== undefined && toSi(machine.ratedPressure) > ceiling.value ? undefined : earlier;
  const toProof = () => set({ phase: "proof", heaterOn: draft.heaterOn ?? Date.now() });
  return (
    <div className="flex flex-col gap-2">
      {error && <ErrorNote>{error}</ErrorNote>}
      <div className="flex flex-wrap gap-3">
        {serves && (
          <Button
            look="primary"
            disabled={!ready}
            onClick={() => {
              set({ heaterOn: draft.heaterOn ?? Date.now() });
              void beginAsProved(serves);
            }}
          >
            Hose on: proved at {formatDate(new Date(serves.at), "HH:mm")}
          </Button>
        )}
        <Button look={serves ? "plain" : "primary"} disabled={!ready} onClick={toProof}>
          {serves ? "Prove the machine again" : "Heater on, to the machine proof"}
        </Button>
      </div>
    </div>
  );
}
