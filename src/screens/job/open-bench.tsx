"use client";

import { Component, type ReactNode, useCallback, useEffect, useState } from "react";
import { type DeviceJournal, deviceJournal } from "@/core/journal";
import { Button, LinkButton } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { dropCopy, readCopy } from "../session/device-store";
import { fetchBehind, takenIn } from "../session/outbox";
import { Bench, type BenchProps } from "./bench";

const caughtUp = async (jobId: string, journal: DeviceJournal) => takenIn(journal, await fetchBehind(jobId, journal));

/** A server nearby has answered by then, and the bench need not be drawn twice, ms. */
const NEARBY = 400;

/** A job's journal: this device's own copy, caught up where the server answers at once; else all that the server has. */
async function opened(jobId: string): Promise<DeviceJournal> {
  const copy = await readCopy(jobId);
  const whole = caughtUp(jobId, copy ?? deviceJournal([]));
  if (!copy) return whole;
  const late = new Promise<DeviceJournal>((done) => setTimeout(done, NEARBY, copy));
  return Promise.race([whole.catch(() => late), late]);
}

/** A job's screen, once its journal is here. */
export function OpenBench(props: Omit<BenchProps, "journal">) {
  const { jobId, number } = props;
  const [journal, setJournal] = useState<DeviceJournal>();
  const [error, setError] = useState("");
  const [anew, setAnew] = useState(false);

  const open = useCallback(() => {
    let left = false;
    setError("");
    opened(jobId).then(
      (here) => left || setJournal(here),
      (failed) => left || setError((failed as Error).message),
    );
    return () => {
      left = true;
    };
  }, [jobId]);
  useEffect(open, [open]);

  const openAnew = () => {
    setAnew(true);
    setJournal(undefined);
    void dropCopy(jobId)
      .catch(() => {})
      .then(open);
  };

  if (journal)
    return (
      <CopyBoundary onBroken={anew ? undefined : openAnew}>
        <Bench {...props} journal={journal} />
      </CopyBoundary>
    );
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-4 p-8" aria-busy={error === ""}>
      <h1 className="text-2xl font-bold">Job {number}</h1>
      {error === "" ? (
        <p role="status" className="text-muted">
          Opening the journal…
        </p>
      ) : (
        <>
          <ErrorNote>{error}</ErrorNote>
          <div className="flex gap-3">
            <Button look="primary" onClick={open}>
              Try again
            </Button>
            <LinkButton href="/">Bay board</LinkButton>
          </div>
        </>
      )}
    </main>
  );
}

/** Where the copy on this device is what breaks the bench, the job is fetched anew; what breaks then is said as ever. */
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
