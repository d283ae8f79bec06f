"use client";

import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { type CheckContext, contextOf } from "@/core/checks";
import { type Entry, foldJob, type JobState, type JournalEntry } from "@/core/journal";
import type { Shop } from "@/core/shop/settings";
import { type AirMap, airMapOf, type Layout } from "@/core/vehicle";
import { getJson, Offline, Refused, sendJson } from "../session/api";
import { makeEntry, type NewEntry } from "../session/device";
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
  const outboxKey = `pelota.outbox.${jobId}`;
  const [recorded, setRecorded] = useState(initial);
  const [outbox, setOutbox] = useState<readonly Entry[]>([]);
  const asideKey = `pelota.set-aside.${jobId}`;
  const [setAside, setSetAside] = useState<readonly SetAside[]>([]);
  // Judging rests on the clock only through gates: a minute is fine enough.
  const [minute, setMinute] = useState(() => wholeMinute(startNow));
  const { person, ask } = usePerson();
  const latest = useRef({ recorded, outbox });
  latest.current = { recorded, outbox };

  const keep = useCallback(
    (next: readonly Entry[]) => {
      latest.current = { ...latest.current, outbox: next };
      setOutbox(next);
      save(outboxKey, next.length > 0 ? next : undefined);
    },
    [outboxKey],
  );
  const merge = useCallback((fresh: readonly JournalEntry[]) => {
    setRecorded((before) => {
      const known = new Set(before.map((e) => e.id));
      const added = fresh.filter((e) => !known.has(e.id));
      return added.length > 0 ? [...before, ...added] : before;
    });
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

  // One after the other: what the server will not take is set aside and holds up nothing behind it.
  const flush = useCallback(async () => {
    for (let entry = latest.current.outbox[0]; entry; entry = latest.current.outbox[0]) {
      const sent = entry;
      try {
        merge(await sendJson<JournalEntry[]>("POST", `jobs/${jobId}/entries`, sent));
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        putAside([...(load<SetAside[]>(asideKey) ?? []), { entry: sent, message: error.message }]);
      }
      keep(latest.current.outbox.filter((e) => e.id !== sent.id));
    }
  }, [asideKey, jobId, keep, merge, putAside]);

  useEffect(() => {
    const saved = load<Entry[]>(outboxKey);
    if (saved && saved.length > 0) keep(saved);
    setSetAside(load<SetAside[]>(asideKey) ?? []);
  }, [asideKey, outboxKey, keep]);

  useEffect(() => {
    const clock = setInterval(() => setMinute(wholeMinute(Date.now())), 5000);
    const retry = setInterval(() => void flush().catch(() => {}), RETRY);
    const refresh = setInterval(() => {
      const seq = latest.current.recorded.reduce((max, e) => Math.max(max, e.seq), 0);
      getJson<JournalEntry[]>(`jobs/${jobId}/entries?after=${seq}`).then(merge, () => {});
    }, REFRESH);
    return () => {
      clearInterval(clock);
      clearInterval(retry);
      clearInterval(refresh);
    };
  }, [flush, jobId, merge]);

  const append = useCallback(
    async (...wanted: NewEntry[]) => {
      if (!person) {
        ask();
        return "Say who you are first: pick a name, then do it again. What you typed is kept";
      }
      const seenSeq = latest.current.recorded.reduce((max, e) => Math.max(max, e.seq), 0);
      const made = wanted.map((w) => makeEntry(jobId, w, person, seenSeq));
      try {
        await flush();
        merge(await sendJson<JournalEntry[]>("POST", `jobs/${jobId}/entries`, made));
        return undefined;
      } catch (error) {
        if (error instanceof Refused) return error.message;
        if (!(error instanceof Offline)) throw error;
        keep([...latest.current.outbox, ...made]);
        return undefined;
      }
    },
    [ask, flush, jobId, keep, merge, person],
  );

  const entries = useMemo(() => {
    const top = recorded.reduce((max, e) => Math.max(max, e.seq), 0);
    const pending = outbox.map((e, i): JournalEntry => ({ ...e, seq: top + i + 1, recordedAt: new Date(minute).toISOString() }));
    return [...recorded, ...pending];
  }, [recorded, outbox, minute]);
  const state = useMemo(() => foldJob(entries, shop, minute), [entries, shop, minute]);
  const vehicle = state.vehicle;
  const context = useMemo((): CheckContext | undefined => vehicle && contextOf(vehicle, shop), [vehicle, shop]);
  const layout = context?.layout;
  const map = useMemo(() => (layout ? airMapOf(layout) : undefined), [layout]);
  return useMemo(
    () => ({ id: jobId, state, shop, layout, context, map, entries, unsent: outbox.length, setAside, discard, append }),
    [jobId, state, shop, layout, context, map, entries, outbox.length, setAside, discard, append],
  );
}
