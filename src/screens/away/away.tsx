"use client";

import { formatDistanceToNowStrict } from "date-fns";
import { CloudOff, Plus } from "lucide-react";
import { useEffect, useState } from "react";
import { deviceJournal, foldJob, type JobState, STATION_NAMES, shown, withOutbox } from "@/core/journal";
import { DEFAULT_SHOP } from "@/core/shop/settings";
import { vehicleName } from "@/core/vehicle";
import { Button, LinkButton } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { Note } from "@/ui/note";
import { PageLink } from "@/ui/page-link";
import { ThemeSwitch } from "@/ui/theme-switch";
import { readCopies, readKept } from "../session/device-store";
import { knownShop } from "../session/known-shop";
import { PersonButton } from "../session/person";
import { knownRoles } from "../session/sign-in";
import { Waiting } from "../session/waiting";

/** A job as this device holds it. */
interface Here {
  readonly jobId: string;
  readonly state: JobState;
  readonly waiting: number;
}

/** The jobs that this device holds, folded here: those it has opened lately, and those that were begun on it. */
async function jobsHere(): Promise<Here[]> {
  const [copies, kept] = await Promise.all([readCopies().catch(() => []), readKept().catch(() => [])]);
  const shop = knownShop() ?? DEFAULT_SHOP;
  const ids = [...new Set([...copies.map((c) => c.jobId), ...kept.map((k) => k.entry.jobId)])];
  return ids.map((jobId) => {
    const own = kept.filter((k) => k.entry.jobId === jobId);
    const journal = copies.find((c) => c.jobId === jobId)?.journal ?? deviceJournal([]);
    const entries = withOutbox(journal, shown(own), new Date().toISOString(), knownRoles());
    return { jobId, state: foldJob(entries, shop, Date.now()), waiting: own.length };
  });
}

/** The board while the server is offline: the jobs that this device holds, and the way to begin another. */
export function Away() {
  const [jobs, setJobs] = useState<readonly Here[]>();
  useEffect(() => {
    void jobsHere().then((all) => setJobs(all.toSorted((a, b) => b.state.updatedAt.localeCompare(a.state.updatedAt))));
  }, []);
  return (
    <div className="mx-auto flex max-w-4xl flex-col gap-6 p-4 sm:p-6">
      <header className="flex flex-wrap items-center gap-3">
        <h1 className="mr-auto text-2xl font-bold">Bay board</h1>
        <Waiting />
        <PersonButton />
        <ThemeSwitch />
      </header>
      <Note aria-label="The server is offline" tone="amber" as="section" className="flex flex-wrap items-center gap-x-6 gap-y-3">
        <CloudOff aria-hidden className="text-amber" />
        <p className="mr-auto max-w-prose">
          <strong className="block text-lg">The shop's server does not answer.</strong> Work goes on with what this device holds:
          what you record is kept here and goes up in order once the server is back.
        </p>
        <Button onClick={() => window.location.assign("/")}>Try again</Button>
        <LinkButton href="/new" look="primary">
          <Plus aria-hidden size={18} /> New job
        </LinkButton>
      </Note>
      <main aria-label="Jobs on this device">
        {jobs?.length === 0 && (
          <p className="py-12 text-center text-lg text-muted">This device holds no job yet: it keeps those it has opened.</p>
        )}
        <DividedList className="empty:hidden">
          {jobs?.map(({ jobId, state, waiting }) => (
            <li key={jobId}>
              <PageLink
                href={`/jobs/${jobId}`}
                className="grid min-h-16 grid-cols-[3.5rem_1fr] items-center gap-x-4 py-3 hover:bg-raised"
              >
                <span className="font-mono text-2xl">{state.number || "–"}</span>
                <span className="min-w-0">
                  <span className="block truncate font-bold">
                    {state.vehicle ? vehicleName(state.vehicle) : "Vehicle not described yet"}
                  </span>
                  <span className="line-clamp-2 text-sm text-muted">
                    {state.practice ? "Practice · " : ""}
                    {state.vehicle?.registration ? `${state.vehicle.registration} · ` : ""}
                    {STATION_NAMES[state.nextStation.station]} · {state.nextStation.reason}
                    {state.updatedAt ? ` · ${formatDistanceToNowStrict(new Date(state.updatedAt), { addSuffix: true })}` : ""}
                    {waiting > 0 && <span className="text-amber"> · {waiting} not sent yet</span>}
                    {state.number === 0 && <span className="text-amber"> · its number comes from the server</span>}
                  </span>
                </span>
              </PageLink>
            </li>
          ))}
        </DividedList>
      </main>
    </div>
  );
}
