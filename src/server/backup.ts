import { createHash } from "node:crypto";
import {
  chmodSync,
  closeSync,
  copyFileSync,
  createReadStream,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { dirname, join, resolve } from "node:path";
import Database from "better-sqlite3";
import { drizzle } from "drizzle-orm/better-sqlite3";
import * as yup from "yup";
import { BadInput, parseJson, SHA256, strictObject, validate } from "@/core/input";
import { backupsFolder } from "./backups-folder";
import { boardColumns } from "./board";
import { now } from "./clock";
import { type Db, dataFolder } from "./db/open";
import * as schema from "./db/schema";
import { pathOf } from "./files";
import { readJob } from "./jobs";
import { type Replayed, replay } from "./revocations";

/** One file of a backup or a data folder. */
interface Part {
  readonly sha256: string;
  readonly bytes: number;
}

/** Manifest of a backup, with the hash of each part. */
export interface Manifest {
  readonly format: "pelota-backup";
  readonly version: 1;
  readonly takenAt: string;
  readonly jobs: number;
  readonly entries: number;
  readonly database: Part;
  readonly files: readonly Part[];
}

const partSchema = strictObject({
  sha256: yup.string().matches(SHA256).required(),
  bytes: yup.number().integer().min(0).required(),
});
const manifestSchema = strictObject({
  format: yup.string().oneOf(["pelota-backup"], "This is no backup of Pelota").required("This is no backup of Pelota"),
  version: yup.number().oneOf([1], "The backup is of a version that this app does not read: update it first").required(),
  takenAt: yup.string().required(),
  jobs: yup.number().required(),
  entries: yup.number().required(),
  database: partSchema.required(),
  files: yup.array().of(partSchema.required()).required(),
});

const DATABASE = "pelota.sqlite";
const MANIFEST = "manifest.json";
/** Who may come in from the network is part of the data, where the shop has a passphrase. */
const SALT = "gate-salt";

async function partOf(path: string): Promise<Part> {
  const hash = createHash("sha256");
  for await (const chunk of createReadStream(path, { highWaterMark: 1 << 20 })) hash.update(chunk as Buffer);
  return { sha256: hash.digest("hex"), bytes: statSync(path).size };
}

const isEmpty = (folder: string) => !existsSync(folder) || readdirSync(folder).length === 0;

/** Copies a file, on the disk for sure, for nobody else on this machine to read. */
function copy(from: string, to: string): void {
  mkdirSync(dirname(to), { recursive: true, mode: 0o700 });
  copyFileSync(from, to);
  settle(to);
}
function settle(path: string): void {
  chmodSync(path, 0o600);
  const file = openSync(path, "r+");
  fsyncSync(file);
  closeSync(file);
}

const open = (file: string) => new Database(file, { readonly: true, fileMustExist: true });

/**
 * Copies a data folder while it is served: the database by its own means, so that the copy is of one moment, then every
 * file that it names, then a manifest with the hash of each; all of it read again at the end. Throws BadInput where
 * there is nothing to copy, the folder is taken, or a file is missing or damaged.
 */
export async function backup(target: string, data = dataFolder(), at = now()): Promise<Manifest> {
  if (!isEmpty(target)) throw new BadInput(`${target} is not empty: name a new folder`, "path");
  if (!existsSync(join(data, DATABASE))) throw new BadInput(`There is no database in ${data}`, "path");
  mkdirSync(target, { recursive: true, mode: 0o700 });
  chmodSync(target, 0o700);
  const live = open(join(data, DATABASE));
  try {
    await live.backup(join(target, DATABASE));
  } finally {
    live.close();
  }
  settle(join(target, DATABASE));
  const kept = open(join(target, DATABASE));
  const count = (table: string) => (kept.prepare(`select count(*) as n from ${table}`).get() as { n: number }).n;
  const files = kept.prepare("select distinct sha256, bytes from files order by sha256").all() as Part[];
  const [jobs, entries] = [count("jobs"), count("entries")];
  kept.close();
  for (const { sha256 } of files) {
    const from = pathOf(data, sha256);
    if (!existsSync(from)) throw new BadInput(`The file ${sha256} is missing in ${data}: see \`verify\``, "files");
    copy(from, pathOf(target, sha256));
  }
  if (existsSync(join(data, SALT))) copy(join(data, SALT), join(target, SALT));
  const manifest: Manifest = {
    format: "pelota-backup",
    version: 1,
    takenAt: new Date(at).toISOString(),
    jobs,
    entries,
    database: await partOf(join(target, DATABASE)),
    files,
  };
  writeFileSync(join(target, MANIFEST), JSON.stringify(manifest, null, 1), { mode: 0o600, flush: true });
  const wrong = await checkBackup(target);
  if (wrong.length > 0) throw new BadInput(`The backup does not verify: ${wrong.join("; ")}`, "path");
  return manifest;
}

/** Manifest in a folder. Throws BadInput where it is no backup. */
export function readManifest(folder: string): Manifest {
  const path = join(folder, MANIFEST);
  if (!existsSync(path)) throw new BadInput(`${folder} holds no backup: there is no ${MANIFEST}`, "path");
  return validate<Manifest>(manifestSchema, parseJson(readFileSync(path, "utf8"), "The backup's manifest is cut off or damaged"));
}

/** Parts of a backup that are not as its manifest says; nothing where all is. Throws BadInput where there is no backup. */
export async function checkBackup(folder: string): Promise<string[]> {
  const { database, files } = readManifest(folder);
  const wrong: string[] = [];
  const check = async (path: string, wanted: Part, name: string) => {
    if (!existsSync(path)) return void wrong.push(`${name} is missing`);
    const found = await partOf(path);
    if (found.sha256 !== wanted.sha256 || found.bytes !== wanted.bytes) wrong.push(`${name} is not what was backed up`);
  };
  await check(join(folder, DATABASE), database, "the database");
  for (const file of files) await check(pathOf(folder, file.sha256), file, `file ${file.sha256}`);
  return wrong;
}

/**
 * Puts a backup into an empty data folder; what does not verify is not restored. Devices that were put out and customers who were
 * erased since it was taken stay so. Throws BadInput.
 */
export async function restore(
  from: string,
  data = dataFolder(),
  backups = backupsFolder(data),
): Promise<Manifest & { readonly again: Replayed }> {
  if (!isEmpty(data))
    throw new BadInput(`${data} is not empty: name an empty folder in PELOTA_DATA, and nothing is lost`, "path");
  const manifest = readManifest(from);
  const wrong = await checkBackup(from);
  if (wrong.length > 0) throw new BadInput(`The backup does not verify, and nothing was restored: ${wrong.join("; ")}`, "path");
  for (const { sha256 } of manifest.files) copy(pathOf(from, sha256), pathOf(data, sha256));
  if (existsSync(join(from, SALT))) copy(join(from, SALT), join(data, SALT));
  // The database comes last: a folder that has one has everything that it names.
  const coming = join(data, `${DATABASE}.coming`);
  copy(join(from, DATABASE), coming);
  const again = replay(coming, resolve(from), backups, manifest.takenAt);
  renameSync(coming, join(data, DATABASE));
  chmodSync(data, 0o700);
  return { ...manifest, again };
}

/** Everything wrong with a data folder, each with what to do; nothing where all is well. */
export interface Findings {
  readonly jobs: number;
  readonly files: number;
  readonly wrong: readonly { readonly what: string; readonly todo: string }[];
}

const RESTORE = "restore the last good backup into an empty folder";

/** Looks through a data folder: the database's own integrity, files against hashes, every journal folded, board and fold alike. */
export async function verifyData(data = dataFolder()): Promise<Findings> {
  if (!existsSync(join(data, DATABASE))) throw new BadInput(`There is no database in ${data}`, "path");
  const wrong: Findings["wrong"][number][] = [];
  let client: Database.Database | undefined;
  try {
    client = open(join(data, DATABASE));
    const integrity = client.pragma("integrity_check", { simple: true });
    if (integrity !== "ok") throw new Error(String(integrity));
  } catch (error) {
    client?.close();
    return { jobs: 0, files: 0, wrong: [{ what: `The database is damaged: ${(error as Error).message}`, todo: RESTORE }] };
  }
  const db = drizzle(client, { schema }) as Db;
  const rows = db.select().from(schema.jobs).all();
  for (const row of rows) {
    try {
      const columns = boardColumns(readJob(row.id, db));
      // What was written a moment ago is folded in a moment.
      if (row.folded < row.top) continue;
      // The best next check goes by the shop's experience as it was when the job was folded, which other jobs have moved since.
      const apart = Object.entries(columns).filter(([key, value]) => key !== "reason" && row[key as keyof typeof row] !== value);
      if (apart.length > 0)
        wrong.push({
          what: `Job ${row.number}: the board says otherwise than its journal (${apart.map(([key]) => key).join(", ")})`,
          todo: "record anything in it, a note will do: its columns are folded anew",
        });
    } catch (error) {
      wrong.push({ what: `Job ${row.number}: its journal cannot be folded (${(error as Error).message})`, todo: RESTORE });
    }
  }
  const files = client.prepare("select distinct sha256, bytes from files order by sha256").all() as Part[];
  for (const file of files) {
    const path = pathOf(data, file.sha256);
    const found = existsSync(path) ? await partOf(path) : undefined;
    if (!found)
      wrong.push({ what: `File ${file.sha256} is missing`, todo: "copy it from a backup's `files`, or import the log again" });
    else if (found.sha256 !== file.sha256 || found.bytes !== file.bytes)
      wrong.push({ what: `File ${file.sha256} is damaged`, todo: "copy it from a backup's `files`, or import the log again" });
  }
  client.close();
  return { jobs: rows.length, files: files.length, wrong };
}
