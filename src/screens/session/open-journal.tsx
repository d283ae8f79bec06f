"use client";

import { Component, type ReactNode, useCallback, useEffect, useState } from "react";
import { type DeviceJournal, deviceJournal } from "@/core/journal";
import { Button, LinkButton } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { useChanges } from "./changes";
import { dropCopy, readCopy, readKept } from "./device-store";
import { fetchBehind, takenIn } from "./outbox";

/** Where no journal came, it is asked for again after so long by itself, ms. */
const TRY_AGAIN = 5000;

/** A server nearby has answered by then, and nothing need be drawn twice, ms. */
const NEARBY = 400;

/**
 * A job's journal, read from this device's own copy and caught up by the server.
 * @param newest only what the server has just confirmed will do; else the copy serves where no answer comes at once.
 */
async function opened(jobId: string, newest: boolean): Promise<DeviceJournal> {
  const copy = await readCopy(jobId);
  const known = copy ?? deviceJournal([]);
  const whole = fetchBehind(jobId, known).then((answer) => takenIn(known, answer));
  // What was begun on this device and has not gone up is all there is of it.
  const begunHere = async () => (await readKept()).some((k) => k.entry.jobId === jobId && k.entry.kind === "opened");
  if (!copy) return whole.catch(async (error) => ((await begunHere().catch(() => false)) ? known : Promise.reject(error)));
  if (newest) return whole;
  const late = new Promise<DeviceJournal>((done) => setTimeout(done, NEARBY, copy));
  return Promise.race([whole.catch(() => late), late]);
}

interface OpenJournalProps {
  readonly jobId: string;
  readonly number?: number | undefined;
  readonly newest?: boolean;
  readonly children: (journal: DeviceJournal) => ReactNode;
}

/** Draws what a job's journal is needed for, once it is here. */
export function OpenJournal({ jobId, number, newest = false, children }: OpenJournalProps) {
  const [journal, setJournal] = useState<DeviceJournal>();
  const [error, setError] = useState("");
  const [anew, setAnew] = useState(false);

  const open = useCallback(() => {
    let left = false;
    opened(jobId, newest).then(
      (here) => left || setJournal(here),
      (failed) => left || setError((failed as Error).message),
    );
    return () => {
      left = true;
    };
  }, [jobId, newest]);
  useEffect(open, [open]);

  // What was said in vain stays until the journal is here: whoever looks sees no flicker between tries.
  const waiting = !journal && error !== "";
  useEffect(() => {
    if (!waiting) return;
    const clock = setInterval(open, TRY_AGAIN);
    window.addEventListener("online", open);
    return () => {
      clearInterval(clock);
      window.removeEventListener("online", open);
    };
  }, [open, waiting]);
  useChanges(useCallback(() => void (waiting && open()), [open, waiting]));

  const openAnew = () => {
    setAnew(true);
    setJournal(undefined);
    void dropCopy(jobId)
      .catch(() => {})
      .then(open);
  };

  if (journal) return <CopyBoundary onBroken={anew ? undefined : openAnew}>{children(journal)}</CopyBoundary>;
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-4 p-8" aria-busy={error === ""}>
      <h1 className="text-2xl font-bold">Job {number || ""}</h1>
      {error === "" ? (
        <p role="status" className="text-muted">
          Opening the journal…
        </p>
      ) : (
        <>
          <ErrorNote>{error}</ErrorNote>
          <div className="flex gap-3">
            <Button look="primary" onClick={open}>
              Try again now
            </Button>
            <LinkButton href="/">Bay board</LinkButton>
          </div>
        </>
      )}
    </main>
  );
}

/** Where the copy on this device is what breaks, the job is fetched anew; what breaks then is said as ever. */
class CopyBoundary extends Component<{ onBroken: (() => void) | undefined; children: ReactNode }, { error?: Error }> {
  override state: { error?: Error } = {};

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override componentDidCatch() {
    this.props.onBroken?.();
  }

  override render() {
    if (!this.state.error) return this.props.children;
    if (!this.props.onBroken) throw this.state.error;
    return null;
  }
}
