"use client";

import { CircleAlert, CircleCheck, Hourglass } from "lucide-react";
import { useMemo } from "react";
import { monitorOf } from "@/core/faults";
import { type EnablingCondition, MONITOR_RESULTS, monitorForm, readinessFacts, readinessForm } from "@/core/journal";
import { Button } from "@/ui/button";
import { Clock } from "@/ui/clock";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { Note } from "@/ui/note";
import { FormFields } from "../../form/form-field";
import { AnswerOfCar } from "../practice/read-on-car";
import { shortTime } from "../short-time";
import { useEntryForm } from "../use-entry-form";
import { useJob } from "../use-job";
import { dayWords } from "./day-words";
import { ObdImport } from "./obd-import";

const MARKS: Record<EnablingCondition["state"], { icon: typeof CircleCheck; colour: string }> = {
  met: { icon: CircleCheck, colour: "text-calm" },
  waits: { icon: Hourglass, colour: "text-amber" },
  wrong: { icon: CircleAlert, colour: "text-ember" },
};

const VAPOUR = {};

/** Another monitor of the car, which answers the codes it sets once it has run and passed since they were cleared. */
export function OwnMonitor() {
  const { state } = useJob();
  const of = state.proof.codes.flatMap((c) => (c.quiet ? [] : (monitorOf(c.code) ?? []))).find((id) => id !== "evap");
  const known = useMemo(() => (of ? { of } : {}), [of]);
  const said = useEntryForm(monitorForm, "own-monitor", known);
  if (!of) return null;
  return (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center underline decoration-edge underline-offset-4">
        The car's own monitor has run since
      </summary>
      <Form className="flex max-w-3xl flex-col gap-3" onSubmit={() => void said.submit((body) => [{ kind: "monitor", body }])}>
        <p className="text-muted">Passed within its own limits since the codes were cleared, it answers its codes on any road.</p>
        <FormFields of={said} names={["of", "result", "readBy"]} />
        {said.error && <ErrorNote>{said.error}</ErrorNote>}
        <div>
          <Button type="submit" disabled={said.busy}>
            Record the monitor
          </Button>
        </div>
      </Form>
    </details>
  );
}

/** The car's own EVAP monitor: what it needs to run, from when it can, and what it said. */
export function MonitorProof() {
  const { state } = useJob();
  const { checks, drives, readiness, monitor } = state;
  const parked = useMemo(() => readinessFacts({ checks, drives }, () => new Date().toISOString()), [checks, drives]);
  const plan = useEntryForm(readinessForm, "readiness", parked);
  const said = useEntryForm(monitorForm, "monitor", VAPOUR);
  // What the job waits for goes in with what it follows from: one that came later would have changed what was decided meanwhile.
  const park = () =>
    plan.submit((body) => [
      { kind: "readiness", body },
      { kind: "waiting", body: { on: "cold-soak", note: "EVAP monitor" } },
    ]);
  const record = () =>
    said.submit((body) => [
      { kind: "monitor", body },
      { kind: "waiting", body: { on: "me" } },
    ]);
  return (
    <section aria-label="The car's own EVAP monitor" className="flex flex-col gap-4">
      <h3 className="text-lg font-bold">The car's own EVAP monitor</h3>
      {monitor && (
        <p suppressHydrationWarning>
          {MONITOR_RESULTS[monitor.result]}, {shortTime(monitor.at)}, {monitor.readBy}
          {monitor.afterRepair === "after" ? "" : " (before the last repair: does not count)"}
        </p>
      )}
      {readiness && (
        <Note tone="live" className="flex flex-col gap-2">
          <p className="text-lg font-bold" suppressHydrationWarning>
            {readiness.readyFrom === undefined
              ? "Cannot run yet: correct this first"
              : readiness.conditions.every((c) => c.state === "met")
                ? `Ready to run now ${readiness.aslong}`
                : `Ready to run from ${dayWords(readiness.readyFrom)} ${readiness.aslong}`}
          </p>
          <ul className="flex flex-col gap-1">
            {readiness.conditions.map((c) => {
              const { icon: Icon, colour } = MARKS[c.state];
              return (
                <li key={c.id} className="flex items-start gap-2">
                  <Icon aria-hidden size={20} className={`mt-0.5 shrink-0 ${colour}`} />
                  <span>
                    <span className={colour}>{c.state === "met" ? "Met" : c.state === "waits" ? "Waits" : "Not met"}:</span>{" "}
                    {c.says}
                  </span>
                </li>
              );
            })}
          </ul>
          {readiness.readyFrom !== undefined && !readiness.conditions.every((c) => c.state === "met") && (
            <p>
              Soak left: <Clock end={readiness.readyFrom} done="soaked" />
            </p>
          )}
          <p className="text-muted">
            Then: cold start, let it idle, drive steadily as the maker's monitor asks, and read the monitor before the key goes
            off.
          </p>
        </Note>
      )}
      <Form className="grid max-w-3xl items-start gap-4 sm:grid-cols-3" onSubmit={() => void park()}>
        <div className="empty:hidden sm:col-span-3">
          <AnswerOfCar of="readiness" form={plan} label="Park the car" />
        </div>
        <FormFields of={plan} names={["fuelLevel", "outside", "parkedAt"]} />
        {plan.error && (
          <div className="sm:col-span-3">
            <ErrorNote>{plan.error}</ErrorNote>
          </div>
        )}
        <div className="sm:col-span-3">
          <Button type="submit" disabled={plan.busy}>
            {readiness ? "Parked anew: plan again" : "Parked: plan the monitor"}
          </Button>
        </div>
      </Form>
      <ObdImport title="Monitor from an OBD hex log" />
      <Form className="flex max-w-3xl flex-col gap-3" onSubmit={() => void record()}>
        <AnswerOfCar of="monitor" form={said} label="Read the monitor on the car" />
        <FormFields of={said} names={["result", "readBy"]} />
        {said.error && <ErrorNote>{said.error}</ErrorNote>}
        <div>
          <Button type="submit" disabled={said.busy}>
            Record the monitor
          </Button>
        </div>
      </Form>
    </section>
  );
}
