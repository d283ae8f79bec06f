"use client";

import { BookOpen } from "lucide-react";
import { useState } from "react";
import { CHECKS } from "@/core/checks";
import { toDraft } from "@/core/form";
import { type Bodies, checkFacts, entryWords, type JournalEntry, type Kept, noteForm } from "@/core/journal";
import { ROLES } from "@/core/people";
import { Button, LinkButton } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { ErrorNote, TextField } from "@/ui/field";
import { Form } from "@/ui/form";
import { LongList } from "@/ui/long-list";
import { FormFields } from "../form/form-field";
import type { NewEntry } from "../session/device";
import { discard, sendAgain, sorted, useKept } from "../session/outbox";
import { load, save } from "../session/storage";
import { CORRECTS, type Corrects } from "./checks/use-record-check";
import { shortTime } from "./short-time";
import { useEntryForm } from "./use-entry-form";
import { type Go, useJob } from "./use-job";

/** Opens the job's journal: every line as recorded, a note to add, a wrong line to take out. */
export function JournalButton({ go }: { go: Go }) {
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
        {open && (
          <Journal
            go={(...to) => {
              setOpen(false);
              go(...to);
            }}
          />
        )}
      </Dialog>
    </>
  );
}

/** Entries that the server would not take of this job, and what waits for that. */
function useRefused() {
  const { id } = useJob();
  const { refused, held } = sorted(useKept());
  const here = (kept: Kept) => kept.entry.jobId === id;
  return { refused: refused.filter(here), held: held.filter(here) };
}

function Journal({ go }: { go: Go }) {
  const { entries, state } = useJob();
  const { refused, held } = useRefused();
  const wordsOf = ({ entry }: Kept) => `“${entryWords({ ...entry, seq: 0, recordedAt: "" }, state)}”`;
  const corrections = entries.filter((e) => e.corrects && !e.history).toSorted((a, b) => a.seq - b.seq);
  const last = new Map(corrections.map((e) => [e.corrects as string, e]));
  const takenOut = new Map([...last].filter(([, e]) => e.kind === "retract"));
  /** Words of a line by its newest correction */
  const newest = new Map(corrections.filter((e) => e.kind !== "retract").map((e) => [e.corrects as string, e]));
  // What was shown belongs to its check, and a line taken out carries its reason itself.
  const lines = entries.filter((e) => e.kind !== "judged" && (e.kind !== "retract" || e.history)).toReversed();
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
            <LinkButton href="/unlock">Save what waits as a file</LinkButton>
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
      <LongList
        count={lines.length}
        keyOf={(i) => (lines[i] as JournalEntry).id}
        row={(i) => {
          const entry = lines[i] as JournalEntry;
          return <Line entry={entry} newest={newest.get(entry.id) ?? entry} out={takenOut.get(entry.id)} go={go} />;
        }}
      />
    </div>
  );
}

function NoteForm() {
  const form = useEntryForm(noteForm, "note", undefined);
  return (
    <Form className="flex flex-col gap-2" onSubmit={() => void form.submit((body) => [{ kind: "note", body }])}>
      <FormFields of={form} names={["text"]} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div>
        <Button type="submit" disabled={form.busy}>
          Add the note
        </Button>
      </div>
    </Form>
  );
}

interface LineProps {
  readonly entry: JournalEntry;
  /** As it was corrected last */
  readonly newest: JournalEntry;
  /** The entry that took it out, if anything did */
  readonly out: JournalEntry | undefined;
  readonly go: Go;
}

function Line({ entry, newest, out, go }: LineProps) {
  const { state, append } = useJob();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const [error, setError] = useState<string>();
  const correct = useCorrection(go);
  const words = entryWords(entry, state);
  const takeOut = async () => {
    const wrong = await append({ kind: "retract", body: { reason }, corrects: entry.id });
    setError(wrong);
    if (!wrong) setAsking(false);
  };
  // Put back, it says again what it said last, at the time it had.
  const putBack = async () =>
    setError(await append({ kind: newest.kind, body: newest.body, at: newest.at, corrects: entry.id } as NewEntry));
  return (
    <div className="flex flex-wrap items-center gap-x-3 py-2">
      <div className="min-w-0 grow basis-64">
        <p className={`break-words ${out ? "text-muted line-through" : ""}`}>{words}</p>
        <p className="text-sm text-muted">
          {shortTime(entry.at)} · {entry.by}
          {entry.role && ` (${ROLES[entry.role].toLowerCase()})`}
          {out && ` · taken out by ${out.by}: ${(out.body as { reason: string }).reason}`}
          {entry.clampedFrom && " · the device's clock ran ahead and was set back"}
          {entry.corrects && " · corrects an earlier line"}
          {entry.imported && " · from another shop"}
        </p>
        {entry.history && <p className="text-sm text-amber">Kept as history, counts for nothing: {entry.history}</p>}
      </div>
      {out && (
        <Button look="bare" onClick={() => void putBack()} aria-label={`Put back: ${words}`}>
          Put back
        </Button>
      )}
      {!out && !asking && !entry.corrects && !entry.history && entry.kind !== "opened" && (
        <Button look="bare" onClick={() => setAsking(true)} aria-label={`Strike out: ${words}`}>
          Strike out
        </Button>
      )}
      {!asking && error && <ErrorNote>{error}</ErrorNote>}
      {asking && (
        <Form
          className="flex basis-full flex-col gap-2 border-l-4 border-amber bg-amber-soft px-4 py-2"
          onSubmit={() => void takeOut()}
        >
          <p>
            It reads: <strong>{entryWords({ ...newest, id: entry.id }, state)}</strong>. Taken out it stays visible, struck
            through, and counts for nothing; what it asked for stays owed.
          </p>
          <TextField label="Why it is wrong" value={reason} onChange={(e) => setReason(e.target.value)} error={error} />
          <div className="flex flex-wrap gap-2">
            <Button type="submit">Strike out</Button>
            {entry.kind === "check" && CHECKS[(entry.body as Bodies["check"]).check].form && (
              <Button onClick={() => setError(correct(entry, newest))}>Correct a copy instead</Button>
            )}
            <Button look="bare" onClick={() => setAsking(false)}>
              Cancel
            </Button>
          </div>
        </Form>
      )}
    </div>
  );
}

/** Opens the instrument of a recorded check with what was recorded in it; a message where another is in hand there. */
function useCorrection(go: Go): (root: JournalEntry, newest: JournalEntry) => string | undefined {
  const { id, state, shop, context } = useJob();
  return (root, newest) => {
    const { check, record, pictures } = newest.body as Bodies["check"];
    const { form, name, station = "check" } = CHECKS[check];
    if (!form || !context) return "Describe the vehicle first";
    const key = `pelota.draft.${id}.${check}`;
    if ((load<{ startedAt?: string }>(key)?.startedAt ?? "") !== "")
      return `${name} is in hand: record or discard that first, so that nothing of it is lost`;
    save(key, {
      ...toDraft(form, record, checkFacts(check, state, shop, context)),
      ...(pictures ? { pictures } : {}),
      startedAt: typeof newest.at === "string" ? newest.at : newest.at.from,
      [CORRECTS]: { entry: root.id, at: newest.at } satisfies Corrects,
    });
    go(station, check);
    return undefined;
  };
}
