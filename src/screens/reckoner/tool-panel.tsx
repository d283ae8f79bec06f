"use client";

import { Link2 } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import type { Answer, Tool } from "@/core/reckoner";
import { Button } from "@/ui/button";
import { ConfirmButton } from "@/ui/confirm-button";
import { ErrorNote } from "@/ui/field";
import { FormFields } from "../form/form-field";
import { useTypedForm } from "../form/use-typed-form";
import { AnswerRows } from "./answer";
import { draftKey, linkTo } from "./link";
import { type OpenJob, TakeIntoJob } from "./take-into-job";

/** Text is worked out as it is typed. */
function worked(tool: Tool, record: object | undefined): { readonly answer?: Answer; readonly refused?: string } {
  if (!record) return {};
  try {
    return { answer: tool.reckon(record) };
  } catch (error) {
    return { refused: (error as Error).message };
  }
}

/** One reckoning: its inputs, its answer, and the equation with what it holds for. */
export function ToolPanel({ tool, jobs }: { tool: Tool; jobs: readonly OpenJob[] }) {
  const typed = useTypedForm(tool.form, draftKey(tool), undefined);
  const { record, errors } = typed.filled;
  const { answer, refused } = useMemo(() => worked(tool, record), [tool, record]);
  const link = linkTo(tool.id, tool.form, typed.draft());
  const [copied, setCopied] = useState(false);
  useEffect(() => {
    // The link in the address bar is what stands here.
    if (typed.startedAt) window.history.replaceState(null, "", link);
    setCopied(false);
  }, [link, typed.startedAt]);
  const copy = async () => {
    await navigator.clipboard?.writeText(`${window.location.origin}/reckoner${link}`);
    setCopied(true);
  };
  // What is only missing is asked for quietly; what was typed wrong says so at its field.
  const wrong = errors?.filter((f) => !f.missing) ?? [];
  return (
    <div className="grid items-start gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <section aria-label={tool.name} className="flex min-w-0 flex-col gap-4">
        <div>
          <h2 className="text-2xl font-bold">{tool.name}</h2>
          <p className="text-muted">{tool.aim}</p>
        </div>
        <div className="grid items-start gap-4 sm:grid-cols-2">
          <FormFields of={typed} names={Object.keys(tool.form.fields)} />
        </div>
        <div className="flex flex-wrap gap-3">
          <Button onClick={() => void copy()}>
            <Link2 aria-hidden size={18} /> {copied ? "Link copied" : "Copy the link"}
          </Button>
          {tool.into && record && <TakeIntoJob into={tool.into} record={record} jobs={jobs} />}
          <ConfirmButton ask="Clear it?" why="What was typed here would be gone." sure="Clear it" onSure={typed.clear}>
            Clear
          </ConfirmButton>
        </div>
      </section>
      <section aria-label="Result" aria-live="polite" className="flex min-w-0 flex-col gap-4">
        {answer ? (
          <AnswerRows answer={answer} />
        ) : (
          <div className="border-l-4 border-edge px-4 py-2 text-muted">
            {refused || wrong.length > 0 ? (
              <ErrorNote>{refused ?? wrong.map((f) => f.message).join(". ")}</ErrorNote>
            ) : (
              (errors ?? []).map((f) => <p key={f.field + f.message}>{f.message}</p>)
            )}
          </div>
        )}
        <Equation tool={tool} />
      </section>
    </div>
  );
}

function Equation({ tool }: { tool: Tool }) {
  return (
    <details className="border-y border-line">
      <summary className="flex min-h-11 cursor-pointer items-center gap-2">Its equation</summary>
      <div className="flex flex-col gap-3 pb-3">
        <p className="font-mono text-sm break-words">{tool.formula}</p>
        <dl className="grid grid-cols-[auto_minmax(0,1fr)_auto] gap-x-4 gap-y-1 text-sm">
          {tool.symbols.map(([letter, meaning, unit]) => (
            <div key={letter} className="contents">
              <dt className="font-mono">{letter}</dt>
              <dd>{meaning}</dd>
              <dd className="text-muted">{unit}</dd>
            </div>
          ))}
        </dl>
        <p className="text-sm">
          <span className="text-muted">Holds for: </span>
          {tool.valid}
        </p>
        <p className="text-sm">
          <span className="text-muted">Source: </span>
          {tool.source}
        </p>
      </div>
    </details>
  );
}
