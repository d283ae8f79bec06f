"use client";

import { useMemo, useState } from "react";
import { CHECKS } from "@/core/checks";
import { type SetAsideFacts, setAsideFacts, setAsideForm } from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { Note } from "@/ui/note";
import { FormFields } from "../../form/form-field";
import { AppendButton } from "../append-button";
import { shortTime } from "../short-time";
import { useEntryForm } from "../use-entry-form";
import { useJob } from "../use-job";

/** Something that is left as it is: why, at what risk, and what the customer decided. It stands on the handover page. */
export function SetAside() {
  const { state } = useJob();
  const [open, setOpen] = useState(false);
  const known = useMemo(() => setAsideFacts(state, shortTime), [state]);
  return (
    <section aria-label="Left as is" className="flex flex-col gap-2">
      <h3 className="text-lg font-bold">Left as is</h3>
      {state.setAside.length > 0 && (
        <DividedList>
          {state.setAside.map((s) => (
            <li key={s.entry} className="py-2">
              <span className="font-bold">{s.of === "code" ? s.id : `A ${s.of}`}</span>: {s.reason}. Risk: {s.risk}. Customer:{" "}
              {s.decision}. Again on {s.date}.
            </li>
          ))}
        </DividedList>
      )}
      <div>
        <Button disabled={known.left.length === 0} onClick={() => setOpen(true)}>
          Set something aside
        </Button>
      </div>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Set aside"
        description="What is left does not count as proved: it goes on the handover page with its reason and its risk."
      >
        {open && <SetAsideForm known={known} done={() => setOpen(false)} />}
      </Dialog>
    </section>
  );
}

/** What a customer declines stands on the page with its risk: one key beside the finding. */
export function Decline({ finding }: { finding: string }) {
  const { state } = useJob();
  const [open, setOpen] = useState(false);
  const known = useMemo(() => ({ ...setAsideFacts(state, shortTime), chosen: `finding ${finding}` }), [state, finding]);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Customer declines it</Button>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="The customer declines it"
        description="It goes on the handover page with its risk, and is looked at again on that day."
      >
        {open && <SetAsideForm known={known} done={() => setOpen(false)} />}
      </Dialog>
    </>
  );
}

/** Three months: the usual time until something that was left is looked at again, ms. */
const USUALLY = 91 * 24 * 3600_000;

function SetAsideForm({ known: given, done }: { known: SetAsideFacts; done: () => void }) {
  const known = useMemo(() => ({ ...given, again: new Date(Date.now() + USUALLY).toISOString().slice(0, 10) }), [given]);
  const form = useEntryForm(setAsideForm, "set-aside", known);
  const record = async () => {
    if (await form.submit((body) => [{ kind: "set-aside", body }])) done();
  };
  return (
    <Form className="flex flex-col gap-3" onSubmit={() => void record()}>
      <FormFields of={form} names={["id", "reason", "risk", "decision", "date"]} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div>
        <Button type="submit" look="primary" disabled={form.busy}>
          Set it aside
        </Button>
      </div>
    </Form>
  );
}

/** Failing readings of which nobody can tell whether they came before the repair: only the technician knows. */
export function OrderTold() {
  const { state } = useJob();
  const repair = state.repairs.findLast((r) => !r.undone);
  const late = [...new Set(state.proof.owed.flatMap((o) => (o.unordered ? [o.unordered] : [])))];
  if (!repair || late.length === 0) return null;
  return (
    <Note aria-label="Before or after the repair" tone="amber" as="section" className="flex flex-col gap-2">
      <p className="text-lg font-bold text-amber">Before the repair, or after it?</p>
      {late.map((id) => {
        const check = state.checks.find((c) => c.entry === id);
        if (!check) return null;
        const when = shortTime(typeof check.at === "string" ? check.at : check.at.from);
        return (
          <div key={id} className="flex flex-wrap items-center gap-3">
            <p className="mr-auto">
              {check.by}, {when}: {inSentence(CHECKS[check.check].name)}, “{check.verdict.headline}”
            </p>
            <AppendButton entries={[{ kind: "order", body: { entry: id, before: repair.entry } }]}>
              It was taken before “{repair.body.what}”
            </AppendButton>
          </div>
        );
      })}
      <p className="text-muted">If it was after, the fault still stands: do the check again.</p>
    </Note>
  );
}
