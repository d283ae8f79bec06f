import { createHash } from "node:crypto";
import { createReadStream, createWriteStream, existsSync, mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { type PassThrough, Readable, Transform } from "node:stream";
import { finished, pipeline } from "node:stream/promises";
import { asc, eq } from "drizzle-orm";
import { v4 as uuid } from "uuid";
import yauzl from "yauzl";
import { ZipFile } from "yazl";
import { BadInput } from "@/core/input";
import {
  type ArchivedFile,
  type ArchivedJob,
  checkListed,
  checkMembers,
  filePath,
  jobPath,
  MANIFEST_PATH,
  MOST_MEMBERS,
  parseShopArchive,
  type ShopArchive,
  type TakenIn,
  toShopArchive,
} from "@/core/journal";
import { tellChanged } from "./changes";
import { nowIso } from "./clock";
import { readCustomer, writeCustomer } from "./customers";
import { dataFolder, db } from "./db/open";
import { files, jobs } from "./db/schema";
import { givenName, pathOf, storeReceived, THUMBNAIL_OF } from "./files";
import { jobNumber } from "./jobs";
import { Conflict } from "./refusals";
import { readShop } from "./shop";
import { inWorker } from "./worker";

/**
 * The whole shop as one ZIP (APPNOTE 6.3), as it is read: each job's file, the logs and pictures it names, then the list of
 * them all. One job is in memory at a time. @param customers whether names and contacts go with it.
 */
export function writeArchive({ customers, signal }: { customers: boolean; signal?: AbortSignal }): Readable {
  const zip = new ZipFile();
  const out = zip.outputStream as PassThrough;
  fill(zip, customers, signal).catch((error) => out.destroy(error as Error));
  return out;
}

async function fill(zip: ZipFile, customers: boolean, signal: AbortSignal | undefined): Promise<void> {
  const listed: ArchivedJob[] = [];
  const packed = new Set<string>();
  const mtime = new Date(nowIso());
  const add = async (path: string, from: Readable) => {
    zip.addReadStream(from, path, { mtime });
    await finished(from, signal ? { signal } : {});
  };
  const ids = db().select({ id: jobs.id, number: jobs.number }).from(jobs).orderBy(asc(jobs.number)).all();
  for (const { id, number } of ids) {
    const text = Buffer.from(await inWorker("exported", id));
    await add(jobPath(id), Readable.from([text]));
    // A file is kept before the entry that names it: whatever the journal named is among these.
    const kept: ArchivedFile[] = db()
      .select({ sha256: files.sha256, name: files.name, bytes: files.bytes })
      .from(files)
      .where(eq(files.jobId, id))
      .all()
      // What was named before names were looked at.
      .map((file) => ({ ...file, name: storedName(file.name) }));
    const isThere = ({ sha256 }: ArchivedFile) => packed.has(sha256) || existsSync(pathOf(dataFolder(), sha256));
    const there = kept.filter(isThere);
    for (const { sha256 } of there) {
      if (packed.has(sha256)) continue;
      packed.add(sha256);
      await add(filePath(sha256), createReadStream(pathOf(dataFolder(), sha256)));
    }
    const customer = customers ? readCustomer(id) : undefined;
    listed.push({
      jobId: id,
      number,
      sha256: createHash("sha256").update(text).digest("hex"),
      files: there,
      missing: kept.filter((file) => !there.includes(file)),
      ...(customer ? { customer } : {}),
    });
  }
  zip.addBuffer(Buffer.from(JSON.stringify(toShopArchive(nowIso(), readShop(), listed), null, 1)), MANIFEST_PATH, { mtime });
  zip.end();
}

/** A name of ours stays; any other is as one from outside. */
const storedName = (name: string) => (name.startsWith(THUMBNAIL_OF) ? name : givenName(name));

const DAMAGED = "The archive is cut off or damaged: export the shop again. Nothing was imported";

/** An archive that was looked at and may be read. */
interface Opened {
  readonly archive: ShopArchive;
  readonly read: (path: string) => Promise<Readable>;
  readonly close: () => void;
}

/** Opens an archive and looks at all that it says of itself, before anything is taken in. Throws BadInput. */
async function openArchive(path: string): Promise<Opened> {
  const zip = await yauzl.openPromise(path, { autoClose: false, strictFileNames: true }).catch(() => {
    throw new BadInput("This is no archive, or it is cut off: export the shop again", "archive");
  });
  try {
    const entries = await entriesOf(zip);
    const members = entries.map((e) => ({ path: e.fileName, packed: e.compressedSize, bytes: e.uncompressedSize }));
    checkMembers(members);
    const byPath = new Map(entries.map((e) => [e.fileName, e]));
    const read = (name: string) => zip.openReadStreamPromise(byPath.get(name) as yauzl.Entry);
    const archive = parseShopArchive((await whole(await read(MANIFEST_PATH))).toString("utf8"));
    checkListed(archive, members);
    return { archive, read, close: () => zip.close() };
  } catch (error) {
    zip.close();
    throw error instanceof BadInput ? error : new BadInput(DAMAGED, "archive");
  }
}

/** Entries of a ZIP's directory; a path that leads out of it is refused there. */
async function entriesOf(zip: yauzl.ZipFile): Promise<yauzl.Entry[]> {
  const entries: yauzl.Entry[] = [];
  try {
    for await (const entry of zip.eachEntry()) {
      entries.push(entry);
      if (entries.length > MOST_MEMBERS) break;
    }
  } catch (error) {
    const { message } = error as Error;
    const outside = /path: |characters in fileName: /.test(message);
    throw new BadInput(outside ? `The archive holds a path that leads out of it (${message}). Nothing was imported` : DAMAGED);
  }
  return entries;
}

async function whole(stream: Readable): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

/** How many jobs an archive holds, said before they come in one by one. */
export interface Announced {
  readonly jobs: number;
}

/**
 * Takes an archive in, job after job, each with its files or not at all; what came in stays where a later one is refused, or
 * nobody asks for more. Jobs that are here already gain what they lack. The shop's settings stay as they are.
 * @param by who takes it in.
 * @yields how many there are, then each. Throws BadInput before the first where the archive itself is not sound.
 */
export async function* takeArchive(path: string, by = ""): AsyncGenerator<Announced | TakenIn> {
  const { archive, read, close } = await openArchive(path);
  try {
    yield { jobs: archive.jobs.length };
    for (const job of inOrder(archive.jobs)) yield await takeJob(job, read, by);
  } finally {
    close();
  }
}

/** By number; those whose number another job has here come last, so that they do not take a third one's. */
function inOrder(list: readonly ArchivedJob[]): ArchivedJob[] {
  const here = new Map(
    db()
      .select({ id: jobs.id, number: jobs.number })
      .from(jobs)
      .all()
      .map(({ id, number }) => [number, id]),
  );
  const taken = ({ number, jobId }: ArchivedJob) => here.has(number) && here.get(number) !== jobId;
  return list.toSorted((a, b) => Number(taken(a)) - Number(taken(b)) || a.number - b.number);
}

async function takeJob(job: ArchivedJob, read: Opened["read"], by: string): Promise<TakenIn> {
  const { jobId, number: was } = job;
  const base = { jobId, was, added: 0, missing: job.missing.length };
  const unpacked: string[] = [];
  try {
    const text = await whole(await read(jobPath(jobId)));
    if (createHash("sha256").update(text).digest("hex") !== job.sha256)
      throw new BadInput("Its file is not what was exported: it was changed or damaged on the way");
    // Every file is there, whole and what it says it is, before the job comes in.
    for (const file of job.files) unpacked.push(await unpack(await read(filePath(file.sha256)), file));
    const known = jobNumber(jobId) > 0;
    const { number, added } = await inWorker("imported", JSON.stringify({ by, file: text.toString("utf8") }));
    for (const [i, file] of job.files.entries()) storeReceived(jobId, file.name, unpacked[i] as string, file);
    // Who was erased here stays erased.
    if (!known && job.customer) writeCustomer(jobId, job.customer);
    tellChanged(jobId);
    return { ...base, number, added, state: !known ? "new" : added > 0 ? "merged" : "here-already" };
  } catch (error) {
    const refusal = error instanceof BadInput || error instanceof Conflict;
    if (!refusal && (error as { code?: unknown }).code !== undefined && !isZlib(error)) throw error;
    return { ...base, state: "refused", why: refusal ? (error as Error).message : "It is damaged in the archive" };
  } finally {
    for (const file of unpacked) rmSync(file, { force: true });
  }
}

const isZlib = (error: unknown) => String((error as { code?: unknown }).code).startsWith("Z_");

/** Unpacks one file among what is coming in, synced. Throws BadInput where it is not what it says it is. */
async function unpack(from: Readable, { sha256 }: ArchivedFile): Promise<string> {
  const incoming = join(dataFolder(), "incoming");
  mkdirSync(incoming, { recursive: true, mode: 0o700 });
  const path = join(incoming, uuid());
  const hash = createHash("sha256");
  const hashed = new Transform({
    transform(part: Buffer, _encoding, next) {
      hash.update(part);
      next(null, part);
    },
  });
  try {
    await pipeline(from, hashed, createWriteStream(path, { flags: "wx", flush: true }));
    if (hash.digest("hex") !== sha256) throw new BadInput(`Its file ${sha256.slice(0, 8)}… is not what it says it is`);
    return path;
  } catch (error) {
    rmSync(path, { force: true });
    throw error;
  }
}
