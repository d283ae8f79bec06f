import { createHash } from "node:crypto";
import { closeSync, fsyncSync, mkdirSync, openSync, rmSync, writeSync } from "node:fs";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { BadInput, SHA256 } from "@/core/input";
import { dataFolder } from "./db/open";
import { TooLarge } from "./http";

/** Bytes that came in whole: as many as were announced, and those that were sent. */
export interface Received {
  readonly sha256: string;
  readonly bytes: number;
}

const SENT_HASH = "content-sha256";

/**
 * Takes the bytes of a request as they come and says what came. Each part is handed on; nothing counts before all of it
 * is there and is what the sender hashed. Throws BadInput for a form, for nothing, for too much and for what differs.
 * @param largest bytes; @param tooLarge what to do about more.
 */
async function receive(request: Request, largest: number, tooLarge: string, take: (part: Uint8Array) => void): Promise<Received> {
  if (/^multipart\//i.test(request.headers.get("content-type") ?? ""))
    throw new BadInput("Send the bytes as they are, not as a form");
  const announced = request.headers.get("content-length");
  if (announced !== null && Number(announced) > largest) throw new TooLarge(tooLarge);
  const sent = request.headers.get(SENT_HASH)?.toLowerCase() ?? "";
  if (!SHA256.test(sent))
    throw new BadInput(`Say what you send: its SHA-256 in the header ${SENT_HASH}, so that what arrives can be held against it`);
  const hash = createHash("sha256");
  let bytes = 0;
  // What cannot be kept is read to its end all the same: whoever is cut off in the middle never learns why.
  let failed: { readonly error: unknown } | undefined;
  for await (const part of request.body ?? []) {
    bytes += part.byteLength;
    if (bytes > largest) throw new TooLarge(tooLarge);
    if (failed) continue;
    hash.update(part);
    try {
      take(part);
    } catch (error) {
      failed = { error };
    }
  }
  if (failed) throw failed.error;
  if (bytes === 0) throw new BadInput("The file is empty");
  const sha256 = hash.digest("hex");
  if ((announced !== null && bytes !== Number(announced)) || sha256 !== sent)
    throw new BadInput("What arrived is not what was sent: it was cut off or changed on the way. Send it again");
  return { sha256, bytes };
}

/** A request's bytes in memory, whole. */
export async function receiveBytes(request: Request, largest: number, tooLarge: string): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  await receive(request, largest, tooLarge, (part) => parts.push(part));
  return Buffer.concat(parts);
}

/** A request's bytes in a file of their own, synced, given to `keep`; the file is gone afterwards unless it was moved. */
export async function receiveFile<T>(
  request: Request,
  largest: number,
  tooLarge: string,
  keep: (path: string, received: Received) => T | Promise<T>,
  folder = dataFolder(),
): Promise<T> {
  const incoming = join(folder, "incoming");
  mkdirSync(incoming, { recursive: true, mode: 0o700 });
  const path = join(incoming, uuid());
  const file = openSync(path, "wx");
  try {
    let received: Received;
    try {
      received = await receive(request, largest, tooLarge, (part) => {
        for (let at = 0; at < part.length; ) at += writeSync(file, part, at);
      });
      fsyncSync(file);
    } finally {
      closeSync(file);
    }
    return await keep(path, received);
  } finally {
    rmSync(path, { force: true });
  }
}
