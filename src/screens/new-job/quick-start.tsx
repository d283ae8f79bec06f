"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { CHECKS, type CheckId } from "@/core/checks";
import { firstEntries, quickStartForm } from "@/core/journal";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields } from "../form/form-field";
import { useTypedForm } from "../form/use-typed-form";
import { PageHead } from "../session/page-head";
import { usePerson } from "../session/person";
import { useDraft } from "../session/storage";
import { newIds, openJob } from "./open-job";
import { STRAIGHT, type StraightId } from "./straight";

const isStraight = (id: string): id is StraightId => STRAIGHT.some((s) => s === id);
/** Known of a car that nobody described: nothing */
const NOTHING = undefined;

/** From the board straight to an instrument: the facts that it needs, the rest can follow. */
export function QuickStartForm({ check }: { check: string }) {
  const router = useRouter();
  const { person, ask } = usePerson();
  const [kind, setKind] = useState<StraightId>(isStraight(check) ? check : "smoke");
  const form = useTypedForm(quickStartForm, "pelota.draft.quick-start", NOTHING);
  const [ids, setIds, clearIds] = useDraft("pelota.draft.quick-start.ids", { jobId: "", openingId: "" });
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);
  const open = async () => {
    const { record } = form.now();
    if (!record) return form.complain();
    if (!person) return ask();
    setBusy(true);
    setError(undefined);
    const own = ids.jobId ? ids : newIds();
    setIds(own);
    try {
      const bench = await openJob(own, firstEntries(record), person);
      form.clear();
      clearIds();
      router.push(`${bench}${bench.includes("?") ? "&" : "?"}check=${kind}`);
    } catch (e) {
      setError((e as Error).message);
      setBusy(false);
    }
  };
  return (
    <div className="mx-auto flex max-w-4xl flex-col gap-6 p-4 sm:p-6">
      <PageHead title="Straight to an instrument" />
      <main>
        <Form className="flex flex-col gap-6" onSubmit={() => void open()}>
          <Choice
            label="Instrument"
            options={STRAIGHT.map((id) => [id, CHECKS[id].name] as const)}
            value={kind}
            onChange={setKind}
          />
          <div className="grid items-start gap-4 sm:grid-cols-2">
            <FormFields of={form} names={["displacement", "fuel", "codes", "complaint"]} />
          </div>
          <FormFields of={form} names={["symptoms"]} />
          <p className="text-muted">
            Registration, the whole story and the rest of the car can follow: the bench says what is still owed.
          </p>
          {error && <ErrorNote>{error}</ErrorNote>}
          <div>
            <Button type="submit" look="primary" disabled={busy}>
              Open the {CHECKS[kind satisfies CheckId].name.toLowerCase().replace("evap", "EVAP")}
            </Button>
          </div>
        </Form>
      </main>
    </div>
  );
}
