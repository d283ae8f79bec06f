"use client";

import { formatDistanceToNowStrict } from "date-fns";
import { Plus, Search, Settings2, Upload } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useRef, useState } from "react";
import { STATION_NAMES, STATIONS, type StationId } from "@/core/journal";
import { Button, LinkButton } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { FileButton } from "@/ui/file-button";
import { ThemeSwitch } from "@/ui/theme-switch";
import { sendBytes } from "../session/api";
import { useChanges } from "../session/changes";
import { PersonButton } from "../session/person";
import { Waiting } from "../session/waiting";

/** A job as the board shows it. */
export interface BoardJob {
  readonly id: string;
  readonly number: number;
  readonly status: string;
  readonly station: string;
  readonly reason: string;
  readonly waitingOn: string;
  readonly vehicle: string;
  readonly registration: string;
  readonly complaint: string;
  readonly codes: string;
  readonly updatedAt: string;
}

/** What a job waits for, in the order a shop wants to see it. */
const LANES = [
  ["me", "Waiting for us"],
  ["customer", "Waiting for the customer"],
  ["part", "Waiting for a part"],
  ["cold-soak", "Cooling down"],
  ["drive", "To be driven"],
] as const;

/** Bay board: every job by what it waits for. */
export function Board({
  jobs,
  shopName,
  search,
  showClosed,
}: {
  jobs: readonly BoardJob[];
  shopName: string;
  search: string;
  showClosed: boolean;
}) {
  useFresh();
  const open = jobs.filter((j) => j.status === "open" || j.status === "review");
  const done = jobs.filter((j) => j.status === "handed-over" || j.status === "closed");
  return (
    <div className="mx-auto flex max-w-[90rem] flex-col gap-6 p-4 sm:p-6">
      <header className="flex flex-col gap-6">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <h1 className="mr-auto text-2xl font-bold">
            Bay board <span className="block text-base font-normal text-muted sm:ml-2 sm:inline">{shopName}</span>
          </h1>
          <Waiting />
          <PersonButton />
          <LinkButton href="/shop">
            <Settings2 aria-hidden size={18} /> Shop
          </LinkButton>
          <ThemeSwitch />
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <form action="/" className="flex min-w-0 grow items-center gap-2 sm:max-w-md">
            <label className="sr-only" htmlFor="search">
              Search jobs
            </label>
            <input
              id="search"
              name="q"
              defaultValue={search}
              placeholder="Registration, vehicle, code, complaint"
              className="min-h-11 w-full rounded-md border border-edge bg-raised px-3"
            />
            {showClosed && <input type="hidden" name="all" value="1" />}
            <Button type="submit" aria-label="Search">
              <Search aria-hidden size={18} />
            </Button>
          </form>
          <Link
            href={showClosed ? "/" : "/?all=1"}
            className="inline-flex min-h-11 items-center text-muted underline underline-offset-4"
          >
            {showClosed ? "Hide closed jobs" : "Show closed jobs"}
          </Link>
          <div className="ml-auto flex flex-wrap gap-2">
            <ImportJob />
            <LinkButton href="/new" look="primary">
              <Plus aria-hidden size={18} /> New job
            </LinkButton>
          </div>
        </div>
      </header>
      <main className="flex flex-col gap-8">
        {jobs.length === 0 && (
          <p className="py-16 text-center text-lg text-muted">
            {search
              ? `No job matches “${search}”. Search closed jobs too, or try fewer words.`
              : "The bay is empty. Open a job when the next car rolls in."}
          </p>
        )}
        {LANES.map(([lane, title]) => {
          const inLane = open.filter((j) => j.waitingOn === lane);
          return inLane.length === 0 ? null : <Lane key={lane} title={title} jobs={inLane} />;
        })}
        {done.length > 0 && <Lane title="Handed over" jobs={done} />}
      </main>
    </div>
  );
}

/** Another device's entries come in at most so often, ms. */
const AT_MOST = 1000;

/** Draws the board anew when a job was written to; what comes in a burst at once. */
function useFresh(): void {
  const { refresh } = useRouter();
  const due = useRef<ReturnType<typeof setTimeout>>(undefined);
  const heard = useCallback(() => {
    due.current ??= setTimeout(() => {
      due.current = undefined;
      refresh();
    }, AT_MOST);
  }, [refresh]);
  useChanges(heard);
  useEffect(() => () => clearTimeout(due.current), []);
}

function Lane({ title, jobs }: { title: string; jobs: readonly BoardJob[] }) {
  return (
    <section aria-label={title}>
      <h2 className="mb-2 text-lg text-muted">
        {title} <span className="text-ink">{jobs.length}</span>
      </h2>
      <ul className="flex flex-col divide-y divide-line border-y border-line">
        {jobs.map((job) => (
          <li key={job.id}>
            <JobRow job={job} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function JobRow({ job }: { job: BoardJob }) {
  const station = job.station as StationId;
  const index = STATIONS.indexOf(station);
  const finished = job.status === "closed" || job.status === "handed-over";
  return (
    <Link
      href={`/jobs/${job.id}`}
      className="grid min-h-20 grid-cols-[3.5rem_1fr] items-center gap-x-4 gap-y-1 px-1 py-3 hover:bg-raised lg:grid-cols-[3.5rem_16rem_1fr_22rem]"
    >
      <span className="font-mono text-2xl">{job.number}</span>
      <span className="min-w-0">
        <span className="block truncate font-bold">{job.vehicle || "Vehicle not described yet"}</span>
        <span className="block text-sm text-muted">
          {job.registration} {job.codes && <span className="ml-2 font-mono">{job.codes}</span>}
        </span>
      </span>
      <span className="col-start-2 line-clamp-2 min-w-0 text-muted lg:col-start-auto">{job.complaint}</span>
      <span className="col-start-2 min-w-0 lg:col-start-auto">
        <span aria-hidden className="mb-1 flex gap-1">
          {STATIONS.map((s, i) => (
            <span
              key={s}
              className={`h-2 grow rounded-full ${finished || i < index ? "bg-calm" : i === index ? "bg-accent" : "bg-line"}`}
            />
          ))}
        </span>
        <span className="line-clamp-2 text-sm">
          <span className={job.status === "review" ? "text-ember" : finished ? "text-calm" : "text-live"}>
            {job.status === "review" ? "Look again" : finished ? "Handed over" : STATION_NAMES[station]}
          </span>
          <span className="text-muted">
            {finished ? "" : ` · ${job.reason}`} ·{" "}
            <time dateTime={job.updatedAt} suppressHydrationWarning>
              {ago(job.updatedAt)}
            </time>
          </span>
        </span>
      </span>
    </Link>
  );
}

const ago = (iso: string) => (iso ? formatDistanceToNowStrict(new Date(iso), { addSuffix: true }) : "");

function ImportJob() {
  const router = useRouter();
  const [error, setError] = useState("");
  const take = async (file: File) => {
    setError("");
    try {
      const { id } = await sendBytes<{ id: string }>("import", file);
      router.push(`/jobs/${id}`);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <>
      <FileButton label="Job file" accept=".json,application/json" onFile={(file) => void take(file)}>
        <Upload aria-hidden size={18} /> Import a job
      </FileButton>
      {error && (
        <div className="basis-full">
          <ErrorNote>{error}</ErrorNote>
        </div>
      )}
    </>
  );
}
