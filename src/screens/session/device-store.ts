"use client";

import { type DBSchema, openDB } from "idb";
import type { Entry } from "@/core/journal";
import { load, save } from "./storage";

/** What every tab of this device shares: its count of entries, and what it could not send yet. */
interface DeviceStore extends DBSchema {
  counts: { key: string; value: number };
  outbox: { key: string; value: Entry; indexes: { job: string } };
}

const COUNT = "deviceSeq";
/** Where the count and the outboxes stood before all tabs shared one store. */
const OLD_COUNT = "pelota.deviceSeq";
const oldOutbox = (jobId: string) => `pelota.outbox.${jobId}`;

const open = () =>
  openDB<DeviceStore>("pelota", 1, {
    upgrade(db) {
      db.createObjectStore("counts");
      db.createObjectStore("outbox", { keyPath: "id" }).createIndex("job", "jobId");
    },
  });
let store: ReturnType<typeof open> | undefined;
const device = () => {
  store ??= open();
  return store;
};

/** The next numbers of this device's own count of entries: no two tabs ever get the same. */
export async function nextDeviceSeqs(count: number): Promise<number[]> {
  const tx = (await device()).transaction("counts", "readwrite");
  const last = (await tx.store.get(COUNT)) ?? load<number>(OLD_COUNT) ?? 0;
  await tx.store.put(last + count, COUNT);
  await tx.done;
  return Array.from({ length: count }, (_, i) => last + 1 + i);
}

/** Entries of a job that this device has made and the server has not got yet, in the order they were made. */
export async function readOutbox(jobId: string): Promise<Entry[]> {
  const db = await device();
  const before = load<Entry[]>(oldOutbox(jobId));
  if (before) {
    await keepInOutbox(before);
    save(oldOutbox(jobId), undefined);
  }
  return (await db.getAllFromIndex("outbox", "job", jobId)).sort((a, b) => a.deviceSeq - b.deviceSeq);
}

export async function keepInOutbox(entries: readonly Entry[]): Promise<void> {
  const tx = (await device()).transaction("outbox", "readwrite");
  for (const entry of entries) await tx.store.put(entry);
  await tx.done;
}

export async function dropFromOutbox(ids: readonly string[]): Promise<void> {
  const tx = (await device()).transaction("outbox", "readwrite");
  for (const id of ids) await tx.store.delete(id);
  await tx.done;
}

/** Tells this device's other tabs that something of a job has changed, and hears it from them. */
export function otherTabs(jobId: string, changed: () => void): { readonly tell: () => void; readonly leave: () => void } {
  const channel = new BroadcastChannel(`pelota.${jobId}`);
  channel.onmessage = changed;
  return { tell: () => channel.postMessage("changed"), leave: () => channel.close() };
}
