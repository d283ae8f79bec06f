"use client";

import { BookOpen } from "lucide-react";
import { useState } from "react";
import { entryWords, type JournalEntry, type Kept } from "@/core/journal";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { ErrorNote, TextArea, TextField } from "@/ui/field";
import { discard, sendAgain, sorted, useKept } from "../session/outbox";
import { shortTime } from "./short-time";
import { useForm } from "./use-form";
import { useJob } from "./use-job";

/** Opens the job's journal: every line as recorded, a note to add, a wrong line to take out. */
export function JournalButton() {
  const { refused } = useRefused();
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="inline-flex min-h-11 min-w-11 cursor-pointer items-center justify-center gap-2 rounded-md px-2 hover:bg-raised"
      >
        <BookOpen aria-hidden size={18} />
        <span className={refused.length > 0 ? "text-ember" : "max-2xl:sr-only"}>
          {refused.length > 0 ? `${refused.length} not taken` : "Journal"}
        </span>
      </button>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Journal"
        description="Nothing is edited or deleted. A wrong line is taken out with a reason, and stays visible."
      >
        {open && <Journal />}
      </Dialog>
    </>
  );
}

/** What the server would not take of this job, and what waits for that. */
function useRefused() {
  const { id } = useJob();
  const { refused, held } = sorted(useKept());
  const here = (kept: Kept) => kept.entry.jobId === id;
  return { refused: refused.filter(here), held: held.filter(here) };
}

function Journal() {
  const { entries, state } = useJob();
  const { refused, held } = useRefused();
  const wordsOf = ({ entry }: Kept) => `“${entryWords({ ...entry, seq: 0, recordedAt: "" }, state)}”`;
  const takenOut = new Map(entries.flatMap((e) => (e.kind === "retract" && e.corrects ? [[e.corrects, e] as const] : [])));
  // What was shown belongs to its check, and a line taken out carries its reason itself.
  const lines = entries.filter((e) => e.kind !== "judged" && e.kind !== "retract").toReversed();
  return (
    <div className="flex flex-col gap-5">
      {refused.map((kept) => (
        <div key={kept.id} className="flex flex-col gap-2">
          <ErrorNote>
            The server did not take {wordsOf(kept)}: {kept.refused?.message}. It is kept on this device.
          </ErrorNote>
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => void sendAgain(kept)}>Send it again</Button>
            <Button onClick={() => void discard(kept)}>Discard it</Button>
          </div>
        </div>
      ))}
      {held.length > 0 && (
        <div className="text-amber">
          <p>Waiting for that, since they name it:</p>
          <ul className="list-disc pl-6">
            {held.map((kept) => (
              <li key={kept.id}>{wordsOf(kept)}</li>
            ))}
          </ul>
        </div>
      )}
      <NoteForm />
      <ol className="flex flex-col divide-y divide-line">
        {lines.map((entry) => (
          <Line key={entry.id} entry={entry} out={takenOut.get(entry.id)} />
        ))}
      </ol>
    </div>
  );
}

function NoteForm() {
  const form = useForm("note", { text: "" });
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void form.record({ kind: "note", body: { text: form.draft.text } });
      }}
    >
      <TextArea label="Note" value={form.draft.text} onChange={(e) => form.set({ text: e.target.value })} error={form.error} />
      <div>
        <Button type="submit" disabled={form.busy}>
          Add the note
        </Button>
      </div>
    </form>
  );
}

function Line({ entry, out }: { entry: JournalEntry; out: JournalEntry | undefined }) {
  const { state, append } = useJob();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const [error, setError] = useState<string>();
  const takeOut = async () => {
    const wrong = await append({ kind: "retract", body: { reason }, corrects: entry.id });
    setError(wrong);
    if (!wrong) setAsking(false);
  };
  return (
    <li className="flex flex-wrap items-center gap-x-3 py-2">
      <div className="min-w-0 grow basis-64">
        <p className={`break-words ${out ? "text-muted line-through" : ""}`}>{entryWords(entry, state)}</p>
        <p className="text-sm text-muted">
          {shortTime(entry.at)} · {entry.by}
          {out && ` · taken out by ${out.by}: ${(out.body as { reason: string }).reason}`}
          {entry.clampedFrom && " · the device's clock ran ahead and was set back"}
          {entry.corrects && " · corrects an earlier line"}
        </p>
      </div>
      {!out && !asking && entry.kind !== "opened" && (
        <Button look="bare" onClick={() => setAsking(true)} aria-label={`Take out: ${entryWords(entry, state)}`}>
          Take out
        </Button>
      )}
      {asking && (
        <form
          className="flex basis-full items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            void takeOut();
          }}
        >
          <div className="grow">
            <TextField label="Why it is wrong" value={reason} onChange={(e) => setReason(e.target.value)} error={error} />
          </div>
          <Button type="submit">Take out</Button>
        </form>
      )}
    </li>
  );
}
