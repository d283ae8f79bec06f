"use client";

import { Download, FileText, Printer } from "lucide-react";
import { useMemo, useState } from "react";
import { decidedOf, handoverForm, handoverOf, type JobState, OUTCOMES, outcomeForm, type StationId } from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { Button, buttonClass, LinkButton } from "@/ui/button";
import { ErrorNote, TextField } from "@/ui/field";
import { Form } from "@/ui/form";
import { Note } from "@/ui/note";
import { FormFields } from "../../form/form-field";
import { usePerson } from "../../session/person";
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
      <section aria-label="Documents" className="flex flex-wrap gap-3 border-t border-line pt-4">
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
  const { mayNot } = usePerson();
  const proved = state.blocks.close.length === 0;
  const held = state.blocks.handOver;
  const onRoad = decided.onRoad === true;
  const forbidden = proved || onRoad || state.practice ? undefined : mayNot("hand-over-conditionally");
  return (
    <Form className="flex max-w-2xl flex-col gap-4" onSubmit={() => void form.submit((body) => [{ kind: "handover", body }])}>
      {held.length > 0 ? (
        <ErrorNote>The car cannot leave: {held.map((b) => b.reason).join("; ")}.</ErrorNote>
      ) : proved ? (
        <Note tone="calm" as="p" className="text-lg">
          {state.repairs.some((r) => !r.undone)
            ? "The repair is proved. This is a full handover."
            : `${handoverOf(state).proved} This is a full handover.`}
        </Note>
      ) : (
        <Note tone={onRoad ? "live" : "amber"}>
          <p className={`text-lg font-bold ${onRoad ? "" : "text-amber"}`}>
            {onRoad ? "Handed over with an open condition" : "Conditional handover"}
          </p>
          <p>
            {onRoad
              ? "What a shop can measure is proved. Driving shows the rest: the page names it, a call is due, and a drive recorded with the codes read again closes the job."
              : "The proof is not complete, and the page will say so:"}
          </p>
          <ul className="list-disc pl-5">
            {state.blocks.close.map((b) => (
              <li key={b.reason}>{b.reason}</li>
            ))}
          </ul>
          <Button className="mt-2" onClick={() => go("prove")}>
            Complete the proof
          </Button>
        </Note>
      )}
      <FormFields of={form} names={["summary", "watch", "comeBack", "call"]} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      {forbidden && <p className="text-amber">{forbidden}. What is typed here stays on this device.</p>}
      <div>
        <Button type="submit" look="primary" disabled={form.busy || held.length > 0 || forbidden !== undefined}>
          {proved ? "Hand over" : onRoad ? "Hand over with the open condition" : "Hand over conditionally"}
        </Button>
      </div>
    </Form>
  );
}

/** A closing that an apprentice asks for: a lead countersigns it or sends it back, everybody else reads how it stands. */
function Closing({ closing: { entry, by, sentBack } }: { closing: NonNullable<JobState["closing"]> }) {
  const { state, append } = useJob();
  const { mayNot } = usePerson();
  const [reason, setReason] = useState("");
  const [refused, setRefused] = useState<string>();
  if (sentBack)
    return (
      <Note tone="amber" as="p">
        {sentBack.by} did not countersign what {by} asked to close: {sentBack.reason}
      </Note>
    );
  const forbidden = mayNot("countersign");
  const say = async (more: { readonly sentBack?: string }) =>
    setRefused(await append({ kind: "countersigned", body: { close: entry, decidedOn: state.lastSeq, ...more } }));
  return (
    <Note aria-label="Countersign" tone="amber" as="section" className="flex flex-col gap-3">
      <p className="text-lg">
        <strong>{by}</strong> asks to close this job.
      </p>
      {state.blocks.close.length > 0 && (
        <ErrorNote>It cannot be closed any more: {state.blocks.close.map((b) => b.reason).join("; ")}.</ErrorNote>
      )}
      {forbidden ? (
        <p>A lead looks through it and countersigns.</p>
      ) : (
        <>
          <div>
            <Button look="primary" disabled={state.blocks.close.length > 0} onClick={() => void say({})}>
              Countersign and close
            </Button>
          </div>
          <Form className="flex flex-wrap items-end gap-3" onSubmit={() => void say({ sentBack: reason })}>
            <div className="grow">
              <TextField label="Or what is still to be done" value={reason} onChange={(e) => setReason(e.target.value)} />
            </div>
            <Button type="submit" disabled={!reason.trim()}>
              Send it back
            </Button>
          </Form>
        </>
      )}
      {refused && <ErrorNote>{refused}</ErrorNote>}
    </Note>
  );
}

function AfterHandover() {
  const { state, append } = useJob();
  const form = useEntryForm(outcomeForm, "outcome", undefined);
  const [refused, setRefused] = useState<string>();
  const { mayNot } = usePerson();
  const asksOnly = !state.practice && mayNot("close") !== undefined;
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
      {state.status === "elsewhere" && (
        <p className="text-muted">Closed in another shop. Whoever works on it here proves it again, and closes it here.</p>
      )}
      {state.closing && <Closing closing={state.closing} />}
      {state.status === "handed-over" && state.blocks.close.length === 0 && (!state.closing || state.closing.sentBack) && (
        <div>
          <Button
            look="primary"
            onClick={async () => setRefused(await append({ kind: "close", body: { decidedOn: state.lastSeq } }))}
          >
            {asksOnly ? "Ask a lead to close it" : "Close the job"}
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
      <Form className="flex flex-col gap-4" onSubmit={() => void form.submit((body) => [{ kind: "outcome", body }])}>
        <FormFields of={form} names={["result", "note"]} />
        {form.error && <ErrorNote>{form.error}</ErrorNote>}
        <div>
          <Button type="submit" disabled={form.busy}>
            Record the outcome
          </Button>
        </div>
      </Form>
    </div>
  );
}
