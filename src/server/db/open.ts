import { chmodSync, mkdirSync } from "node:fs";
import { join, resolve } from "node:path";
import Database from "better-sqlite3";
import { type BetterSQLite3Database, drizzle } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import * as schema from "./schema";

export type Db = BetterSQLite3Database<typeof schema> & { readonly $client: Database.Database };

/** Folder of database and files: `PELOTA_DATA`, or `./data`. */
export const dataFolder = () => resolve(/* turbopackIgnore: true */ process.env.PELOTA_DATA ?? "data");

/** Opens (and migrates) the database in a folder: WAL, every commit synced, foreign keys on. */
export function openDb(folder: string): Db {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, "pelota.sqlite");
  const client = new Database(file);
  // Customers stand in it: nobody else on this machine reads it.
  chmodSync(file, 0o600);
  client.pragma("journal_mode = WAL");
  client.pragma("synchronous = FULL");
  client.pragma("foreign_keys = ON");
  client.pragma("busy_timeout = 5000");
  const db = drizzle(client, { schema });
  migrate(db, { migrationsFolder: resolve(/* turbopackIgnore: true */ "src/server/migrations") });
  return db as Db;
}

const shared = globalThis as typeof globalThis & { pelotaDb?: Db };

/** The one connection of this process; it outlives hot reloads. */
export function db(): Db {
  shared.pelotaDb ??= openDb(dataFolder());
  return shared.pelotaDb;
}
