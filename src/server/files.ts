import { createHash } from "node:crypto";
import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readFileSync, renameSync, writeSync } from "node:fs";
import { join } from "node:path";
import { and, eq } from "drizzle-orm";
import { v4 as uuid } from "uuid";
import { nowIso } from "./clock";
import { type Db, dataFolder, db } from "./db/open";
import { files } from "./db/schema";
import { NotFound } from "./jobs";

const pathOf = (folder: string, sha256: string) => join(folder, "files", sha256.slice(0, 2), sha256);

/** Keeps a file under its content hash: written, synced, renamed, folder synced, then the row. */
export function storeFile(
  jobId: string,
  name: string,
  bytes: Uint8Array,
  at: Db = db(),
  folder = dataFolder(),
): { sha256: string } {
  const sha256 = createHash("sha256").update(bytes).digest("hex");
  const target = pathOf(folder, sha256);
  if (!existsSync(target)) {
    const parent = join(target, "..");
    mkdirSync(parent, { recursive: true });
    const temporary = join(parent, `.${uuid()}`);
    const file = openSync(temporary, "wx");
    writeSync(file, bytes);
    fsyncSync(file);
    closeSync(file);
    renameSync(temporary, target);
    const handle = openSync(parent, "r");
    fsyncSync(handle);
    closeSync(handle);
  }
  at.insert(files)
    .values({ jobId, sha256, name: name.slice(0, 255), bytes: bytes.length, createdAt: nowIso() })
    .onConflictDoNothing()
    .run();
  return { sha256 };
}

/** A job's file by its hash. Throws NotFound. */
export function readFile(jobId: string, sha256: string, at: Db = db(), folder = dataFolder()): { name: string; bytes: Buffer } {
  const row = at
    .select()
    .from(files)
    .where(and(eq(files.jobId, jobId), eq(files.sha256, sha256)))
    .get();
  if (!row || !existsSync(pathOf(folder, sha256))) throw new NotFound("There is no such file in this job");
  return { name: row.name, bytes: readFileSync(pathOf(folder, sha256)) };
}
