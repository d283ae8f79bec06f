"use client";

import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { storyForm, type VehicleFormFacts, vehicleForm } from "@/core/journal";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields } from "../form/form-field";
import { useTypedForm } from "../form/use-typed-form";
import { VehicleFields } from "../job/vehicle-fields";
import { PageHead } from "../session/page-head";
import { usePerson } from "../session/person";
import { useDraft } from "../session/storage";
import { EarlierVisits } from "./earlier-visits";
import { newIds, openJob } from "./open-job";

const NO_STORY = { story: undefined };

/** Opens a job: the vehicle's facts and the complaint, then on to the bench. */
export function NewJob() {
  const router = useRouter();
  const { person, ask } = usePerson();
  const story = useTypedForm(storyForm, "pelota.draft.new-job.story", NO_STORY);
  const known = useMemo<VehicleFormFacts>(() => ({ vehicle: undefined, by: person ?? "this shop" }), [person]);
  const vehicle = useTypedForm(vehicleForm, "pelota.draft.new-job.vehicle", known);
  const [ids, setIds, clearIds] = useDraft("pelota.draft.new-job.ids", { jobId: "", openingId: "" });
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);

  const open = async () => {
    const [told, described] = [story.now().record, vehicle.now().record];
    if (!told || !described) {
      // The first field that something is wrong with has the focus: the complaint stands above the car.
      if (!described) await vehicle.complain();
      if (!told) await story.complain();
      return;
    }
    if (!person) return ask();
    setError(undefined);
    setBusy(true);
    const own = ids.jobId ? ids : newIds();
    setIds(own);
    try {
      const first = [
        { kind: "vehicle" as const, body: described },
        { kind: "story" as const, body: told },
      ];
      const bench = await openJob(own, first, person);
      story.clear();
      vehicle.clear();
      clearIds();
      router.push(bench);
    } catch (e) {
      setError((e as Error).message);
      setBusy(false);
    }
  };

  return (
    <div className="mx-auto flex max-w-4xl flex-col gap-6 p-4 sm:p-6">
      <PageHead title="New job" />
      <main>
        <Form className="flex flex-col gap-6" onSubmit={() => void open()}>
          <EarlierVisits registration={String(vehicle.value("registration") ?? "")} />
          <FormFields of={story} names={["complaint"]} />
          <VehicleFields of={vehicle} />
          {error && <ErrorNote>{error}</ErrorNote>}
          <div className="flex gap-3">
            <Button type="submit" look="primary" disabled={busy}>
              Open the job
            </Button>
          </div>
        </Form>
      </main>
    </div>
  );
}
