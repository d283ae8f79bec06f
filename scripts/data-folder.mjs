import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";

const MIGRATIONS = new URL("../src/server/migrations/meta/_journal.json", import.meta.url);

/** Why the app cannot be started here, as a sentence that says what to do. */
export class Unfit extends Error {}

/**
 * Looks whether a data folder can be served: there, writable, sound, no newer than this app, and served by nobody else.
 * It is held until `release`, by a lock on a second file, so that the command line can go on reading; `isHeld` tells whether that
 * file is still the one. Throws Unfit.
 */
export function openData(folder) {
  if (existsSync(folder) && !statSync(folder).isDirectory())
    throw new Unfit(`${folder} is a file, and the data needs a folder: name another in PELOTA_DATA.`);
  const probe = join(folder, ".writable");
  try {
    mkdirSync(folder, { recursive: true });
    writeFileSync(probe, "");
    rmSync(probe);
  } catch (error) {
    throw new Unfit(`The data folder ${folder} cannot be written to (${error.code}): free it, or name another in PELOTA_DATA.`);
  }
  const { release, isHeld } = hold(folder);
  // What was still coming in when the last one was killed never came in.
  rmSync(join(folder, "incoming"), { recursive: true, force: true });
  try {
    return { jobs: look(join(folder, "pelota.sqlite")), release, isHeld };
  } catch (error) {
    release();
    throw error;
  }
}

/** When the data were last backed up by the day's own means, as the backup is called; undefined where never. */
export function lastBackup(folder) {
  const backups = process.env.PELOTA_BACKUPS ?? `${folder}-backups`;
  return existsSync(backups)
    ? readdirSync(backups)
        .filter((name) => /^\d{4}-\d\d-\d\dT/.test(name) && existsSync(join(backups, name, "manifest.json")))
        .sort()
        .at(-1)
    : undefined;
}

/**
 * Holds the folder for this process; another one that serves it already holds it too. @returns how it is let go, and whether it is
 * still held: a mark that was taken away is set anew, unless another has begun meanwhile.
 */
function hold(folder) {
  let held = mark(folder);
  const isHeld = () => {
    if (statSync(held.file, { throwIfNoEntry: false })?.ino === held.ino) return true;
    try {
      const again = mark(folder);
      held.lock.close();
      held = again;
      return true;
    } catch {
      return false;
    }
  };
  return { isHeld, release: () => held.lock.close() };
}

function mark(folder) {
  const file = join(folder, "served.lock");
  const lock = new Database(file, { timeout: 0 });
  try {
    lock.pragma("locking_mode = EXCLUSIVE");
    lock.exec("begin exclusive");
  } catch (error) {
    lock.close();
    if (error.code !== "SQLITE_BUSY") throw error;
    throw new Unfit(`Another Pelota serves ${folder} already: use that one, or stop it first.`);
  }
  return { file, lock, ino: statSync(file).ino };
}

/** How many jobs a database holds; one that is damaged or newer is not opened. */
function look(file) {
  if (!existsSync(file)) return 0;
  let database;
  try {
    database = new Database(file, { readonly: true });
    if (database.pragma("quick_check", { simple: true }) !== "ok") throw new Error("it does not hold together");
    const has = (table) => database.prepare("select 1 from sqlite_master where type = 'table' and name = ?").get(table);
    const applied = has("__drizzle_migrations")
      ? database.prepare("select max(created_at) as at from __drizzle_migrations").get().at
      : 0;
    const known = JSON.parse(readFileSync(MIGRATIONS, "utf8")).entries;
    if (applied > Math.max(...known.map((e) => e.when)))
      throw new Unfit(`${file} was written by a newer Pelota: update this one first.`);
    return has("jobs") ? database.prepare("select count(*) as n from jobs").get().n : 0;
  } catch (error) {
    if (error instanceof Unfit) throw error;
    throw new Unfit(`${file} is damaged (${error.message}): put a backup in its place, see the README.`);
  } finally {
    database?.close();
  }
}
