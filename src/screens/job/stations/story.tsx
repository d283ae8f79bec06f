"use client";

import { useState } from "react";
import { SYMPTOMS, type SymptomId } from "@/core/faults";
import { Button } from "@/ui/button";
import { Chips, Choice } from "@/ui/choice";
import { ErrorNote, TextArea, TextField } from "@/ui/field";
import { sendJson } from "../../session/api";
import { usePerson } from "../../session/person";
import { useDraft } from "../../session/storage";
import { StationFrame } from "../station-frame";
import { useForm } from "../use-form";
import { useJob } from "../use-job";
import { draftOfVehicle, EMPTY_VEHICLE, VehicleForm, vehicleOf } from "../vehicle-form";

export interface Customer {
  readonly name: string;
  readonly contact: string;
}

/** Interview, verified complaint, the vehicle's facts, and who the customer is. */
export function StoryStation({ customer }: { customer: Customer | undefined }) {
  return (
    <StationFrame title="Story" lead="What, since when, when it happens. Try the complaint yourself before any tool.">
      <Interview />
      <Vehicle />
      <CustomerForm initial={customer} />
    </StationFrame>
  );
}

function Interview() {
  const { state } = useJob();
  const s = state.story;
  const recorded = {
    complaint: s?.complaint ?? "",
    since: s?.since ?? "",
    when: s?.when ?? "",
    replacedBefore: s?.replacedBefore ?? "",
    earlierVisits: s?.earlierVisits ?? "",
    fuelUse: s?.fuelUse ?? "",
    symptoms: [...(s?.symptoms ?? [])] as SymptomId[],
    verified: s?.verified ?? ("not-tried" as const),
  };
  const form = useForm("story", recorded);
  const { draft, set } = form;
  const changed = JSON.stringify(draft) !== JSON.stringify(recorded);
  return (
    <form
      className="grid gap-4 sm:grid-cols-2"
      onSubmit={(e) => {
        e.preventDefault();
        void form.record({
          kind: "story",
          body: {
            complaint: draft.complaint,
            symptoms: draft.symptoms,
            verified: draft.verified,
            ...(draft.since ? { since: draft.since } : {}),
            ...(draft.when ? { when: draft.when } : {}),
            ...(draft.replacedBefore ? { replacedBefore: draft.replacedBefore } : {}),
            ...(draft.earlierVisits ? { earlierVisits: draft.earlierVisits } : {}),
            ...(draft.fuelUse ? { fuelUse: draft.fuelUse } : {}),
          },
        });
      }}
    >
      <div className="sm:col-span-2">
        <TextArea label="Complaint" value={draft.complaint} onChange={(e) => set({ complaint: e.target.value })} />
      </div>
      <TextField label="Since when" value={draft.since} onChange={(e) => set({ since: e.target.value })} />
      <TextField
        label="When it happens (cold, idle, hills, after some km)"
        value={draft.when}
        onChange={(e) => set({ when: e.target.value })}
      />
      <div className="sm:col-span-2">
        <Chips label="What is noticed" options={SYMPTOMS} value={draft.symptoms} onChange={(symptoms) => set({ symptoms })} />
      </div>
      <TextField
        label="What others replaced already"
        value={draft.replacedBefore}
        onChange={(e) => set({ replacedBefore: e.target.value })}
      />
      <TextField
        label="Earlier visits for the same fault"
        value={draft.earlierVisits}
        onChange={(e) => set({ earlierVisits: e.target.value })}
        placeholder="twice at another shop, last in March"
      />
      <TextField
        label="Fuel use since"
        value={draft.fuelUse}
        onChange={(e) => set({ fuelUse: e.target.value })}
        placeholder="a litre more per 100 km"
      />
      <Choice
        label="Complaint verified"
        options={[
          ["seen", "Seen ourselves"],
          ["not-seen", "Tried, not seen"],
          ["not-tried", "Not tried yet"],
        ]}
        value={draft.verified}
        onChange={(verified) => set({ verified })}
      />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div className="sm:col-span-2">
        <Button type="submit" look={changed ? "primary" : "plain"} disabled={form.busy || !changed}>
          Record the story
        </Button>
        {s && !changed && <span className="ml-3 text-muted">Recorded.</span>}
      </div>
    </form>
  );
}

function Vehicle() {
  const { state } = useJob();
  const { person } = usePerson();
  const form = useForm("vehicle", { vehicle: state.vehicle ? draftOfVehicle(state.vehicle) : EMPTY_VEHICLE });
  const [wrong, setWrong] = useState<{ error: string; path: string }>();
  const record = () => {
    const vehicle = vehicleOf(form.draft.vehicle, person ?? "this shop");
    if ("error" in vehicle) return setWrong(vehicle);
    setWrong(undefined);
    void form.record({ kind: "vehicle", body: vehicle.facts });
  };
  return (
    <details className="border-t border-line pt-3" open={!state.vehicle || state.vehicle.unknown !== undefined}>
      <summary className="flex min-h-11 cursor-pointer items-center text-lg font-bold">Vehicle facts</summary>
      <form
        className="flex flex-col gap-4 pt-2"
        onSubmit={(e) => {
          e.preventDefault();
          record();
        }}
      >
        <VehicleForm draft={form.draft.vehicle} onChange={(vehicle) => form.set({ vehicle })} error={wrong} />
        {(wrong || form.error) && <ErrorNote>{wrong?.error ?? form.error}</ErrorNote>}
        <div>
          <Button type="submit" disabled={form.busy}>
            Record the facts
          </Button>
        </div>
      </form>
    </details>
  );
}

/** Kept outside the journal, so that it can be erased. */
function CustomerForm({ initial }: { initial: Customer | undefined }) {
  const { id } = useJob();
  const [saved, setSaved] = useState<Customer>(initial ?? { name: "", contact: "" });
  const [draft, setDraft, clear] = useDraft(`pelota.draft.${id}.customer`, saved);
  const [said, setSaid] = useState("");
  const [error, setError] = useState("");
  const run = async (work: Promise<unknown>, next: Customer, done: string) => {
    setError("");
    setSaid("");
    try {
      await work;
      setSaved(next);
      clear();
      setSaid(done);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <details className="border-t border-line pt-3">
      <summary className="flex min-h-11 cursor-pointer items-center text-lg font-bold">Customer</summary>
      <form
        className="grid gap-4 pt-2 sm:grid-cols-2"
        onSubmit={(e) => {
          e.preventDefault();
          void run(sendJson("PUT", `jobs/${id}/customer`, draft), draft, "Saved, apart from the job's journal.");
        }}
      >
        <TextField label="Name" value={draft.name} onChange={(e) => setDraft({ ...draft, name: e.target.value })} />
        <TextField label="Contact" value={draft.contact} onChange={(e) => setDraft({ ...draft, contact: e.target.value })} />
        {error && <ErrorNote>{error}</ErrorNote>}
        <div className="flex flex-wrap items-center gap-3 sm:col-span-2">
          <Button type="submit">Save customer</Button>
          <Button
            look="ember"
            onClick={() =>
              void run(sendJson("DELETE", `jobs/${id}/customer`), { name: "", contact: "" }, "Erased. The journal never held it.")
            }
          >
            Erase
          </Button>
          <p role="status" className="text-muted">
            {said}
          </p>
        </div>
      </form>
    </details>
  );
}
