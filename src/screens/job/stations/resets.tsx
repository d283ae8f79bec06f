"use client";

import { Lock } from "lucide-react";
import { useMemo } from "react";
import { type ResetState, resetForm } from "@/core/journal";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { Note } from "@/ui/note";
import { FormFields } from "../../form/form-field";
import { shortTime } from "../short-time";
import { useEntryForm } from "../use-entry-form";
import { useJob } from "../use-job";

/** ECU resets of a part: locked, with its reason, until its readings bear it. */
export function Resets() {
  const { state } = useJob();
  if (state.proof.resets.length === 0) return null;
  return (
    <section aria-label="ECU resets" className="flex flex-col gap-3">
      <h3 className="text-lg font-bold">Learned values</h3>
      {state.proof.resets.map((reset) => (
        <Reset key={reset.check} reset={reset} />
      ))}
    </section>
  );
}

function Reset({ reset: { check, name, locked, told, stays } }: { reset: ResetState }) {
  const known = useMemo(() => ({ check, ...(stays ? { stays } : {}) }), [check, stays]);
  const form = useEntryForm(resetForm, `reset-${check}`, known);
  return (
    <Form className="flex max-w-3xl flex-col gap-3" onSubmit={() => void form.submit((body) => [{ kind: "reset", body }])}>
      {told && (
        <p>
          {name}, {shortTime(told.at)}: {told.learned}
        </p>
      )}
      {locked ? (
        <Note tone="amber" as="p" className="flex items-start gap-2">
          <Lock aria-hidden size={20} className="mt-0.5 shrink-0 text-amber" />
          <span>
            <strong>Locked:</strong> {name.replace(/^The/, "the")}. Not yet: {locked}.
          </span>
        </Note>
      ) : (
        <>
          <FormFields of={form} names={["zeroed", "learned"]} />
          {form.error && <ErrorNote>{form.error}</ErrorNote>}
          <div>
            <Button type="submit" disabled={form.busy}>
              {told ? "Reset again" : name}
            </Button>
          </div>
        </>
      )}
    </Form>
  );
}
