"use client";

import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { type CheckContext, contextOf } from "@/core/checks";
import {
  type DeviceJournal,
  deviceJournal,
  type Entry,
  foldJob,
  type JobState,
  type JournalEntry,
  queued,
  received,
  type ServerAnswer,
  seenThrough,
  withdrawn,
  withOutbox,
} from "@/core/journal";
import type { Shop } from "@/core/shop/settings";
import { type AirMap, airMapOf, type Layout } from "@/core/vehicle";
import { getJson, Offline, Refused, sendJson } from "../session/api";
import { makeEntries, type NewEntry } from "../session/device";
import { dropFromOutbox, keepInOutbox, otherTabs, readOutbox } from "../session/device-store";
import { usePerson } from "../session/person";
import { load, save } from "../session/storage";

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
  /** Entries made here that the server has not got yet */
  readonly unsent: number;
  /** Entries made here without a connection that the server would not take: kept, with its reason, until discarded */
  readonly setAside: readonly SetAside[];
  readonly discard: (entry: string) => void;
  /** Records entries, all or none; the message says what was wrong, undefined when they are in. */
  readonly append: (...wanted: NewEntry[]) => Promise<string | undefined>;
}

export interface SetAside {
  readonly entry: Entry;
  readonly message: string;
}

const Context = createContext<Job | undefined>(undefined);
export const JobProvider = Context.Provider;

export function useJob(): Job {
  const job = useContext(Context);
  if (!job) throw new Error("useJob needs a JobProvider above it");
  return job;
}

const wholeMinute = (ms: number) => Math.floor(ms / 60000) * 60000;
const RETRY = 5000;
const REFRESH = 15000;

/** The journal on this device: what the server recorded plus what it has not got yet, folded together. */
export function useJournal(jobId: string, initial: readonly JournalEntry[], shop: Shop, startNow: number): Job {
  const asideKey = `pelota.set-aside.${jobId}`;
  const [journal, setJournal] = useState(() => deviceJournal(initial));
  const [setAside, setSetAside] = useState<readonly SetAside[]>([]);
  // Judging rests on the clock only through gates: a minute is fine enough.
  const [minute, setMinute] = useState(() => wholeMinute(startNow));
  const { person, ask } = usePerson();
  const latest = useRef(journal);
  const tabs = useRef<ReturnType<typeof otherTabs>>(undefined);

  const change = useCallback((next: (before: DeviceJournal) => DeviceJournal) => {
    const before = latest.current;
    latest.current = next(before);
    if (latest.current !== before) setJournal(latest.current);
    return latest.current;
  }, []);

  const putAside = useCallback(
    (next: readonly SetAside[]) => {
      setSetAside(next);
      save(asideKey, next.length > 0 ? next : undefined);
    },
    [asideKey],
  );
  const discard = useCallback(
    (entry: string) => putAside((load<SetAside[]>(asideKey) ?? []).filter((s) => s.entry.id !== entry)),
    [asideKey, putAside],
  );

  const catchUp = useCallback(async () => {
    const answer = await getJson<ServerAnswer>(`jobs/${jobId}/entries?behind=${seenThrough(latest.current)}`);
    change((before) => received(before, answer));
  }, [jobId, change]);

  const post = useCallback(
    async (entries: readonly Entry[]) => {
      const behind = seenThrough(latest.current);
      const answer = await sendJson<ServerAnswer>("POST", `jobs/${jobId}/entries?behind=${behind}`, entries);
      change((before) => received(before, answer));
      tabs.current?.tell();
    },
    [jobId, change],
  );

  // One after the other: what the server will not take is set aside and holds up nothing behind it.
  const flush = useCallback(async () => {
    for (let entry = latest.current.outbox[0]; entry; entry = latest.current.outbox[0]) {
      const { id } = entry;
      try {
        await post([entry]);
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        putAside([...(load<SetAside[]>(asideKey) ?? []).filter((s) => s.entry.id !== id), { entry, message: error.message }]);
        change((before) => withdrawn(before, [id]));
      }
      await dropFromOutbox([id]);
    }
  }, [asideKey, change, post, putAside]);

  useEffect(() => {
    const reload = () => {
      readOutbox(jobId).then(
        (kept) => change((before) => queued(before, kept)),
        () => {},
      );
      setSetAside(load<SetAside[]>(asideKey) ?? []);
    };
    reload();
    const here = otherTabs(jobId, () => {
      reload();
      void catchUp().catch(() => {});
    });
    tabs.current = here;
    return here.leave;
  }, [asideKey, catchUp, change, jobId]);

  useEffect(() => {
    const clock = setInterval(() => setMinute(wholeMinute(Date.now())), 5000);
    const retry = setInterval(() => void flush().catch(() => {}), RETRY);
    const refresh = setInterval(() => void catchUp().catch(() => {}), REFRESH);
    return () => {
      clearInterval(clock);
      clearInterval(retry);
      clearInterval(refresh);
    };
  }, [catchUp, flush]);

  const append = useCallback(
    async (...wanted: NewEntry[]) => {
      if (!person) {
        ask();
        return "Say who you are first: pick a name, then do it again. What you typed is kept";
      }
      const made = await makeEntries(jobId, wanted, person, seenThrough(latest.current));
      try {
        await flush();
        await post(made);
        return undefined;
      } catch (error) {
        if (error instanceof Refused) return error.message;
        if (!(error instanceof Offline)) throw error;
        await keepInOutbox(made);
        change((before) => queued(before, made));
        tabs.current?.tell();
        return undefined;
      }
    },
    [ask, change, flush, jobId, person, post],
  );

  const entries = useMemo(() => withOutbox(journal, new Date(minute).toISOString()), [journal, minute]);
  const state = useMemo(() => foldJob(entries, shop, minute), [entries, shop, minute]);
  const vehicle = state.vehicle;
  const context = useMemo((): CheckContext | undefined => vehicle && contextOf(vehicle, shop), [vehicle, shop]);
  const layout = context?.layout;
  const map = useMemo(() => (layout ? airMapOf(layout) : undefined), [layout]);
  const unsent = journal.outbox.length;
  return useMemo(
    () => ({ id: jobId, state, shop, layout, context, map, entries, unsent, setAside, discard, append }),
    [jobId, state, shop, layout, context, map, entries, unsent, setAside, discard, append],
  );
}
