"use client";

import { inSentence } from "@/core/sentence";
import { ErrorNote } from "@/ui/field";
import { Note } from "@/ui/note";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { Cautions } from "../../cautions";
import { SetConditions } from "../../conditions";
import { useJob } from "../../use-job";
import { PlanWarnings } from "../check-frame";
import { Sections } from "./sections";
import { ToProof } from "./to-proof";
import type { SmokeHandle } from "./use-smoke-run";
import { useSmokeSetup } from "./use-smoke-setup";

/** Where smoke goes in, what is sealed and held open, and what that fill reaches. */
export function SmokeSetup({ run }: { run: SmokeHandle }) {
  const { state, layout, context } = useJob();
  const { number } = usePreferences();
  const { draft, set, reach } = run;
  const { of, change } = useSmokeSetup(run);
  if (!layout || !context || !reach) return null;
  const plan = run.plan();
  if (!plan) return null;
  const shut = reach.zones.length === 0;
  const zoneName = (id: string) => layout.zones.find((z) => z.id === id)?.name ?? id;
  return (
    <div className="flex flex-col gap-5">
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={of} names={["machineId", "entry", "into"]} onChange={change} />
      </div>
      <FormFields of={of} names={["blocked", "heldOpen"]} onChange={change} />
      <div className="max-w-md">
        <FormFields of={of} names={["crank"]} onChange={change} />
      </div>
      <Note aria-label="What this fill reaches" tone="edge" as="section">
        {shut ? (
          <p className="text-lg font-bold text-amber">Fills nothing.</p>
        ) : (
          <p>
            Reaches{" "}
            <strong>
              {reach.zones
                .filter((z) => !reach.behindEngine.includes(z))
                .map(zoneName)
                .join(", ")}
            </strong>
            : {number(reach.intakeVolume * 1000, 0)} L, {reach.tested.length} joints put to the test.
          </p>
        )}
        {reach.openEnds.length > 0 && (
          <p className="text-amber">Would escape at {reach.openEnds.map((j) => j.name).join(", ")}: seal it.</p>
        )}
        {reach.behindEngine.length > 0 && (
          <p className="text-muted">
            Through open engine valves also {reach.behindEngine.map(zoneName).join(", ")}: some flow is normal.
          </p>
        )}
        {!shut && reach.stopped.length > 0 && (
          <p className="text-muted">
            Not reached:{" "}
            {[...new Set(reach.stopped.map((s) => s.by))]
              .map(
                (by) =>
                  `${reach.stopped
                    .filter((s) => s.by === by)
                    .map((s) => zoneName(s.zone))
                    .join(", ")} (stopped by ${inSentence(by.name)})`,
              )
              .join("; ")}
            .
          </p>
        )}
      </Note>
      <Sections setup={{ ...run.fill, crank: draft.crank }} onSetUp={set} />
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
      {draft.zeroed === undefined && <p className="text-muted">Still needed: whether gauge and ball stand at zero.</p>}
      <ToProof run={run} ready={Boolean(state.conditions) && !plan.refused && draft.zeroed !== undefined} />
    </div>
  );
}
