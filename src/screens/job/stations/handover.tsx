"use client";

import { Download, FileText, Printer } from "lucide-react";
import type { StationId } from "@/core/journal";
import { Button, buttonClass, LinkButton } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { ErrorNote, TextArea, TextField } from "@/ui/field";
import { StationFrame } from "../station-frame";
import { useForm } from "../use-form";
import { useJob } from "../use-job";

/** One page for the customer; full when proved, conditional when its proof is still owed; later outcomes come here too. */
export function HandoverStation({ go }: { go: (station: StationId) => void }) {
  const { id, state } = useJob();
  const done = state.status !== "open";
  return (
    <StationFrame
      title="Hand over"
      lead="One page: complaint, measured before and after, found, done, what is left or temporary, when to come back."
    >
      {done ? <AfterHandover /> : <HandoverForm go={go} />}
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
  const form = useForm("handover", { summary: "", watch: "", comeBack: "" });
  const { draft, set } = form;
  const proved = state.blocks.close.length === 0;
  const held = state.blocks.handOver;
  const record = () =>
    form.record({
      kind: "handover",
      body: {
        decidedOn: state.lastSeq,
        conditional: !proved,
        summary: draft.summary,
        ...(draft.watch ? { watch: draft.watch } : {}),
        ...(draft.comeBack ? { comeBack: draft.comeBack } : {}),
      },
    });
  return (
    <form
      className="flex max-w-2xl flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void record();
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
      <TextArea label="What the customer should know" value={draft.summary} onChange={(e) => set({ summary: e.target.value })} />
      <TextField label="What to watch" value={draft.watch} onChange={(e) => set({ watch: e.target.value })} />
      <TextField label="When to come back" value={draft.comeBack} onChange={(e) => set({ comeBack: e.target.value })} />
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
  const form = useForm("outcome", { result: undefined as "held" | "came-back" | "not-seen-again" | undefined, note: "" });
  const { draft, set } = form;
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
            onClick={async () => form.setError(await append({ kind: "close", body: { decidedOn: state.lastSeq } }))}
          >
            Close the job
          </Button>
        </div>
      )}
      {state.outcomes.map((o) => (
        <p key={o.at}>
          Later: {o.result === "held" ? "held" : o.result === "came-back" ? "came back" : "never seen again"}
          {o.note ? `, ${o.note}` : ""}
        </p>
      ))}
      <Choice
        label="What happened weeks later"
        options={[
          ["held", "It held"],
          ["came-back", "It came back"],
          ["not-seen-again", "Never seen again"],
        ]}
        value={draft.result}
        onChange={(result) => set({ result })}
      />
      <TextField label="Note" value={draft.note} onChange={(e) => set({ note: e.target.value })} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div>
        <Button
          disabled={!draft.result || form.busy}
          onClick={() =>
            draft.result &&
            void form.record({ kind: "outcome", body: { result: draft.result, ...(draft.note ? { note: draft.note } : {}) } })
          }
        >
          Record the outcome
        </Button>
      </div>
    </div>
  );
}
