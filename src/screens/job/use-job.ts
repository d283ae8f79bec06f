"use client";

import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { type CheckContext, type CheckId, contextOf } from "@/core/checks";
import {
  type DeviceJournal,
  foldJob,
  heldOf,
  type JobState,
  type JournalEntry,
  type ServerAnswer,
  type StationId,
  seenThrough,
  shown,
  withOutbox,
} from "@/core/journal";
import { hintStands, isOver, skippedWaits, skips } from "@/core/practice/bay-entries";
import type { Shop } from "@/core/shop/settings";
import { type AirMap, airMapOf, type Layout } from "@/core/vehicle";
import { useChanges } from "../session/changes";
import { makeEntries, type NewEntry } from "../session/device";
import { saveCopy } from "../session/device-store";
import { fetchBehind, follow, record, takenIn, useKept, whenRecorded } from "../session/outbox";
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

/** Opens a station; at the instruments, the one that a check is made with. */
export type Go = (station: StationId, check?: CheckId) => void;

const Context = createContext<Job | undefined>(undefined);
export const JobProvider = Context.Provider;

export function useJob(): Job {
  const job = useContext(Context);
  if (!job) throw new Error("useJob needs a JobProvider above it");
  return job;
}

/** An entry at the bay's own time, where waits were skipped. */
function inBayTime(one: NewEntry, ahead: number): NewEntry {
  const later = (iso: string) => new Date(Date.parse(iso) + ahead).toISOString();
  const { at = new Date().toISOString() } = one;
  return { ...one, at: typeof at === "string" ? later(at) : { from: later(at.from), to: later(at.to) } };
}

/** In a practice bay the suspects' reasons are a hint, on request and at a price; at the end everything is told. */
function withoutHints(state: JobState, entries: readonly JournalEntry[]): JobState {
  if (!state.practice || hintStands(entries) || isOver(entries)) return state;
  return { ...state, suspects: [], next: [] };
}

const wholeMinute = (ms: number) => Math.floor(ms / 60000) * 60000;
const REFRESH = 15000;
/** What comes in a burst is copied once, ms. */
const SETTLED = 500;

/**
 * The journal on this device: what the server recorded plus what it has not got yet, folded together.
 * @param initial as this device last had it: the server catches it up.
 */
export function useJournal(jobId: string, initial: DeviceJournal, shop: Shop): Job {
  const [journal, setJournal] = useState(initial);
  // Judging rests on the clock only through gates: a minute is fine enough.
  const [minute, setMinute] = useState(() => wholeMinute(Date.now()));
  const { person, ask } = usePerson();
  const latest = useRef(journal);
  /** How far a practice bay's clock runs ahead, ms; a real job's is the wall's */
  const ahead = useRef<number>(undefined);

  const take = useCallback((answer: ServerAnswer) => {
    const before = latest.current;
    latest.current = takenIn(before, answer);
    if (latest.current !== before) setJournal(latest.current);
  }, []);

  useEffect(() => {
    const copying = setTimeout(() => void saveCopy(jobId, journal).catch(() => {}), SETTLED);
    return () => clearTimeout(copying);
  }, [jobId, journal]);

  const catchUp = useCallback(async () => {
    const answer = await fetchBehind(jobId, latest.current);
    await whenRecorded(() => take(answer));
  }, [jobId, take]);

  const heard = useCallback(
    (changed?: string) => {
      if (changed === undefined || changed === jobId) void catchUp().catch(() => {});
    },
    [catchUp, jobId],
  );
  useChanges(heard);

  useEffect(() => {
    const leave = follow(jobId, { held: () => heldOf(latest.current), catchUp, take });
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
        // What is driven there takes no time here: it ends as far ahead as it lasted.
        const timed =
          ahead.current === undefined ? wanted : wanted.map((one) => inBayTime(one, (ahead.current ?? 0) + skips(one)));
        return await record(await makeEntries(jobId, timed, person, seenThrough(latest.current)));
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
  const skipped = useMemo(() => skippedWaits(entries), [entries]);
  const folded = useMemo(() => foldJob(entries, shop, minute + skipped), [entries, shop, minute, skipped]);
  const state = useMemo(() => withoutHints(folded, entries), [folded, entries]);
  ahead.current = state.practice ? skipped : undefined;
  const vehicle = state.vehicle;
  const context = useMemo(
    (): CheckContext | undefined => vehicle && contextOf(vehicle, shop, state.practice),
    [vehicle, shop, state.practice],
  );
  const layout = context?.layout;
  const map = useMemo(() => (layout ? airMapOf(layout) : undefined), [layout]);
  return useMemo(
    () => ({ id: jobId, state, shop, layout, context, map, entries, append }),
    [jobId, state, shop, layout, context, map, entries, append],
  );
}
