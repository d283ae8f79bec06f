"use client";

import { format } from "date-fns";
import { useEffect, useState } from "react";

export interface BackupsProps {
  readonly folder: string;
  readonly keep: number;
  readonly kept: number;
  readonly last?: { readonly at: string; readonly jobs: number; readonly files: number };
}

/** A backup older than this is said to be old, ms. */
const OLD = 48 * 3600_000;

/** When the shop's data were last backed up, and what is kept. */
export function Backups({ folder, keep, kept, last }: BackupsProps) {
  const [now, setNow] = useState<number>();
  useEffect(() => setNow(Date.now()), []);
  const old = last && now !== undefined && now - Date.parse(last.at) > OLD;
  return (
    <section aria-label="Backups" className="flex flex-col gap-2">
      <h2 className="text-xl font-bold">Backups</h2>
      <p className={last && !old ? "text-calm" : "text-amber"} suppressHydrationWarning>
        {last
          ? `Last good one: ${format(new Date(last.at), "d MMM yyyy, HH:mm")}, ${last.jobs} jobs and ${last.files} files, read again and whole.${old ? " It is old: look at the app's log for why none followed." : ""}`
          : keep === 0
            ? "No daily backups are taken here."
            : "None yet: the first is taken a minute after the app starts."}
      </p>
      <p className="text-muted">
        {keep > 0 &&
          `Taken daily while the app runs; the newest ${keep} are kept (${kept} now) in ${folder}. Copy them to another disk: one that breaks takes both.`}
      </p>
    </section>
  );
}
