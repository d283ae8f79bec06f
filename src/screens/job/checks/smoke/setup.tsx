"use client";

import { inSentence } from "@/core/sentence";
import { Button } from "@/ui/button";
import { Chips } from "@/ui/choice";
import { ErrorNote, SelectField, TextField } from "@/ui/field";
import { Note } from "@/ui/note";
import { Said } from "@/ui/said";
import { usePreferences } from "../../../session/preferences";
import { Cautions } from "../../cautions";
import { useJob } from "../../use-job";
import { PlanWarnings } from "../check-frame";
import { Sections } from "./sections";
import type { SmokeHandle } from "./use-smoke-run";
import { WayIn } from "./way-in";

/** Where smoke goes in, what is sealed and held open, and what that fill reaches. */
export function SmokeSetup({ run }: { run: SmokeHandle }) {
  const { state, layout, context } = useJob();
  const { number } = usePreferences();
  const { draft, set, machine, machines, reach } = run;
  if (!layout || !context || !reach) return null;
  const plan = run.plan();
  if (!plan) return null;
  const shut = reach.zones.length === 0;
  const sealable = layout.joints.filter((j) => j.kind === "opening" || j.kind === "valve" || j.kind === "pipe");
  const holdable = layout.joints.filter((j) => j.rest === "closed" && (j.kind === "throttle" || j.kind === "valve"));
  const zoneName = (id: string) => layout.zones.find((z) => z.id === id)?.name ?? id;
  return (
    <div className="flex flex-col gap-5">
      <div className="grid gap-4 sm:grid-cols-2">
        {machines.length > 0 && (
          <SelectField
            label="Smoke machine"
            options={machines.map((m) => [m.id, m.name] as const)}
            value={machine.id}
            onChange={(e) => set({ machineId: e.target.value })}
          />
        )}
        <WayIn circuit="intake" setup={draft} onChange={set} />
      </div>
      <Chips
        label="Sealed by plug, bladder, cone or clamp"
        options={sealable.map((j) => [j.id, j.name] as const)}
        value={draft.blocked}
        onChange={(blocked) => set({ blocked })}
      />
      <Chips
        label="Held open for the whole run"
        options={holdable.map((j) => [j.id, j.name] as const)}
        value={draft.heldOpen}
        onChange={(heldOpen) => set({ heldOpen })}
      />
      {reach.behindEngine.length > 0 && (
        <TextField
          label="Where the crank stands, if you set it"
          placeholder="e.g. cylinder 1 at top dead centre"
          className="max-w-md"
          value={draft.crank}
          onChange={(e) => set({ crank: e.target.value })}
          hint="Runs of sections are held against each other only at one crank position"
        />
      )}
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
      <Said
        label="Gauge and ball, machine off the car"
        yes="Stand at zero"
        no="Do not"
        value={draft.zeroed}
        onChange={(zeroed) => set({ zeroed })}
        required
      />
      {plan.refused && <ErrorNote>{plan.refused}.</ErrorNote>}
      {!state.conditions && (
        <ErrorNote>Set the conditions first (top right): a size needs ambient pressure and temperature.</ErrorNote>
      )}
      {draft.zeroed === undefined && <p className="text-muted">Still needed: whether gauge and ball stand at zero.</p>}
      <div>
        <Button
          look="primary"
          disabled={!state.conditions || Boolean(plan.refused) || draft.zeroed === undefined}
          onClick={() => set({ phase: "proof", heaterOn: draft.heaterOn ?? Date.now() })}
        >
          Heater on, to the machine proof
        </Button>
      </div>
    </div>
  );
}
