"use client";

import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { type CheckContext, contextOf } from "@/core/checks";
import {
  deviceJournal,
  foldJob,
  type JobState,
  type JournalEntry,
  received,
  type ServerAnswer,
  seenThrough,
  shown,
  withOutbox,
} from "@/core/journal";
import type { Shop } from "@/core/shop/settings";
import { type AirMap, airMapOf, type Layout } from "@/core/vehicle";
import { getJson } from "../session/api";
import { useChanges } from "../session/changes";
import { makeEntries, type NewEntry } from "../session/device";
import { follow, record, useKept } from "../session/outbox";
import { usePerson } from "../session/person";

export interface Job {
  readonly id: string;
  readonly state: JobState;
  readonly shop: Shop;
  readonly layout: Layout | undefined;
  /** What checks are planned and judged by; undefined until the vehicle is described */
  readonly context: CheckContext | undefined;
  readonly map: AirMap | undefined;
  /** The journal: what the server recorded, then what it has not got yet */
  readonly entries: readonly JournalEntry[];
  /** Records entries, all or none; the message says what was wrong, undefined when they are in. */
  readonly append: (...wanted: NewEntry[]) => Promise<string | undefined>;
}

const Context = createContext<Job | undefined>(undefined);
export const JobProvider = Context.Provider;

export function useJob(): Job {
  const job = useContext(Context);
  if (!job) throw new Error("useJob needs a JobProvider above it");
  return job;
}

const wholeMinute = (ms: number) => Math.floor(ms / 60000) * 60000;
const REFRESH = 15000;

/** The journal on this device: what the server recorded plus what it has not got yet, folded together. */
export function useJournal(jobId: string, initial: readonly JournalEntry[], shop: Shop, startNow: number): Job {
  const [journal, setJournal] = useState(() => deviceJournal(initial));
  // Judging rests on the clock only through gates: a minute is fine enough.
  const [minute, setMinute] = useState(() => wholeMinute(startNow));
  const { person, ask } = usePerson();
  const latest = useRef(journal);

  const take = useCallback((answer: ServerAnswer) => {
    const before = latest.current;
    latest.current = received(before, answer);
    if (latest.current !== before) setJournal(latest.current);
  }, []);

  const catchUp = useCallback(
    async () => take(await getJson<ServerAnswer>(`jobs/${jobId}/entries?behind=${seenThrough(latest.current)}`)),
    [jobId, take],
  );

  const heard = useCallback(
    (changed?: string) => {
      if (changed === undefined || changed === jobId) void catchUp().catch(() => {});
    },
    [catchUp, jobId],
  );
  useChanges(heard);

  useEffect(() => {
    const leave = follow(jobId, { behind: () => seenThrough(latest.current), catchUp, take });
    const look = () => void catchUp().catch(() => {});
    // Whoever comes back to this page may be handed what it showed when it was left.
    look();
    const clock = setInterval(() => setMinute(wholeMinute(Date.now())), 5000);
    const refresh = setInterval(look, REFRESH);
    return () => {
      leave();
      clearInterval(clock);
      clearInterval(refresh);
    };
  }, [catchUp, jobId, take]);

  const append = useCallback(
    async (...wanted: NewEntry[]) => {
      if (!person) {
        ask();
        return "Say who you are first: pick a name, then do it again. What you typed is kept";
      }
      try {
        return await record(await makeEntries(jobId, wanted, person, seenThrough(latest.current)));
      } catch (error) {
        return `This device could not keep it: ${(error as Error).message}`;
      }
    },
    [ask, jobId, person],
  );

  const kept = useKept();
  const entries = useMemo(() => {
    const outbox = shown(kept.filter((k) => k.entry.jobId === jobId));
    return withOutbox(journal, outbox, new Date(minute).toISOString());
  }, [journal, jobId, kept, minute]);
  const state = useMemo(() => foldJob(entries, shop, minute), [entries, shop, minute]);
  const vehicle = state.vehicle;
  const context = useMemo((): CheckContext | undefined => vehicle && contextOf(vehicle, shop), [vehicle, shop]);
  const layout = context?.layout;
  const map = useMemo(() => (layout ? airMapOf(layout) : undefined), [layout]);
  return useMemo(
    () => ({ id: jobId, state, shop, layout, context, map, entries, append }),
    [jobId, state, shop, layout, context, map, entries, append],
  );
}
