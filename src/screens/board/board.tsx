"use client";

import { formatDistanceToNowStrict } from "date-fns";
import { Calculator, GraduationCap, Menu, PhoneCall, Plus, Search, Settings2, SlidersHorizontal, Upload } from "lucide-react";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useRef, useState } from "react";
import { STATION_NAMES, STATIONS, type StationId } from "@/core/journal";
import { Button, LinkButton } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { DropPanel } from "@/ui/drop-panel";
import { ErrorNote, SelectField } from "@/ui/field";
import { FileButton } from "@/ui/file-button";
import { Note } from "@/ui/note";
import { PageLink } from "@/ui/page-link";
import { ThemeSwitch } from "@/ui/theme-switch";
import { sendBytes } from "../session/api";
import { useChanges } from "../session/changes";
import { PersonButton } from "../session/person";
import { useTerms } from "../session/preferences";
import { Waiting } from "../session/waiting";
import { Behind } from "./behind";
import { FirstVisit } from "./first-visit";

/** A job as the board shows it. */
export interface BoardJob {
  readonly id: string;
  readonly number: number;
  readonly status: string;
  readonly station: string;
  readonly reason: string;
  readonly lane: string;
  readonly vehicle: string;
  readonly registration: string;
  readonly complaint: string;
  readonly codes: string;
  readonly recheck: string;
  readonly updatedAt: string;
}

/** Reasons why a job waits, in the order a shop wants to see it. */
const LANES = [
  ["lead", "Waiting for the lead's signature"],
  ["me", "Ready to work on"],
  ["customer", "Waiting for the customer"],
  ["part", "Waiting for a part"],
  ["cold-soak", "Cooling down"],
  ["drive", "To be driven"],
  ["done", "Handed over"],
] as const;

const FAMILY_WORDS: Readonly<Record<string, string>> = { engine: "Engine air", evap: "Vapour system" };

/** Query of the board, as it stands in the address. */
export interface BoardFilter {
  readonly q: string;
  readonly all: string;
  readonly waiting: string;
  readonly person: string;
  readonly family: string;
  readonly quiet: string;
  readonly due: string;
}

interface Props {
  board: {
    readonly jobs: readonly BoardJob[];
    /** How many each lane holds, on this page or not */
    readonly counts: Readonly<Record<string, number>>;
    readonly total: number;
    readonly page: number;
    readonly pages: number;
  };
  asked: BoardFilter;
  people: readonly string[];
  families: readonly string[];
  /** Instruments that a job may begin with: check and name */
  instruments: readonly (readonly [string, string])[];
  shopName: string;
  /** Customers to call today or before */
  callsDue: number;
  /** Whether the shop has a lead: until then nobody signs in */
  lead: boolean;
  /** Jobs whose newest entries are not in it yet */
  behind: number;
}

/** The board's address with something asked otherwise. */
function boardUrl(asked: BoardFilter, change: Partial<BoardFilter> & { readonly page?: number }): string {
  const said = Object.entries({ ...asked, ...change }).filter(([, value]) => value !== "" && value !== 1);
  return said.length === 0 ? "/" : `/?${new URLSearchParams(said.map(([k, v]) => [k, String(v)])).toString()}`;
}

/** Bay board: every job by what it waits for. */
export function Board({ board, asked, people, families, instruments, shopName, callsDue, lead, behind }: Props) {
  useFresh();
  const { jobs, counts, total } = board;
  const walk = jobs.find((j) => j.lane === "done") ?? jobs.find((j) => j.station === "prove");
  return (
    <div className="mx-auto flex max-w-[90rem] flex-col gap-3 p-4 max-sm:pb-24 sm:px-6">
      <header className="flex items-center gap-x-3">
        <h1 className="mr-auto min-w-0 text-2xl leading-tight font-bold">
          Bay board <span className="block truncate text-sm font-normal text-muted">{shopName}</span>
        </h1>
        <Waiting brief />
        <div className="max-sm:fixed max-sm:inset-x-0 max-sm:bottom-0 max-sm:z-20 max-sm:border-t max-sm:border-edge max-sm:bg-panel max-sm:p-3 flex grow items-center gap-2 sm:max-w-2xl">
          <SearchForm asked={asked} people={people} families={families} />
          <LinkButton href="/new" look="primary" className="whitespace-nowrap">
            <Plus aria-hidden size={18} /> New job
          </LinkButton>
        </div>
        {callsDue > 0 && (
          <LinkButton href="/calls" className="whitespace-nowrap max-lg:hidden">
            <PhoneCall aria-hidden size={18} /> Follow-ups <span className="text-amber">{callsDue} due</span>
          </LinkButton>
        )}
        <PersonButton brief />
        <More asked={asked} callsDue={callsDue} instruments={instruments} />
      </header>
      {lead ? (
        <FirstVisit walk={walk?.id} />
      ) : (
        <Note aria-label="No lead yet" tone="live" as="section" className="flex flex-wrap items-center gap-x-6 gap-y-2">
          <p className="mr-auto max-w-prose">
            <strong className="block text-lg">This shop has no lead yet.</strong> People sign in with a PIN of their own: name the
            lead and who works here, then go on with what is here already.
          </p>
          <LinkButton href="/first-start" look="primary">
            Set the shop up
          </LinkButton>
        </Note>
      )}
      <main className="flex flex-col gap-4">
        <Behind jobs={behind} />
        {total === 0 && (
          <p className="py-16 text-center text-lg text-muted">
            {boardUrl(asked, {}) === "/"
              ? "The bay is empty. Open a job when the next car rolls in."
              : asked.q
                ? `No job matches “${asked.q}”. Search closed jobs too, or try fewer words.`
                : "No job matches. Clear the filter, or show closed jobs too."}
          </p>
        )}
        {LANES.map(([lane, title]) => {
          const here = jobs.filter((j) => j.lane === lane);
          return here.length === 0 ? null : <Lane key={lane} title={title} jobs={here} count={counts[lane] ?? here.length} />;
        })}
      </main>
      {board.pages > 1 && (
        <nav aria-label="Pages" className="flex flex-wrap items-center gap-3">
          {board.page > 1 && <LinkButton href={boardUrl(asked, { page: board.page - 1 })}>Previous page</LinkButton>}
          <p>
            Page {board.page} of {board.pages}, {total} jobs
          </p>
          {board.page < board.pages && <LinkButton href={boardUrl(asked, { page: board.page + 1 })}>Next page</LinkButton>}
        </nav>
      )}
    </div>
  );
}

/** All else that the board leads to, behind one key. */
function More({ asked, callsDue, instruments }: Pick<Props, "asked" | "callsDue" | "instruments">) {
  return (
    <DropPanel
      label={
        <>
          <Menu aria-hidden size={18} /> <span className="max-sm:sr-only">More</span>
          {callsDue > 0 && (
            <span className="text-amber lg:sr-only">
              {callsDue} <span className="sr-only">due</span>
            </span>
          )}
        </>
      }
      panel="right-0 mt-1 w-[min(26rem,calc(100vw-2rem))]"
    >
      <div className="flex flex-col gap-3">
        <nav aria-label="Everything else" className="grid grid-cols-2 gap-2">
          <LinkButton href="/calls">
            <PhoneCall aria-hidden size={18} /> Follow-ups {callsDue > 0 && <span className="text-amber">{callsDue} due</span>}
          </LinkButton>
          <LinkButton href="/reckoner">
            <Calculator aria-hidden size={18} /> Calculator
          </LinkButton>
          <LinkButton href="/practice">
            <GraduationCap aria-hidden size={18} /> Practice
          </LinkButton>
          <LinkButton href="/shop">
            <Settings2 aria-hidden size={18} /> Shop
          </LinkButton>
          <ImportJob />
          <LinkButton href={boardUrl(asked, { all: asked.all ? "" : "1" })}>
            {asked.all ? "Hide closed jobs" : "Show closed jobs"}
          </LinkButton>
        </nav>
        <nav aria-label="Straight to an instrument" className="flex flex-wrap items-center gap-2 border-t border-line pt-3">
          <span className="basis-full text-muted">Straight to an instrument</span>
          {instruments.map(([id, name]) => (
            <LinkButton key={id} href={`/start?check=${id}`}>
              {name}
            </LinkButton>
          ))}
        </nav>
        <div className="border-t border-line pt-3">
          <ThemeSwitch />
        </div>
      </div>
    </DropPanel>
  );
}

/** Words to look for, and what else is asked; kept in the address, so that it can be sent on and gone back to. */
function SearchForm({ asked, people, families }: { asked: BoardFilter; people: readonly string[]; families: readonly string[] }) {
  const more = [asked.waiting, asked.person, asked.family, asked.quiet, asked.due].filter(Boolean).length;
  const any = (label: string) => ["", label] as const;
  return (
    <form action="/" className="flex min-w-0 grow items-center gap-2">
      <label className="sr-only" htmlFor="search">
        Search jobs
      </label>
      <input
        id="search"
        name="q"
        defaultValue={asked.q}
        placeholder="Registration, vehicle, code, complaint"
        className="min-h-11 w-full min-w-0 rounded-md border border-edge bg-raised px-3"
      />
      {asked.all && <input type="hidden" name="all" value="1" />}
      <Button type="submit" aria-label="Search" className="!px-3">
        <Search aria-hidden size={18} />
      </Button>
      <DropPanel
        name={more > 0 ? `Filter, ${more} set` : "Filter"}
        label={
          <>
            <SlidersHorizontal aria-hidden size={18} />
            <span className="max-sm:sr-only">Filter</span>
            {more > 0 && <span className="text-amber">{more}</span>}
          </>
        }
        panel="right-0 mt-1 w-[min(40rem,calc(100vw-2rem))] max-sm:bottom-full max-sm:mb-3"
      >
        <div className="grid items-end gap-3 sm:grid-cols-2">
          <SelectField
            label="Waiting for"
            name="waiting"
            defaultValue={asked.waiting}
            options={[any("Anything"), ...LANES.slice(0, -1)]}
          />
          <SelectField
            label="Worked on last by"
            name="person"
            defaultValue={asked.person}
            options={[any("Anybody"), ...people.map((p) => [p, p] as const)]}
          />
          <SelectField
            label="Kind of fault"
            name="family"
            defaultValue={asked.family}
            options={[any("Any"), ...families.map((f) => [f, FAMILY_WORDS[f] ?? f] as const)]}
          />
          <SelectField
            label="Nothing written for"
            name="quiet"
            defaultValue={asked.quiet}
            options={[any("Any time"), ["1", "A day"], ["3", "3 days"], ["7", "A week"], ["30", "A month"]]}
          />
          <SelectField
            label="Re-check due"
            name="due"
            defaultValue={asked.due}
            options={[any("Any date"), ["1", "Due today or before"]]}
          />
          <div className="flex gap-2 whitespace-nowrap">
            <Button type="submit" look="primary">
              Apply
            </Button>
            {more > 0 && (
              <LinkButton href={boardUrl({ ...asked, waiting: "", person: "", family: "", quiet: "", due: "" }, {})} look="bare">
                Clear filter
              </LinkButton>
            )}
          </div>
        </div>
      </DropPanel>
    </form>
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

function Lane({ title, jobs, count }: { title: string; jobs: readonly BoardJob[]; count: number }) {
  return (
    <section aria-label={title}>
      <h2 className="mb-1 text-muted">
        {title} <span className="text-ink">{count}</span>
        {count > jobs.length && <span className="text-sm"> · {jobs.length} on this page</span>}
      </h2>
      <DividedList>
        {jobs.map((job) => (
          <li key={job.id}>
            <JobRow job={job} />
          </li>
        ))}
      </DividedList>
    </section>
  );
}

/** Label in place of the station where a job's work is over, or is looked at again. */
const BOARD_WORDS: Readonly<Record<string, string>> = {
  review: "Look again",
  closed: "Handed over",
  "handed-over": "Handed over",
  elsewhere: "From another shop",
};

function JobRow({ job }: { job: BoardJob }) {
  const terms = useTerms();
  const station = job.station as StationId;
  const index = STATIONS.indexOf(station);
  const words = BOARD_WORDS[job.status];
  const finished = words !== undefined && job.status !== "review";
  return (
    <PageLink
      href={`/jobs/${job.id}`}
      className="grid min-h-14 grid-cols-[2.5rem_1fr] items-center gap-x-3 px-1 py-1.5 leading-5 hover:bg-raised lg:grid-cols-[3rem_17rem_1fr_24rem]"
    >
      <span className="font-mono text-xl">{job.number}</span>
      <span className="min-w-0">
        <span className="block truncate font-bold">{terms(job.vehicle) || "Vehicle not described yet"}</span>
        <span className="block truncate text-sm text-muted">
          {job.registration} {job.codes && <span className="ml-2 font-mono">{job.codes}</span>}
        </span>
      </span>
      <span className="col-start-2 line-clamp-1 min-w-0 text-sm text-muted lg:col-start-auto lg:line-clamp-2">
        {job.complaint}
      </span>
      <span className="col-start-2 min-w-0 lg:col-start-auto">
        <span aria-hidden className="mb-1 flex gap-1 max-lg:hidden">
          {STATIONS.map((s, i) => (
            <span
              key={s}
              className={`h-1 grow rounded-full ${finished || i < index ? "bg-calm" : i === index ? "bg-accent" : "bg-line"}`}
            />
          ))}
        </span>
        <span className="line-clamp-1 text-sm">
          <span className={job.status === "review" ? "text-ember" : finished ? "text-calm" : "text-live"}>
            {words ?? STATION_NAMES[station]}
          </span>
          <span className="text-muted">
            {finished ? "" : ` · ${job.reason}`} ·{" "}
            <time dateTime={job.updatedAt} suppressHydrationWarning>
              {ago(job.updatedAt)}
            </time>
          </span>
        </span>
      </span>
    </PageLink>
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
