"use client";

import { v4 as uuid } from "uuid";
import { type At, type Bodies, bodyVersion, type Entry, type EntryKind } from "@/core/journal";
import { nextPlaces, type Place } from "./device-store";
import { signedHere } from "./sign-in";
import { load, save } from "./storage";

const DEVICE = "pelota.device";

/** This device's own name in the journals; made once. */
export function deviceId(): string {
  const known = load<string>(DEVICE);
  if (known) return known;
  const made = uuid();
  save(DEVICE, made);
  return made;
}

/** Entry that a screen wants recorded. */
export interface NewEntry<K extends EntryKind = EntryKind> {
  readonly kind: K;
  readonly body: Bodies[K];
  /** Now, unless the thing has its own time */
  readonly at?: At;
  readonly corrects?: string;
  /** Made ahead when another entry of the same batch names it */
  readonly id?: string;
}

/** Entries as they are sent, in the order wanted, signed by who is in. */
export async function makeEntries(jobId: string, wanted: readonly NewEntry[], by: string, seenSeq: number): Promise<Entry[]> {
  const ids = wanted.map((one) => one.id ?? uuid());
  const places = await nextPlaces(ids);
  return wanted.map((one, i) =>
    signedHere({
      id: ids[i] as string,
      jobId,
      kind: one.kind,
      v: bodyVersion(one.kind),
      at: one.at ?? new Date().toISOString(),
      by,
      device: deviceId(),
      ...(places[i] as Place),
      seenSeq,
      body: one.body,
      ...(one.corrects ? { corrects: one.corrects } : {}),
    }),
  );
}
