"use client";

import { isVapourCode } from "@/core/faults";
import { parseTrusted } from "@/core/units";
import { Button } from "@/ui/button";
import { Tick } from "@/ui/choice";
import { ErrorNote, TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { AppendButton } from "../append-button";
import { shortTime } from "../short-time";
import { useForm } from "../use-form";
import { useJob } from "../use-job";
import { MonitorProof } from "./monitor";

/** Codes that were chased: cleared, driven, read again. Cleared alone says nothing. */
export function CodesProof({ toScan }: { toScan: () => void }) {
  const { state } = useJob();
  const { codes } = state.proof;
  return (
    <section aria-label="Codes" className="flex flex-col gap-3">
      <h3 className="text-lg font-bold">Codes</h3>
      <p className="text-muted">
        {state.codesClearedAt
          ? `Cleared ${shortTime(state.codesClearedAt)}. A light that is off right after clearing says nothing: drive it, then read every module again.`
          : "Not cleared yet. Clear once the repair is done, drive it, then read again."}
      </p>
      {codes.length > 0 && (
        <ul className="flex flex-wrap gap-x-6 gap-y-1">
          {codes.map((c) => (
            <li key={c.code}>
              <span className="font-mono font-bold">{c.code}</span>{" "}
              <span className={c.quiet ? "text-calm" : "text-amber"}>{c.quiet ? c.says : "owed"}</span>
              {c.permanent && <span className="text-muted"> · permanent until the car has seen it pass</span>}
            </li>
          ))}
        </ul>
      )}
      <div>
        <AppendButton entries={[{ kind: "codes-cleared", body: {} }]}>Codes cleared now</AppendButton>
      </div>
      <DriveForm />
      <div className="flex flex-wrap gap-3">
        <AppendButton entries={[{ kind: "codes", body: { codes: state.codes.filter((c) => c.asideReason !== undefined) } }]}>
          Every module read again: no code is back
        </AppendButton>
        <Button onClick={toScan}>A code is back</Button>
      </div>
      {state.codes.some((c) => isVapourCode(c.code) && !c.asideReason) || state.proof.monitor ? <MonitorProof /> : null}
    </section>
  );
}

function DriveForm() {
  const { state } = useJob();
  const form = useForm("drive", { minutes: "", distance: "", conditions: "", coldStart: false, keyCycle: false });
  const { draft, set } = form;
  const record = () => {
    const minutes = Number(draft.minutes.replace(",", "."));
    if (draft.minutes.trim() === "" || !Number.isFinite(minutes))
      return form.setError("Say how many minutes it was driven, like 25");
    const distance = draft.distance.trim() ? parseTrusted(draft.distance, "odometer", "km") : undefined;
    if (draft.distance.trim() && !distance) return form.setError("The distance is a number with its unit, like 18 km");
    const to = new Date();
    void form.record({
      kind: "drive",
      at: { from: new Date(to.getTime() - minutes * 60_000).toISOString(), to: to.toISOString() },
      body: {
        minutes,
        ...(distance ? { distance } : {}),
        ...(draft.conditions.trim() ? { conditions: draft.conditions.trim() } : {}),
        ...(draft.coldStart ? { coldStart: true } : {}),
        ...(draft.keyCycle ? { keyCycle: true } : {}),
      },
    });
  };
  return (
    <form
      aria-label="Drive"
      className="grid max-w-3xl items-end gap-3 sm:grid-cols-2"
      onSubmit={(e) => {
        e.preventDefault();
        record();
      }}
    >
      {state.drives.length > 0 && (
        <ul className="text-muted sm:col-span-2">
          {state.drives.map((d) => (
            <li key={d.at}>
              Driven {d.minutes} min, {shortTime(d.at)}
              {d.coldStart ? ", from cold" : ""}
              {d.conditions ? `: ${d.conditions}` : ""}
            </li>
          ))}
        </ul>
      )}
      <TextField
        label="Driven, minutes"
        inputMode="numeric"
        value={draft.minutes}
        onChange={(e) => set({ minutes: e.target.value })}
      />
      <QuantityField
        label="Distance"
        field="odometer"
        example="18"
        unit="km"
        units={["km", "mi"]}
        value={draft.distance}
        onChange={(distance) => set({ distance })}
      />
      <div className="sm:col-span-2">
        <TextField
          label="Conditions"
          value={draft.conditions}
          onChange={(e) => set({ conditions: e.target.value })}
          placeholder="town, then the hill to the light"
        />
      </div>
      <Tick label="From a cold start" checked={draft.coldStart} onChange={(coldStart) => set({ coldStart })} />
      <Tick label="Ignition off and on before it" checked={draft.keyCycle} onChange={(keyCycle) => set({ keyCycle })} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div>
        <Button type="submit" disabled={form.busy}>
          Record the drive
        </Button>
      </div>
    </form>
  );
}
