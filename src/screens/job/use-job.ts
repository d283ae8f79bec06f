"use client";

import {
  createContext,
  type RefObject,
  useCallback,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { type CheckContext, type CheckId, contextOf } from "@/core/checks";
import { requiredOf } from "@/core/checks/evap-fields";
import {
  type Bodies,
  canonicalJson,
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
import { bayAhead, hintStands, inBayTime, isOver, latestIn } from "@/core/practice/bay-entries";
import type { Shop } from "@/core/shop/settings";
import type { Tally } from "@/core/suspects";
import { type AirMap, airMapOf, type Layout } from "@/core/vehicle";
import { useChanges } from "../session/changes";
import { makeEntries, type NewEntry } from "../session/device";
import { cannotKeep, saveCopy } from "../session/device-store";
import { fetchBehind, follow, record, takenIn, useKept, whenRecorded } from "../session/outbox";
import { usePerson } from "../session/person";
import { usePreferences } from "../session/preferences";
import { knownRoles } from "../session/sign-in";

export interface Job {
  readonly id: string;
  readonly state: JobState;
  readonly shop: Shop;
  readonly layout: Layout | undefined;
  /** Context that checks are planned and judged by; undefined until the vehicle is described */
  readonly context: CheckContext | undefined;
  readonly map: AirMap | undefined;
  /** The journal: what the server recorded, then what it has not got yet */
  readonly entries: readonly JournalEntry[];
  /** Experience from the shop's own proved jobs of such a car, whether it is looked at or not */
  readonly experience?: Tally | undefined;
  /** Records entries, all or none; the message says what was wrong, undefined when they are in. */
  readonly append: (...wanted: NewEntry[]) => Promise<string | undefined>;
  /** The journal once all that was recorded here before stands in it */
  readonly settled: () => Promise<readonly JournalEntry[]>;
}

/** Opens a station; at the instruments, the one that a check is made with, at the place that is asked for. */
export type Go = (station: StationId, check?: CheckId, place?: string) => void;

const Context = createContext<Job | undefined>(undefined);
export const JobProvider = Context.Provider;

export function useJob(): Job {
  const job = useContext(Context);
  if (!job) throw new Error("useJob needs a JobProvider above it");
  return job;
}

/** In a practice bay the suspects' reasons are a hint, on request and at a price; at the end everything is told. */
function withoutHints(state: JobState, entries: readonly JournalEntry[]): JobState {
  if (!state.practice || hintStands(entries) || isOver(entries)) return state;
  const { station } = state.nextStation;
  const nextStation = station === "check" ? { station, reason: "Which check, and where, is yours to say" } : state.nextStation;
  const { byHand: _, ...rest } = state;
  return { ...rest, suspects: [], next: [], nextStation };
}

const wholeMinute = (ms: number) => Math.floor(ms / 60000) * 60000;
const REFRESH = 15000;
/** Delay until what is in is drawn within this, ms. */
const DRAWS = 2000;
/** Delay until what comes in a burst is copied once, ms. */
const SETTLED = 500;

/**
 * The journal on this device: what the server recorded plus what it has not got yet, folded together.
 * @param initial as this device last had it: the server catches it up; @param experience moves the suspects, unless this device looks without it.
 */
export function useJournal(jobId: string, initial: DeviceJournal, shop: Shop, experience?: Tally): Job {
  const { experience: wanted } = usePreferences().preferences;
  const [journal, setJournal] = useState(initial);
  // Judging rests on the clock only through gates: a minute is fine enough.
  const [minute, setMinute] = useState(() => wholeMinute(Date.now()));
  const { person, ask } = usePerson();
  const latest = useRef(journal);
  /** Entry that had ended last in a practice bay, and since when that was known here: its clock goes by it. A real job's is the wall's */
  const bay = useRef<(readonly [since: number, latest: number])[]>([]);

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

  /** Entries recorded here and may not be drawn yet, by id */
  const written = useRef<string[]>([]);
  /** Entries being recorded, by what was wanted: a second tap on the same key asks for nothing new */
  const underway = useRef(new Map<string, Promise<string | undefined>>());
  const write = useCallback(
    async (wanted: readonly NewEntry[]) => {
      if (!person) {
        ask();
        return "Sign in first, then do it again. What you typed is kept";
      }
      try {
        const now = new Date().toISOString();
        const { current: known } = bay;
        // What corrects a line has that line's own time already.
        const timed =
          known.length > 0
            ? wanted.map((one) => (one.corrects ? one : { ...one, at: inBayTime(one.kind, one.at ?? now, known) }))
            : wanted;
        const made = await makeEntries(jobId, timed, person, seenThrough(latest.current));
        // What comes next comes after this, drawn yet or not.
        if (known.length > 0) known.push([Date.now(), Math.max(known.at(-1)?.[1] ?? 0, latestIn(made))]);
        const wrong = await record(made);
        if (!wrong) written.current.push(...made.map((e) => e.id));
        return wrong;
      } catch (error) {
        return cannotKeep(error);
      }
    },
    [ask, jobId, person],
  );
  const append = useCallback(
    (...wanted: NewEntry[]) => {
      const same = canonicalJson(wanted);
      const before = underway.current.get(same);
      if (before) return before;
      const now = write(wanted).finally(() => underway.current.delete(same));
      underway.current.set(same, now);
      return now;
    },
    [write],
  );

  const kept = useKept();
  const entries = useMemo(() => {
    const outbox = shown(kept.filter((k) => k.entry.jobId === jobId));
    return withOutbox(journal, outbox, new Date(minute).toISOString(), knownRoles());
  }, [journal, jobId, kept, minute]);
  const settled = useSettled(entries, written, underway);
  const practice = useMemo(() => entries.some((e) => e.kind === "opened" && (e.body as Bodies["opened"]).practice), [entries]);
  const folded = useMemo(
    () => foldJob(entries, shop, minute + (practice ? bayAhead(entries, minute) : 0), wanted ? experience : undefined),
    [entries, shop, minute, practice, wanted, experience],
  );
  const state = useMemo(() => withoutHints(folded, entries), [folded, entries]);
  useLayoutEffect(() => {
    if (!practice) return;
    const ended = latestIn(entries);
    const last = bay.current.at(-1);
    if (!last) bay.current.push([0, ended]);
    else if (ended > last[1]) bay.current.push([Date.now(), ended]);
  }, [practice, entries]);
  const { vehicle, requiredLeak } = state;
  const { diameter, source } = requiredLeak ?? {};
  const context = useMemo((): CheckContext | undefined => {
    const required = diameter === undefined || source === undefined ? undefined : requiredOf({ diameter, source });
    return vehicle && contextOf(vehicle, shop, state.practice, required);
  }, [vehicle, shop, state.practice, diameter, source]);
  const layout = context?.layout;
  const map = useMemo(() => (layout ? airMapOf(layout) : undefined), [layout]);
  return useMemo(
    () => ({ id: jobId, state, shop, layout, context, map, entries, experience, append, settled }),
    [jobId, state, shop, layout, context, map, entries, experience, append, settled],
  );
}

/**
 * The journal once all that was written here is drawn, or it was waited for long enough.
 * @param entries as they are drawn; @param written ids of what was recorded; @param underway what is being recorded.
 */
function useSettled(
  entries: readonly JournalEntry[],
  written: RefObject<string[]>,
  underway: RefObject<ReadonlyMap<string, Promise<unknown>>>,
): Job["settled"] {
  const drawn = useRef<readonly JournalEntry[]>([]);
  /** Who waits until all that was written is drawn */
  const waiting = useRef(new Set<() => void>());
  const isDrawn = useCallback(() => written.current.every((id) => drawn.current.some((e) => e.id === id)), [written]);
  useLayoutEffect(() => {
    drawn.current = entries;
    if (isDrawn()) for (const over of [...waiting.current]) over();
  }, [entries, isDrawn]);
  return useCallback(async () => {
    await Promise.allSettled(underway.current.values());
    if (!isDrawn())
      await new Promise<void>((done) => {
        const over = () => {
          clearTimeout(late);
          waiting.current.delete(over);
          done();
        };
        const late = setTimeout(over, DRAWS);
        waiting.current.add(over);
      });
    written.current = [];
    return drawn.current;
  }, [isDrawn, written, underway]);
}
