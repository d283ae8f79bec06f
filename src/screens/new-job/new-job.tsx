"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { Button } from "@/ui/button";
import { ErrorNote, TextArea } from "@/ui/field";
import { EMPTY_VEHICLE, VehicleForm, vehicleOf } from "../job/vehicle-form";
import { PageHead } from "../session/page-head";
import { usePerson } from "../session/person";
import { useDraft } from "../session/storage";
import { newIds, openJob } from "./open-job";

const EMPTY = { jobId: "", openingId: "", complaint: "", vehicle: EMPTY_VEHICLE };

/** Opens a job: the vehicle's facts and the complaint, then on to the bench. */
export function NewJob() {
  const router = useRouter();
  const { person, ask } = usePerson();
  const [draft, setDraft, clear] = useDraft("pelota.draft.new-job", EMPTY);
  const [error, setError] = useState<{ error: string; path: string }>();
  const [busy, setBusy] = useState(false);

  const open = async () => {
    if (!person) return ask();
    const vehicle = vehicleOf(draft.vehicle, person);
    if ("error" in vehicle) return setError(vehicle);
    if (!draft.complaint.trim()) return setError({ error: "Write down what the customer complains of", path: "complaint" });
    setError(undefined);
    setBusy(true);
    const ids = draft.jobId ? draft : { ...draft, ...newIds() };
    setDraft(ids);
    try {
      const story = { complaint: draft.complaint.trim(), symptoms: [], verified: "not-tried" as const };
      const first = [
        { kind: "vehicle" as const, body: vehicle.facts },
        { kind: "story" as const, body: story },
      ];
      await openJob(ids, first, person);
      clear();
      router.push(`/jobs/${ids.jobId}`);
    } catch (e) {
      setError({ error: (e as Error).message, path: "" });
      setBusy(false);
    }
  };

  return (
    <div className="mx-auto flex max-w-4xl flex-col gap-6 p-4 sm:p-6">
      <PageHead title="New job" />
      <main>
        <form
          className="flex flex-col gap-6"
          onSubmit={(e) => {
            e.preventDefault();
            void open();
          }}
        >
          <TextArea
            label="Complaint, in the customer's words"
            value={draft.complaint}
            onChange={(e) => setDraft({ ...draft, complaint: e.target.value })}
            error={error?.path === "complaint" ? error.error : undefined}
          />
          <VehicleForm draft={draft.vehicle} onChange={(vehicle) => setDraft({ ...draft, vehicle })} error={error} />
          {error && <ErrorNote>{error.error}</ErrorNote>}
          <div className="flex gap-3">
            <Button type="submit" look="primary" disabled={busy}>
              Open the job
            </Button>
          </div>
        </form>
      </main>
    </div>
  );
}
