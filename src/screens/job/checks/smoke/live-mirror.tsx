"use client";

import { MonitorSmartphone } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { LIVE_CALLS, type LiveCall, type LiveRun } from "@/core/live";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { Note } from "@/ui/note";
import { sendJson } from "../../../session/api";
import { OneMoreDevice } from "../../../session/one-more-device";
import { useJob } from "../../use-job";

const EVERY = 1000;
/** How long a call stays on the screen, ms. */
const HEARD = 8000;

/**
 * Shows the run on a second device and hears what is called back: one at the valve, one at the leak. The second device
 * comes in by the shop passphrase or the code shown here.
 */
export function LiveMirror({ run }: { run: LiveRun }) {
  const { id } = useJob();
  const [on, setOn] = useState(false);
  const [open, setOpen] = useState(false);
  const [heard, setHeard] = useState<{ call: LiveCall; at: number }>();
  const latest = useRef(run);
  latest.current = run;
  const last = useRef(0);
  useEffect(() => {
    if (!on) return;
    const send = () =>
      sendJson<{ number: number; call: LiveCall; at: number }[]>(
        "PUT",
        `jobs/${id}/live?after=${last.current}`,
        latest.current,
      ).then(
        (calls) => {
          const newest = calls.at(-1);
          if (!newest) return;
          last.current = newest.number;
          setHeard({ call: newest.call, at: Date.now() });
        },
        // Without a connection the run goes on by itself; the mirror comes back with it.
        () => {},
      );
    void send();
    const timer = setInterval(() => void send(), EVERY);
    return () => clearInterval(timer);
  }, [on, id]);
  useEffect(() => {
    if (!heard) return;
    const timer = setTimeout(() => setHeard(undefined), HEARD);
    return () => clearTimeout(timer);
  }, [heard]);
  const begin = () => {
    setOn(true);
    setOpen(true);
  };
  return (
    <>
      <Button onClick={begin}>
        <MonitorSmartphone aria-hidden size={18} /> {on ? "On a second device" : "Show on a second device"}
      </Button>
      {heard && (
        <Note role="status" tone="live" as="p" tight className="text-2xl font-bold text-live">
          From the leak: {LIVE_CALLS[heard.call]}
        </Note>
      )}
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="A second device"
        description="It shows this run and calls back: more, less, there."
      >
        {open && <OneMoreDevice path={`/jobs/${id}/live`} />}
      </Dialog>
    </>
  );
}
