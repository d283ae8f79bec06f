"use client";

import { v4 as uuid } from "uuid";
import { sendJson } from "../session/api";
import { deviceId, makeEntries, type NewEntry } from "../session/device";
import { nextDeviceSeqs } from "../session/device-store";
import { signedHere } from "../session/sign-in";

/** Names of a job that is being opened: kept, so that a second try after a lost connection opens the same one. */
export interface OpeningIds {
  readonly jobId: string;
  readonly openingId: string;
}

export const newIds = (): OpeningIds => ({ jobId: uuid(), openingId: uuid() });

/** Opens a job on the server with its first entries; on a practice case where its code is given. Throws what was wrong. */
export async function openJob(
  { jobId, openingId }: OpeningIds,
  first: readonly NewEntry[],
  by: string,
  practice?: string,
): Promise<void> {
  const [deviceSeq] = await nextDeviceSeqs(1);
  const opening = { id: openingId, jobId, at: new Date().toISOString(), by, device: deviceId(), deviceSeq };
  await sendJson("POST", "jobs", signedHere({ ...opening, ...(practice ? { practice } : {}) }));
  await sendJson("POST", `jobs/${jobId}/entries`, await makeEntries(jobId, first, by, 1));
}
