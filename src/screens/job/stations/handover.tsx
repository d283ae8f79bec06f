"use client";

import { Download, FileText, Printer } from "lucide-react";
import { useMemo, useState } from "react";
import { decidedOf, handoverForm, OUTCOMES, outcomeForm, type StationId } from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { Button, buttonClass, LinkButton } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { FormFields } from "../../form/form-field";
import { Debrief } from "../practice/debrief";
import { useBay } from "../practice/use-bay";
import { StationFrame } from "../station-frame";
import { useEntryForm } from "../use-entry-form";
import { useJob } from "../use-job";

/** One page for the customer; full when proved, conditional when its proof is still owed; later outcomes come here too. */
export function HandoverStation({ go }: { go: (station: StationId) => void }) {
  const { id, state } = useJob();
  const done = state.status !== "open";
  const bay = useBay();
  return (
    <StationFrame
      title="Hand over"
      lead="One page: complaint, measured before and after, found, done, what is left or temporary, when to come back."
    >
      <Debrief />
      {done ? <AfterHandover /> : !bay?.over && <HandoverForm go={go} />}
      <section aria-label="Papers" className="flex flex-wrap gap-3 border-t border-line pt-4">
        <LinkButton href={`/jobs/${id}/handover`}>
          <Printer aria-hidden size={18} /> Handover page
        </LinkButton>
        <a className={buttonClass()} href={`/api/v1/jobs/${id}/handover`} download>
          <FileText aria-hidden size={18} /> As PDF
        </a>
        <a className={buttonClass()} href={`/api/v1/jobs/${id}/export`} download>
          <Download aria-hidden size={18} /> Job file
        </a>
        <a className={buttonClass()} href={`/api/v1/jobs/${id}/readings`} download>
          <Download aria-hidden size={18} /> Readings, CSV
        </a>
      </section>
    </StationFrame>
  );
}

function HandoverForm({ go }: { go: (station: StationId) => void }) {
  const { state } = useJob();
  const decided = useMemo(() => decidedOf(state), [state]);
  const form = useEntryForm(handoverForm, "handover", decided);
  const proved = state.blocks.close.length === 0;
  const held = state.blocks.handOver;
  return (
    <form
      noValidate
      className="flex max-w-2xl flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void form.submit((body) => [{ kind: "handover", body }]);
      }}
    >
      {held.length > 0 ? (
        <ErrorNote>The car cannot leave: {held.map((b) => b.reason).join("; ")}.</ErrorNote>
      ) : proved ? (
        <p className="border-l-4 border-calm bg-calm-soft px-4 py-3 text-lg">The repair is proved. This is a full handover.</p>
      ) : (
        <div className="border-l-4 border-amber bg-amber-soft px-4 py-3">
          <p className="text-lg font-bold text-amber">Conditional handover</p>
          <p>The proof is not complete, and the page will say so:</p>
          <ul className="list-disc pl-5">
            {state.blocks.close.map((b) => (
              <li key={b.reason}>{b.reason}</li>
            ))}
          </ul>
          <Button className="mt-2" onClick={() => go("prove")}>
            Complete the proof
          </Button>
        </div>
      )}
      <FormFields of={form} names={["summary", "watch", "comeBack"]} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div>
        <Button type="submit" look="primary" disabled={form.busy || held.length > 0}>
          {proved ? "Hand over" : "Hand over conditionally"}
        </Button>
      </div>
    </form>
  );
}

function AfterHandover() {
  const { state, append } = useJob();
  const form = useEntryForm(outcomeForm, "outcome", undefined);
  const [refused, setRefused] = useState<string>();
  return (
    <div className="flex max-w-2xl flex-col gap-4">
      {state.handover && (
        <p className="text-lg">
          Handed over {state.handover.conditional ? "conditionally " : ""}by {state.handover.by}: {state.handover.summary}
        </p>
      )}
      {state.status === "review" && (
        <ErrorNote>
          Closed, but its gates no longer hold: {state.blocks.close.map((b) => b.reason).join("; ")}. Look again.
        </ErrorNote>
      )}
      {state.status === "closed" && <p className="text-calm">Closed.</p>}
      {state.status === "handed-over" && state.blocks.close.length === 0 && (
        <div>
          <Button
            look="primary"
            onClick={async () => setRefused(await append({ kind: "close", body: { decidedOn: state.lastSeq } }))}
          >
            Close the job
          </Button>
        </div>
      )}
      {state.outcomes.map((o) => (
        <p key={o.at}>
          Later: {inSentence(OUTCOMES[o.result])}
          {o.note ? `, ${o.note}` : ""}
        </p>
      ))}
      {refused && <ErrorNote>{refused}</ErrorNote>}
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          void form.submit((body) => [{ kind: "outcome", body }]);
        }}
      >
        <FormFields of={form} names={["result", "note"]} />
        {form.error && <ErrorNote>{form.error}</ErrorNote>}
        <div>
          <Button type="submit" disabled={form.busy}>
            Record the outcome
          </Button>
        </div>
      </form>
    </div>
  );
}
