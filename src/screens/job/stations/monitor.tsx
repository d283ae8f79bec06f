"use client";

import { CircleAlert, CircleCheck, Hourglass } from "lucide-react";
import { type EnablingCondition, MONITOR_RESULTS, type MonitorResult } from "@/core/journal";
import { parseBare, parseTrusted } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { Clock } from "@/ui/clock";
import { ErrorNote, TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { shortTime } from "../short-time";
import { useForm } from "../use-form";
import { useJob } from "../use-job";
import { dayWords } from "./day-words";
import { ObdImport } from "./obd-import";

const MARKS: Record<EnablingCondition["state"], { icon: typeof CircleCheck; colour: string }> = {
  met: { icon: CircleCheck, colour: "text-calm" },
  waits: { icon: Hourglass, colour: "text-amber" },
  wrong: { icon: CircleAlert, colour: "text-ember" },
};

/** The car's own EVAP monitor: what it needs to run, from when it can, and what it said. */
export function MonitorProof() {
  const { state, append } = useJob();
  const plan = useForm("readiness", { fuelLevel: "", outside: "", parkedAt: "" });
  const said = useForm("monitor", { result: undefined as MonitorResult | undefined, readBy: "" });
  const { readiness, monitor } = state;
  const record = async () => {
    const fuelLevel = parseBare(plan.draft.fuelLevel);
    const outside = parseTrusted(plan.draft.outside, "airTemperature", "°C");
    const parked = plan.draft.parkedAt === "" ? new Date() : new Date(plan.draft.parkedAt);
    if (fuelLevel === undefined) return plan.setError("Type the fuel level in percent of the tank");
    if (!outside) return plan.setError("Type the air temperature expected at the start");
    if (!Number.isFinite(parked.getTime())) return plan.setError("Say when the engine was switched off");
    const done = await plan.record({ kind: "readiness", body: { fuelLevel, outside, parkedAt: parked.toISOString() } });
    if (done) await append({ kind: "waiting", body: { on: "cold-soak", note: "EVAP monitor" } });
  };
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
        <div className="flex flex-col gap-2 border-l-4 border-live bg-raised px-4 py-3">
          <p className="text-lg font-bold" suppressHydrationWarning>
            {readiness.readyFrom === undefined
              ? "Cannot run yet: put right what is wrong first"
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
        </div>
      )}
      <form
        className="grid max-w-3xl items-start gap-4 sm:grid-cols-3"
        onSubmit={(e) => {
          e.preventDefault();
          void record();
        }}
      >
        <TextField
          label="Fuel level, %"
          inputMode="decimal"
          value={plan.draft.fuelLevel}
          onChange={(e) => plan.set({ fuelLevel: e.target.value })}
        />
        <QuantityField
          label="Air expected at the start"
          field="airTemperature"
          example="12"
          unit="°C"
          units={["°C", "°F"]}
          value={plan.draft.outside}
          onChange={(outside) => plan.set({ outside })}
        />
        <TextField
          label="Engine switched off at"
          type="datetime-local"
          value={plan.draft.parkedAt}
          onChange={(e) => plan.set({ parkedAt: e.target.value })}
          hint="Left empty: now"
        />
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
      </form>
      <ObdImport title="Monitor from an OBD hex log" onCodes={() => {}} />
      <form
        className="flex max-w-3xl flex-col gap-3"
        onSubmit={async (e) => {
          e.preventDefault();
          if (!said.draft.result) return said.setError("Say what the monitor did");
          const done = await said.record({ kind: "monitor", body: { result: said.draft.result, readBy: said.draft.readBy } });
          if (done) await append({ kind: "waiting", body: { on: "me" } });
        }}
      >
        <Choice
          label="What the monitor said"
          options={Object.entries(MONITOR_RESULTS) as [MonitorResult, string][]}
          value={said.draft.result}
          onChange={(result) => said.set({ result })}
        />
        <TextField
          label="How it was read"
          value={said.draft.readBy}
          onChange={(e) => said.set({ readBy: e.target.value })}
          placeholder="readiness complete, no pending code, after 14 km"
        />
        {said.error && <ErrorNote>{said.error}</ErrorNote>}
        <div>
          <Button type="submit" disabled={said.busy}>
            Record the monitor
          </Button>
        </div>
      </form>
    </section>
  );
}
