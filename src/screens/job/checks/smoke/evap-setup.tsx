"use client";

import { inSentence } from "@/core/sentence";
import { parseBare } from "@/core/units";
import { EVAP_ZONES } from "@/core/vehicle";
import { ErrorNote } from "@/ui/field";
import { Note } from "@/ui/note";
import { FormFields } from "../../../form/form-field";
import { Cautions } from "../../cautions";
import { SetConditions } from "../../conditions";
import { useJob } from "../../use-job";
import { PlanWarnings } from "../check-frame";
import { MustBeCaught } from "../must-be-caught";
import { ToProof } from "./to-proof";
import type { SmokeHandle } from "./use-smoke-run";
import { useSmokeSetup } from "./use-smoke-setup";

/** Where smoke goes into the vapour system, at what price, how the vent is shut, and what that fill cannot reach. */
export function EvapSetup({ run }: { run: SmokeHandle }) {
  const { state, layout } = useJob();
  const { draft, reach } = run;
  const { of, change } = useSmokeSetup(run);
  const plan = run.plan();
  if (!layout || !reach || !plan) return null;
  const zoneName = (id: string) => layout.zones.find((z) => z.id === id)?.name ?? id;
  const blind = reach.stopped.filter((s) => EVAP_ZONES.includes(s.zone) && s.zone !== "vent-hose");
  const shut = reach.zones.length === 0;
  const level = parseBare(draft.fuelLevel);
  const missing =
    level === undefined || level < 0 || level > 100
      ? "Type the fuel level: the gas space, and whether smoke may go in at all, depend on it."
      : draft.zeroed === undefined
        ? "Still needed: whether gauge and ball stand at zero."
        : undefined;
  return (
    <div className="flex max-w-4xl flex-col gap-5">
      {draft.entry !== "filler-cap" && (
        <p className="border-l-4 border-amber px-4 py-1 text-lg font-bold text-amber">
          Do not touch the cap until the first run has been read.
        </p>
      )}
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={of} names={["machineId", "entry", "into"]} onChange={change} />
      </div>
      <MustBeCaught />
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={of} names={["vent", "fuelLevel"]} onChange={change} />
      </div>
      <FormFields of={of} names={["pinched"]} onChange={change} />
      <FormFields of={of} names={["hotTank"]} onChange={change} />
      <Note aria-label="What this fill reaches" tone="edge" as="section">
        {shut ? (
          <p className="text-lg font-bold text-amber">Fills nothing.</p>
        ) : (
          <p>
            Reaches{" "}
            <strong>
              {reach.zones
                .filter((z) => EVAP_ZONES.includes(z))
                .map(zoneName)
                .join(", ")}
            </strong>
            .
          </p>
        )}
        {!shut && blind.length > 0 && (
          <p className="text-lg font-bold text-amber">
            Cannot reach the{" "}
            {blind.map((s) => `${inSentence(zoneName(s.zone))} (stopped by the ${inSentence(s.by.name)})`).join(", ")}: another
            entry must.
          </p>
        )}
        {reach.openEnds.length > 0 && (
          <p className="text-amber">Would escape at {reach.openEnds.map((j) => j.name).join(", ")}: seal it.</p>
        )}
      </Note>
      <PlanWarnings plan={plan} kind={run.kind} />
      <Cautions ids={plan.cautions} />
      {!shut && (
        <ol className="flex list-decimal flex-col gap-1 pl-6">
          {plan.steps.map((s) => (
            <li key={s.text}>{s.text}</li>
          ))}
        </ol>
      )}
      <FormFields of={of} names={["zeroed"]} onChange={change} />
      {plan.refused && <ErrorNote>{plan.refused}.</ErrorNote>}
      {!state.conditions && <SetConditions why="A size needs ambient pressure and temperature." />}
      {missing && <p className="text-muted">{missing}</p>}
      <ToProof run={run} ready={Boolean(state.conditions) && !missing && !plan.refused} />
    </div>
  );
}
