"use client";

import { useEffect, useState } from "react";
import { type Entry, textsIn } from "@/core/journal";
import { hashOf, Refused, sendBytes } from "./api";
import { dropPicture, keepPictureHere, picturesHere } from "./device-store";

/** Long side of what is kept, pixels; the server asks for no more. */
const LONG_SIDE = 2400;

/** A picture as it is kept: upright, no larger than needed, without place, time and camera. Undefined where this browser cannot read it. */
async function cleaned(file: Blob): Promise<Blob | undefined> {
  const bitmap = await createImageBitmap(file, { imageOrientation: "from-image" }).catch(() => undefined);
  if (!bitmap) return undefined;
  const scale = Math.min(1, LONG_SIDE / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext("2d")?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return new Promise((done) => canvas.toBlob((blob) => done(blob ?? undefined), "image/jpeg", 0.85));
}

/**
 * Keeps a picture on this device under its content's hash, to go up before the entry that names it. What this browser cannot
 * read goes to the server at once. @returns the hash.
 */
export async function keepPicture(jobId: string, file: File): Promise<string> {
  const bytes = await cleaned(file);
  if (!bytes) {
    const url = `jobs/${jobId}/pictures?name=${encodeURIComponent(file.name)}`;
    return (await sendBytes<{ sha256: string }>(url, file)).sha256;
  }
  const sha256 = await hashOf(bytes);
  await keepPictureHere({ jobId, sha256, name: file.name, bytes });
  return sha256;
}

/** Sends the pictures that these entries name, as far as they are still here alone. Throws what the server said. */
export async function sendPicturesOf(jobId: string, entries: readonly Entry[]): Promise<void> {
  const here = await picturesHere(jobId);
  if (here.length === 0) return;
  const named = new Set(entries.flatMap((e) => [...textsIn(e.body)]));
  for (const { sha256, name, bytes } of here.filter((p) => named.has(p.sha256))) {
    const kept = await sendBytes<{ sha256: string }>(`jobs/${jobId}/pictures?name=${encodeURIComponent(name)}`, bytes);
    if (kept.sha256 !== sha256) throw new Refused("The server kept another picture than this one: take it again", 400);
    await dropPicture(jobId, sha256);
  }
}

/** The address of a picture that is on this device alone; undefined while that is not known, null where the server has it. */
export function usePictureHere(jobId: string, sha256: string): string | null | undefined {
  const [url, setUrl] = useState<string | null>();
  useEffect(() => {
    let made: string | undefined;
    let left = false;
    picturesHere(jobId)
      .then((all) => {
        const bytes = all.find((p) => p.sha256 === sha256)?.bytes;
        if (left) return;
        made = bytes && URL.createObjectURL(bytes);
        setUrl(made ?? null);
      })
      .catch(() => left || setUrl(null));
    return () => {
      left = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [jobId, sha256]);
  return url;
}
