"use client";

import { format } from "date-fns";
import { Download } from "lucide-react";
import { useEffect, useState } from "react";
import { type Kept, spanOf, toQueueFile } from "@/core/journal";
import { Button } from "@/ui/button";
import { Note } from "@/ui/note";
import { deviceId } from "../session/device";
import { readKept } from "../session/device-store";

/** Entries waiting on a device that is not let in: nothing of it is lost, and a lead takes it in from a file. */
export function WaitingFile() {
  const [kept, setKept] = useState<readonly Kept[]>([]);
  useEffect(() => {
    readKept()
      .then(setKept)
      .catch(() => {});
  }, []);
  const [first] = kept;
  if (!first) return null;
  const save = () => {
    const entries = kept.map((k) => k.entry);
    const file = toQueueFile(entries, deviceId(), new Date().toISOString());
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([JSON.stringify(file)], { type: "application/json" }));
    link.download = `waiting-${format(new Date(), "yyyy-MM-dd-HHmm")}.json`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
  };
  return (
    <Note aria-label="Waiting on this device" tone="amber" as="section" className="flex flex-col items-start gap-2">
      <p>
        <strong>
          {kept.length} {kept.length === 1 ? "entry waits" : "entries wait"} on this device
        </strong>
        , the oldest from {format(new Date(spanOf(first.entry.at).from), "d MMM, HH:mm")}. They go up once it is let in. If a lead
        has put it out, save them: the lead looks through the file and takes it in, in Shop under Devices.
      </p>
      <Button onClick={save}>
        <Download aria-hidden size={18} /> Save them as a file
      </Button>
    </Note>
  );
}
