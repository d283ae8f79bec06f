"use client";

import { format, formatDistanceToNowStrict } from "date-fns";
import { Upload } from "lucide-react";
import { useCallback, useEffect, useState } from "react";
import type { Device } from "@/core/people";
import { Button } from "@/ui/button";
import { ConfirmButton } from "@/ui/confirm-button";
import { Dialog } from "@/ui/dialog";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote } from "@/ui/field";
import { FileButton } from "@/ui/file-button";
import { getJson, sendJson } from "../session/api";
import { OneMoreDevice } from "../session/one-more-device";
import { usePerson } from "../session/person";
import { QueueFile } from "./queue-file";

interface Devices {
  /** Whether the shop is open to its network */
  readonly open: boolean;
  /** The one that asks */
  readonly own: string;
  readonly devices: readonly Device[];
}

/** The shop's devices: who is in, since when, and out at once where one is lost; what waited on it comes in from its file. */
export function Devices() {
  const { person, mayNot } = usePerson();
  const forbidden = person ? mayNot("manage-devices") : "Sign in as a lead to see the shop's devices";
  const [known, setKnown] = useState<Devices>();
  const [error, setError] = useState("");
  const [adding, setAdding] = useState(false);
  const [queue, setQueue] = useState<string>();
  const read = useCallback(
    () =>
      getJson<Devices>("devices")
        .then(setKnown)
        .catch((e: Error) => setError(e.message)),
    [],
  );
  useEffect(() => {
    setKnown(undefined);
    if (!forbidden) void read();
  }, [forbidden, read]);
  const putOut = (id: string) =>
    sendJson("DELETE", `devices/${id}`)
      .then(read)
      .catch((e: Error) => setError(e.message));
  return (
    <section aria-label="Devices" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Devices</h2>
      {forbidden ? (
        <p className="text-muted">{forbidden}.</p>
      ) : (
        <>
          {known && !known.open && (
            <p className="max-w-prose text-muted">
              The shop is open to its own machine only. Started with --host and a passphrase, tablets and phones on its network
              join.
            </p>
          )}
          <DividedList className="empty:hidden">
            {known?.devices.map((d) => (
              <li key={d.id} className="flex flex-wrap items-center gap-3 py-2">
                <p className="mr-auto">
                  <strong className={d.out ? "text-muted" : ""}>{d.name}</strong>{" "}
                  <span className="text-muted">
                    {d.id === known.own ? "this device · " : ""}in since {format(new Date(d.enrolledAt), "d MMM yyyy")}, last seen{" "}
                    {formatDistanceToNowStrict(new Date(d.lastSeen), { addSuffix: true })}
                  </span>
                </p>
                {d.out ? (
                  <span className="text-muted">out</span>
                ) : (
                  <ConfirmButton
                    ask={`Put ${d.name} out?`}
                    why="It is signed out at once. What waits on it is kept there and leaves it as a file, which you can take in here."
                    sure="Remove now"
                    onSure={() => void putOut(d.id)}
                  >
                    Put {d.name} out
                  </ConfirmButton>
                )}
              </li>
            ))}
          </DividedList>
          <div className="flex flex-wrap gap-3">
            {known?.open && <Button onClick={() => setAdding(true)}>Add a device</Button>}
            <FileButton
              label="Queue file of a device"
              accept=".json,application/json"
              onFile={(f) => void f.text().then(setQueue)}
            >
              <Upload aria-hidden size={18} /> Import a queue file
            </FileButton>
          </div>
        </>
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
      <Dialog
        open={adding}
        onOpenChange={setAdding}
        title="Add a device"
        description="It is named as it comes in, and stands in the list from then on."
      >
        {adding && <OneMoreDevice />}
      </Dialog>
      <Dialog
        open={queue !== undefined}
        onOpenChange={(open) => !open && setQueue(undefined)}
        title="Queue file of a device"
        description="Each entry comes in under whoever signed it. What was changed on the way is refused."
      >
        {queue !== undefined && <QueueFile text={queue} done={() => setQueue(undefined)} />}
      </Dialog>
    </section>
  );
}
