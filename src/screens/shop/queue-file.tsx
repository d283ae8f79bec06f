"use client";

import { useEffect, useState } from "react";
import type { Queued } from "@/core/journal";
import { Button } from "@/ui/button";
import { Tick } from "@/ui/choice";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote } from "@/ui/field";
import { shortTime } from "../job/short-time";
import { sendJson } from "../session/api";

/** Entries that waited on a device that was put out: looked through, then taken in as the lead chooses. */
export function QueueFile({ text, done }: { text: string; done: () => void }) {
  const [seen, setSeen] = useState<readonly Queued[]>();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [taken, setTaken] = useState(false);
  const [error, setError] = useState("");
  useEffect(() => {
    sendJson<Queued[]>("POST", "queue", { file: text })
      .then(setSeen)
      .catch((e: Error) => setError(e.message));
  }, [text]);
  const chosen = (seen ?? []).filter((q) => q.state === "fits" && !left.has(q.id)).map((q) => q.id);
  const takeIn = async () => {
    try {
      const answers = await sendJson<Queued[]>("POST", "queue", { file: text, take: chosen });
      setSeen(seen?.map((q) => answers.find((a) => a.id === q.id) ?? q));
      setTaken(true);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  if (error) return <ErrorNote>{error}</ErrorNote>;
  if (!seen) return <p className="text-muted">Looking through it…</p>;
  return (
    <div className="flex flex-col gap-4">
      <DividedList>
        {seen.map((q) => {
          const words = `${q.kind.replaceAll("-", " ")}, ${q.by}, ${shortTime(q.at)}${q.job > 0 ? `, job ${q.job}` : ""}`;
          return (
            <li key={q.id} className="py-1">
              {q.state === "fits" && !taken ? (
                <Tick
                  label={q.why ? `${words}. It will be history, and count for nothing: ${q.why}` : words}
                  checked={!left.has(q.id)}
                  onChange={(on) => setLeft(new Set(on ? [...left].filter((id) => id !== q.id) : [...left, q.id]))}
                />
              ) : (
                <p className="py-2">
                  {words}:{" "}
                  <span className={q.state === "refused" ? "text-ember" : "text-calm"}>
                    {q.state === "refused" ? `refused. ${q.why}` : q.state === "here-already" ? "in the journal" : "left out"}
                  </span>
                </p>
              )}
            </li>
          );
        })}
      </DividedList>
      <div>
        {taken || chosen.length === 0 ? (
          <Button onClick={done}>Close</Button>
        ) : (
          <Button look="primary" onClick={() => void takeIn()}>
            Take in {chosen.length} of {seen.length}
          </Button>
        )}
      </div>
    </div>
  );
}
