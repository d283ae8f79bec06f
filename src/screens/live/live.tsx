"use client";

import { useEffect, useState } from "react";
import { LIVE_CALLS, type LiveCall, type LiveRun } from "@/core/live";
import { ErrorNote } from "@/ui/field";
import { ThemeSwitch } from "@/ui/theme-switch";
import { getJson, sendJson } from "../session/api";
import { usePreferences } from "../session/preferences";

const EVERY = 700;

/** The run of the other device, large enough to be read from under the car, and three keys to call back to it. */
export function LiveScreen({ jobId, number: job }: { jobId: string; number: number }) {
  const { number } = usePreferences();
  const [live, setLive] = useState<{ run: LiveRun; age: number } | null>();
  const [said, setSaid] = useState("");
  const [error, setError] = useState<string>();
  useEffect(() => {
    const look = () =>
      getJson<{ run: LiveRun; age: number } | null>(`jobs/${jobId}/live`).then(
        (l) => {
          setLive(l);
          setError(undefined);
        },
        (e: Error) => setError(e.message),
      );
    void look();
    const timer = setInterval(() => void look(), EVERY);
    return () => clearInterval(timer);
  }, [jobId]);
  const call = (what: LiveCall) =>
    sendJson("POST", `jobs/${jobId}/live/calls`, { call: what }).then(
      () => {
        setSaid(`Called: ${LIVE_CALLS[what]}`);
        setError(undefined);
      },
      (e: Error) => setError(e.message),
    );
  const run = live?.run;
  return (
    <main className="mx-auto flex min-h-dvh max-w-2xl flex-col gap-5 p-4">
      <header className="flex items-center gap-3">
        <h1 className="mr-auto text-xl font-bold">Job {job}: live run</h1>
        <ThemeSwitch />
      </header>
      {run ? (
        <>
          <p className="text-muted">
            {run.machine}, {run.by}, {number(run.seconds, 0)} s {run.running ? "into the run" : "long, ended"}
          </p>
          <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
            <div>
              <p className="text-muted">Ball</p>
              <p className="text-8xl leading-none font-bold">{number(run.flow.value, 1)}</p>
              <p className="text-lg text-muted">{run.flow.unit} on the scale</p>
            </div>
            <div>
              <p className="text-muted">Pressure</p>
              <p className="text-6xl leading-none font-bold">{number(run.pressure.value, 2)}</p>
              <p className="text-lg text-muted">{run.pressure.unit} gauge</p>
            </div>
          </div>
          <div className="h-4 bg-raised" aria-hidden>
            <div className="h-full bg-accent" style={{ width: `${Math.min(100, (100 * run.flow.value) / run.flow.max)}%` }} />
          </div>
          <p className="text-2xl font-bold">{run.words}</p>
          {run.seen.length > 0 && <p className="text-xl text-ember">Smoke at {run.seen.join(", ")}</p>}
        </>
      ) : (
        <p className="py-10 text-xl text-muted">
          {live === undefined
            ? "Listening…"
            : "No run is on the air. Start it on the first device and show it on a second one there."}
        </p>
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
      <div className="mt-auto grid grid-cols-2 gap-3 pb-4">
        {(Object.keys(LIVE_CALLS) as LiveCall[]).map((what) => (
          <button
            key={what}
            type="button"
            disabled={!run}
            onClick={() => void call(what)}
            className={`min-h-24 cursor-pointer rounded-lg text-3xl font-bold disabled:opacity-50 ${what === "there" ? "col-span-2 bg-accent text-on-accent" : "border-2 border-edge"}`}
          >
            {LIVE_CALLS[what]}
          </button>
        ))}
        <p role="status" className="col-span-2 min-h-6 text-muted">
          {said}
        </p>
      </div>
    </main>
  );
}
