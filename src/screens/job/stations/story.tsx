"use client";

import { useMemo, useState } from "react";
import { canonicalJson, storyForm, type VehicleFormFacts, vehicleForm } from "@/core/journal";
import { Button } from "@/ui/button";
import { ErrorNote, TextField } from "@/ui/field";
import { Form } from "@/ui/form";
import { Locked } from "@/ui/locked";
import { FormFields } from "../../form/form-field";
import { sendJson } from "../../session/api";
import { usePerson } from "../../session/person";
import { useDraft } from "../../session/storage";
import { StationFrame } from "../station-frame";
import { useEntryForm } from "../use-entry-form";
import { useJob } from "../use-job";
import { VehicleFields } from "../vehicle-fields";

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
  const { story } = state;
  const known = useMemo(() => ({ story }), [story]);
  const form = useEntryForm(storyForm, "story", known);
  const changed = !story || canonicalJson(form.filled.record ?? null) !== canonicalJson(story);
  return (
    <Form
      className="grid items-start gap-4 sm:grid-cols-2"
      onSubmit={() => void form.submit((body) => [{ kind: "story", body }])}
    >
      <div className="sm:col-span-2">
        <FormFields of={form} names={["complaint"]} />
      </div>
      <FormFields of={form} names={["since", "when"]} />
      <div className="sm:col-span-2">
        <FormFields of={form} names={["symptoms"]} />
      </div>
      <FormFields
        of={form}
        names={[
          "replacedBefore",
          "earlierVisits",
          "fuelUse",
          "verified",
          "purpose",
          "comeback.kind",
          "comeback.after",
          "comeback.came",
          "comeback.of",
        ]}
      />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div className="sm:col-span-2">
        <Button type="submit" look={changed ? "primary" : "plain"} disabled={form.busy || !changed}>
          Record the story
        </Button>
        {!changed && <span className="ml-3 text-muted">Recorded.</span>}
      </div>
    </Form>
  );
}

function Vehicle() {
  const { state } = useJob();
  const { person } = usePerson();
  const { vehicle } = state;
  const known = useMemo<VehicleFormFacts>(() => ({ vehicle, by: person ?? "this shop" }), [vehicle, person]);
  const form = useEntryForm(vehicleForm, "vehicle", known);
  return (
    <details className="border-t border-line pt-3" open={!vehicle || vehicle.unknown !== undefined}>
      <summary className="flex min-h-11 cursor-pointer items-center text-lg font-bold">Vehicle facts</summary>
      <Form className="flex flex-col gap-4 pt-2" onSubmit={() => void form.submit((body) => [{ kind: "vehicle", body }])}>
        <VehicleFields of={form} />
        {form.error && <ErrorNote>{form.error}</ErrorNote>}
        <div>
          <Button type="submit" disabled={form.busy}>
            Record the facts
          </Button>
        </div>
      </Form>
    </details>
  );
}

/** Kept outside the journal, so that it can be erased. */
function CustomerForm({ initial }: { initial: Customer | undefined }) {
  const { id } = useJob();
  const [saved, setSaved] = useState<Customer>(initial ?? { name: "", contact: "" });
  const [draft, setDraft, , { busy, send }] = useDraft(`pelota.draft.${id}.customer`, saved);
  const [said, setSaid] = useState("");
  const [error, setError] = useState("");
  const { mayNot } = usePerson();
  const run = async (work: () => Promise<unknown>, next: Customer, done: string) => {
    setError("");
    setSaid("");
    const sent = await send(async () => {
      try {
        await work();
        setSaved(next);
        return undefined;
      } catch (e) {
        return (e as Error).message;
      }
    });
    if (sent.done) setSaid(done);
    setError(sent.wrong ?? "");
  };
  return (
    <details className="border-t border-line pt-3">
      <summary className="flex min-h-11 cursor-pointer items-center text-lg font-bold">Customer</summary>
      <Form
        className="grid gap-4 pt-2 sm:grid-cols-2"
        onSubmit={() =>
          void run(() => sendJson("PUT", `jobs/${id}/customer`, draft), draft, "Saved, apart from the job's journal.")
        }
      >
        <Locked when={busy}>
          <TextField label="Name" value={draft.name} onChange={(e) => setDraft({ ...draft, name: e.target.value })} />
          <TextField label="Contact" value={draft.contact} onChange={(e) => setDraft({ ...draft, contact: e.target.value })} />
        </Locked>
        {error && <ErrorNote>{error}</ErrorNote>}
        <div className="flex flex-wrap items-center gap-3 sm:col-span-2">
          <Button type="submit">Save customer</Button>
          <Button
            look="ember"
            disabled={mayNot("erase-customer") !== undefined}
            onClick={() =>
              void run(
                () => sendJson("DELETE", `jobs/${id}/customer`),
                { name: "", contact: "" },
                "Erased. The journal never held it.",
              )
            }
          >
            Erase
          </Button>
          <p role="status" className="text-muted">
            {said || mayNot("erase-customer")}
          </p>
        </div>
      </Form>
    </details>
  );
}
