import { createHash } from "node:crypto";
import {
  chmodSync,
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { dirname, join } from "node:path";
import { and, eq } from "drizzle-orm";
import { v4 as uuid } from "uuid";
import { nowIso } from "./clock";
import { type Db, dataFolder, db } from "./db/open";
import { files } from "./db/schema";
import { requireJob } from "./jobs";
import { NotFound } from "./refusals";
import type { Received } from "./upload";

export const pathOf = (folder: string, sha256: string) => join(folder, "files", sha256.slice(0, 2), sha256);

/** Whether the file under a name is all of it: a stump that a full disk left is none. */
const isWhole = (path: string, bytes: number) => existsSync(path) && statSync(path).size === bytes;

/** Puts a written and synced file in its place, if all of it is there; the folder is synced too. */
function place(path: string, target: string, bytes: number): void {
  if (!isWhole(path, bytes)) throw new Error("The disk took less than was written");
  mkdirSync(dirname(target), { recursive: true, mode: 0o700 });
  chmodSync(path, 0o600);
  renameSync(path, target);
  const handle = openSync(dirname(target), "r");
  fsyncSync(handle);
  closeSync(handle);
}

/** Writes a file whole or not at all: among what is coming in, synced, measured, renamed. What a kill leaves there goes at the next start. */
function writeWhole(folder: string, target: string, bytes: Uint8Array): void {
  const temporary = join(folder, "incoming", uuid());
  mkdirSync(dirname(temporary), { recursive: true, mode: 0o700 });
  try {
    const file = openSync(temporary, "wx");
    try {
      writeFileSync(file, bytes);
      fsyncSync(file);
    } finally {
      closeSync(file);
    }
    place(temporary, target, bytes.length);
  } finally {
    rmSync(temporary, { force: true });
  }
}

/** Thumbnails are found by their name, which nobody outside gives. */
export const THUMBNAIL_OF = "thumbnail of ";

/** A name that came from outside, as it may be kept and exported: no character that no keyboard types, and no name of ours. */
export function givenName(name: string): string {
  const typed = name
    .replace(/[\p{Cc}\p{Cs}]+/gu, " ")
    .trim()
    .slice(0, 200);
  return typed.toLowerCase().startsWith(THUMBNAIL_OF) ? `a ${typed}` : typed || "file";
}

const record = (at: Db, jobId: string, name: string, { sha256, bytes }: Received) =>
  at.insert(files).values({ jobId, sha256, name, bytes, createdAt: nowIso() }).onConflictDoNothing().run();

/** Keeps bytes of a job under their content hash; none without a job. Throws NotFound. */
export function storeFile(
  jobId: string,
  name: string,
  bytes: Uint8Array,
  at: Db = db(),
  folder = dataFolder(),
): { sha256: string } {
  requireJob(jobId, at);
  const sha256 = createHash("sha256").update(bytes).digest("hex");
  const target = pathOf(folder, sha256);
  if (!isWhole(target, bytes.length)) writeWhole(folder, target, bytes);
  record(at, jobId, name, { sha256, bytes: bytes.length });
  return { sha256 };
}

/** The same for a file that was received and synced already: it is moved into its place. */
export function storeReceived(
  jobId: string,
  name: string,
  path: string,
  received: Received,
  at: Db = db(),
  folder = dataFolder(),
): { sha256: string } {
  requireJob(jobId, at);
  const target = pathOf(folder, received.sha256);
  if (!isWhole(target, received.bytes)) place(path, target, received.bytes);
  record(at, jobId, name, received);
  return { sha256: received.sha256 };
}

/** Where a job's file lies, by its hash. Throws NotFound. */
export function fileOf(jobId: string, sha256: string, at: Db = db(), folder = dataFolder()): string {
  const row = at
    .select()
    .from(files)
    .where(and(eq(files.jobId, jobId), eq(files.sha256, sha256)))
    .get();
  if (!row || !existsSync(pathOf(folder, sha256))) throw new NotFound("No such file in this job");
  return pathOf(folder, sha256);
}

/** A job's file in memory, whole. Throws NotFound. */
export const readFile = (jobId: string, sha256: string, at: Db = db(), folder = dataFolder()): Buffer =>
  readFileSync(fileOf(jobId, sha256, at, folder));
