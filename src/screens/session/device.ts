"use client";

import { v4 as uuid } from "uuid";
import type { At, Bodies, Entry, EntryKind } from "@/core/journal";
import { load, save } from "./storage";

const DEVICE = "pelota.device";
const SEQ = "pelota.deviceSeq";

/** This device's own name in the journals; made once. */
export function deviceId(): string {
  const known = load<string>(DEVICE);
  if (known) return known;
  const made = uuid();
  save(DEVICE, made);
  return made;
}

/** The next number of this device's own count of entries. */
export function nextDeviceSeq(): number {
  const next = (load<number>(SEQ) ?? 0) + 1;
  save(SEQ, next);
  return next;
}

/** What a screen wants recorded. */
export interface NewEntry<K extends EntryKind = EntryKind> {
  readonly kind: K;
  readonly body: Bodies[K];
  /** Now, unless the thing has its own time */
  readonly at?: At;
  readonly corrects?: string;
  /** Made ahead when another entry of the same batch names it */
  readonly id?: string;
}

export function makeEntry(jobId: string, wanted: NewEntry, by: string, seenSeq: number): Entry {
  return {
    id: wanted.id ?? uuid(),
    jobId,
    kind: wanted.kind,
    v: 1,
    at: wanted.at ?? new Date().toISOString(),
    by,
    device: deviceId(),
    deviceSeq: nextDeviceSeq(),
    seenSeq,
    body: wanted.body,
    ...(wanted.corrects ? { corrects: wanted.corrects } : {}),
  };
}
