"use client";

import { useEffect, useState } from "react";
import { v4 as uuid } from "uuid";
import {
  afterNo,
  again,
  type DeviceJournal,
  type Entry,
  type Held,
  heldOf,
  heldUp,
  type JournalEntry,
  type Kept,
  lostBy,
  nextTry,
  openedEntry,
  openingOf,
  received,
  type ServerAnswer,
  toBeSigned,
} from "@/core/journal";
import { SIGN_IN } from "@/core/people";
import { getJson, Refused, sendJson } from "./api";
import { deviceId } from "./device";
import { changeKept, freeLeases, keep, readKept, takeOn } from "./device-store";
import { sendPicturesOf } from "./picture-outbox";
import { lock, signedHere, signedInNow } from "./sign-in";

/** A journal that is open in this tab: asked what it holds, told what came back, and when another tab has sent. */
interface Follower {
  readonly held: () => Held;
  readonly catchUp: () => Promise<void>;
  readonly take: (answer: ServerAnswer) => void;
}
const followers = new Map<string, Follower>();

/** Position of a device, as it is asked with. */
const heldQuery = ({ behind, last }: Held) => new URLSearchParams({ behind: String(behind), last });

/** Lets an open journal take what is sent of its job; @returns how to leave. */
export function follow(jobId: string, follower: Follower): () => void {
  followers.set(jobId, follower);
  return () => {
    if (followers.get(jobId) === follower) followers.delete(jobId);
  };
}

/** Entries that a form here is waiting for: they show once it has its answer, and is cleared in the same moment. */
const recording = new Set<string>();
/** Forms that wait, and what came from the server meanwhile */
let pending = 0;
let arrived: (() => void)[] = [];

/** Takes in what came from the server; while a form waits for its answer, together with that. */
export function whenRecorded(take: () => void): Promise<void> {
  return new Promise((done) => {
    const taken = () => {
      take();
      done();
    };
    if (pending > 0) arrived.push(taken);
    else taken();
  });
}

let snapshot: readonly Kept[] = [];
const NOTHING: readonly Kept[] = [];
const listeners = new Set<() => void>();
let channel: BroadcastChannel | undefined;
let timer: ReturnType<typeof setTimeout> | undefined;

/** Shows what is kept now, and sets the clock for the next try. */
async function refresh(): Promise<void> {
  snapshot = (await readKept()).filter((k) => !recording.has(k.id));
  for (const tell of listeners) tell();
  clearTimeout(timer);
  const due = nextTry(snapshot);
  if (due !== undefined) timer = setTimeout(() => void flush(), Math.max(500, due - Date.now()));
}

/** The same, in this device's other tabs too. */
async function changed(jobId: string): Promise<void> {
  channel?.postMessage(jobId);
  await refresh();
}

/**
 * This tab's name in leases: the same on every page it shows, so that what one page had taken on when it was left is not
 * waited for on the next. Sent twice, an entry is recorded once.
 */
function tab(): string {
  const known = sessionStorage.getItem(TAB);
  const name = known ?? uuid();
  if (!known) sessionStorage.setItem(TAB, name);
  return name;
}
const TAB = "pelota.tab";
let running: Promise<void> = Promise.resolve();

/**
 * Sends what waits, in order, from whatever page; one round after the other.
 * @param hurry somebody is waiting for it: pauses after tries in vain do not count.
 */
function flush(hurry = false): Promise<void> {
  // Whatever becomes of a round, the clock is set for the next one.
  running = running
    .then(() => sendAll(hurry))
    .then(refresh)
    .catch(() => {});
  return running;
}

async function sendAll(hurry: boolean): Promise<void> {
  // Once something was sent in vain there is no hurry any more: the rest waits for its time.
  for (let now = hurry; ; ) {
    const batch = await takeOn(tab(), Date.now(), now);
    const [first] = batch;
    if (!first) return;
    const { jobId } = first.entry;
    const ids = batch.map((k) => k.id);
    try {
      await send(jobId, await signedAnew(batch));
      await changeKept(ids, () => undefined);
    } catch (error) {
      now = false;
      const status = error instanceof Refused ? error.status : undefined;
      if (error instanceof Refused && error.path === SIGN_IN) lockIfEnded(batch);
      await changeKept(ids, (k) => afterNo(k, status, (error as Error).message, Date.now()));
    }
    await changed(jobId);
  }
}

/** The sign-in that this device holds signs nothing any more: whoever it was comes in anew. */
function lockIfEnded(batch: readonly Kept[]): void {
  const here = signedInNow()?.signIn;
  if (here !== undefined && batch.some((k) => k.entry.signed?.signIn === here)) lock();
}

/** Entries of who is in that wait for a signature get one, and keep it: sent again, they are the same. */
async function signedAnew(batch: readonly Kept[]): Promise<Entry[]> {
  const name = signedInNow()?.name;
  const anew = batch.filter((k) => name !== undefined && toBeSigned(k, name));
  if (anew.length === 0) return batch.map((k) => k.entry);
  const signed = new Map(anew.map((k) => [k.id, signedAsSent(k.entry)]));
  await changeKept([...signed.keys()], ({ asks: _, ...k }) => ({ ...k, entry: signed.get(k.id) ?? k.entry }));
  return batch.map((k) => signed.get(k.id) ?? k.entry);
}

/** An entry under the signature of who is in; of an opening what is sent is signed. */
const signedAsSent = (entry: Entry): Entry =>
  entry.kind === "opened" ? openedEntry(signedHere(openingOf(entry))) : signedHere(entry);

async function send(jobId: string, entries: readonly Entry[]): Promise<void> {
  const [first] = entries;
  // A job is opened by a batch of its own.
  if (first?.kind === "opened") {
    await sendJson("POST", "jobs", openingOf(first));
    return;
  }
  await sendPicturesOf(jobId, entries);
  const follower = followers.get(jobId);
  if (!follower) {
    await sendJson<JournalEntry[]>("POST", `jobs/${jobId}/entries`, entries);
    return;
  }
  const answer = await sendJson<ServerAnswer>("POST", `jobs/${jobId}/entries?${heldQuery(follower.held())}`, entries);
  void whenRecorded(() => follower.take(answer));
}

/** How long a form waits for the server's word before its entries count as waiting, ms. */
const PATIENCE = 4000;

/**
 * Records entries: kept on this device first, then sent. Throws where this device cannot keep them.
 * @returns what the server had against them, where it said so at once (they are not kept then); undefined otherwise.
 */
export async function record(entries: readonly Entry[]): Promise<string | undefined> {
  const ids = new Set(entries.map((e) => e.id));
  for (const id of ids) recording.add(id);
  pending++;
  try {
    await keep(entries);
    await Promise.race([untilSent(ids, Date.now() + PATIENCE), pause(PATIENCE)]);
    const refused = (await readKept()).find((k) => ids.has(k.id) && k.refused)?.refused;
    if (refused) await changeKept([...ids], () => undefined);
    return refused?.message;
  } finally {
    for (const id of ids) recording.delete(id);
    await changed((entries[0] as Entry).jobId).catch(() => {});
    pending--;
    for (const take of arrived) take();
    arrived = [];
  }
}

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/** Whether everything that waited of a job has gone up. */
export const isSent = async (jobId: string): Promise<boolean> => (await readKept()).every((k) => k.entry.jobId !== jobId);

/** Until the server has said yes, no or nothing; another tab may be the one that sends. */
async function untilSent(ids: ReadonlySet<string>, until: number): Promise<void> {
  for (;;) {
    await flush(true);
    const all = await readKept();
    const held = heldUp(all);
    const open = all.some((k) => ids.has(k.id) && !k.refused && !held.has(k.id));
    // Where anything went out in vain just now, the rest waits for its time too.
    const inVain = all.some((k) => k.tries > 0);
    if (!open || inVain || Date.now() > until) return;
    await pause(150);
  }
}

/** Takes an answer of the server into a journal; what this device made and the server has lost goes back among what waits. */
export function takenIn(journal: DeviceJournal, answer: ServerAnswer): DeviceJournal {
  const lost = lostBy(journal, answer, deviceId());
  if (lost.length > 0) void putBack(lost).catch(() => {});
  return received(journal, answer);
}

async function putBack(entries: readonly Entry[]): Promise<void> {
  for (const entry of entries) await keep([entry]);
  await flush();
}

/** Entries of a job at the server that a device lacks. */
export const fetchBehind = (jobId: string, journal: DeviceJournal) =>
  getJson<ServerAnswer>(`jobs/${jobId}/entries?${heldQuery(heldOf(journal))}`);

const batchOf = ({ batch }: Kept) => snapshot.filter((k) => k.batch === batch).map((k) => k.id);

/** Sends a refused entry, and its batch, once more as it is. */
export async function sendAgain(kept: Kept): Promise<void> {
  await changeKept(batchOf(kept), again);
  await flush(true);
  await changed(kept.entry.jobId);
}

/** Gives up a refused entry, and its batch. */
export async function discard(kept: Kept): Promise<void> {
  await changeKept(batchOf(kept), () => undefined);
  await changed(kept.entry.jobId);
  await flush();
}

/** Everything this device keeps that the server has not got for sure, oldest first. */
export function useKept(): readonly Kept[] {
  // Plain state, so that an entry appears in the same drawing in which its form is cleared.
  const [kept, setKept] = useState(NOTHING);
  useEffect(() => {
    const tell = () => setKept(snapshot);
    tell();
    listeners.add(tell);
    return () => {
      listeners.delete(tell);
    };
  }, []);
  return kept;
}

/** Entries waiting to be sent, and what was refused with what waits for it. */
export const sorted = (kept: readonly Kept[]) => {
  const held = heldUp(kept);
  return {
    waiting: kept.filter((k) => !k.refused && !held.has(k.id)),
    refused: kept.filter((k) => k.refused),
    held: kept.filter((k) => held.has(k.id)),
  };
};

/** Somebody has signed in: what waited for their signature goes out. */
export const sendNow = (): Promise<void> => flush(true);

/** Sends from any page what waits on this device, for as long as one is open. */
export function useSender(): void {
  useEffect(() => {
    channel = new BroadcastChannel("pelota.kept");
    channel.onmessage = ({ data }: MessageEvent<string | { readonly left: string }>) => {
      if (typeof data !== "string") {
        void freeLeases(data.left)
          .then(() => flush(true))
          .catch(() => {});
        return;
      }
      const jobId = data;
      // What another tab has sent is fetched before it is shown as waiting no more.
      const known = followers.get(jobId)?.catchUp() ?? Promise.resolve();
      void known
        .catch(() => {})
        .then(refresh)
        .catch(() => {});
    };
    const back = () => void flush(true);
    // A tab that is closed while it sends lets the others know: they need not wait for its time to be over.
    const leave = () => channel?.postMessage({ left: tab() });
    window.addEventListener("online", back);
    window.addEventListener("pagehide", leave);
    void refresh().catch(() => {});
    void flush();
    return () => {
      window.removeEventListener("online", back);
      window.removeEventListener("pagehide", leave);
      channel?.close();
      channel = undefined;
      clearTimeout(timer);
    };
  }, []);
}
