"use client";

import { v4 as uuid } from "uuid";
import { type Opening, openedEntry } from "@/core/journal";
import { deviceId, makeEntries, type NewEntry } from "../session/device";
import { nextPlaces, type Place } from "../session/device-store";
import { isSent, record } from "../session/outbox";
import { signedHere } from "../session/sign-in";

/** Names of a job that is being opened: kept, so that a second try after a lost connection opens the same one. */
export interface OpeningIds {
  readonly jobId: string;
  readonly openingId: string;
}

export const newIds = (): OpeningIds => ({ jobId: uuid(), openingId: uuid() });

/**
 * Opens a job with its first entries; on a practice case where its code is given. It is kept on this device first, and goes up
 * as soon as the server answers. Throws what was wrong with it.
 * @returns where its bench is: drawn from this device until the server knows of it.
 */
export async function openJob(
  { jobId, openingId }: OpeningIds,
  first: readonly NewEntry[],
  by: string,
  practice?: string,
): Promise<string> {
  const [place] = (await nextPlaces([openingId])) as [Place];
  const asked: Opening = { id: openingId, jobId, at: new Date().toISOString(), by, device: deviceId(), ...place };
  const opening = signedHere({ ...asked, ...(practice ? { practice } : {}) });
  for (const batch of [[openedEntry(opening)], await makeEntries(jobId, first, by, 1)]) {
    const wrong = await record(batch);
    if (wrong) throw new Error(wrong);
  }
  return (await isSent(jobId)) ? `/jobs/${jobId}` : `/bench?job=${jobId}`;
}
