import { chmodSync, closeSync, existsSync, mkdirSync, openSync, statSync } from "node:fs";
import { join, resolve } from "node:path";
import Database from "better-sqlite3";
import { type BetterSQLite3Database, drizzle } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import { DataGone } from "../disk";
import * as schema from "./schema";

export type Db = BetterSQLite3Database<typeof schema> & { readonly $client: Database.Database };

const DATABASE = "pelota.sqlite";

/** Folder of database and files: `PELOTA_DATA`, or `./data`. */
export const dataFolder = () => resolve(/* turbopackIgnore: true */ process.env.PELOTA_DATA ?? "data");

/** Opens (and migrates) the database in a folder: WAL, every commit synced, foreign keys on. */
export function openDb(folder: string): Db {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const file = join(folder, DATABASE);
  // Customers stand in it: nobody else on this machine reads it, nor what lies beside it, from the first byte on.
  closeSync(openSync(file, "a", 0o600));
  const client = new Database(file);
  for (const path of [file, `${file}-wal`, `${file}-shm`]) if (existsSync(path)) chmodSync(path, 0o600);
  chmodSync(folder, 0o700);
  // Who was erased is gone from the file, too.
  client.pragma("secure_delete = ON");
  client.pragma("journal_mode = WAL");
  client.pragma("synchronous = FULL");
  client.pragma("foreign_keys = ON");
  client.pragma("busy_timeout = 5000");
  const db = drizzle(client, { schema });
  migrate(db, { migrationsFolder: resolve(/* turbopackIgnore: true */ "src/server/migrations") });
  return db as Db;
}

/** The open database and the file it is. */
interface Opened {
  readonly db: Db;
  readonly folder: string;
  readonly file: number;
}
const shared = globalThis as typeof globalThis & { pelotaDb?: Opened };

const fileOf = (folder: string): number | undefined => statSync(join(folder, DATABASE), { throwIfNoEntry: false })?.ino;

/**
 * The one connection of this process; it outlives hot reloads. Where the data have been put elsewhere since, what is
 * written would end in a file that nobody finds: throws DataGone until they are back.
 */
export function db(): Db {
  const folder = dataFolder();
  const before = shared.pelotaDb;
  const file = fileOf(folder);
  if (before?.folder === folder) {
    if (file === undefined) throw new DataGone("The shop's data are gone");
    if (file === before.file) return before.db;
  }
  before?.db.$client.close();
  const opened = openDb(folder);
  shared.pelotaDb = { db: opened, folder, file: fileOf(folder) as number };
  return opened;
}
