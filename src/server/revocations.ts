import { appendFileSync, closeSync, existsSync, fsyncSync, mkdirSync, openSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import Database from "better-sqlite3";
import { backupsFolder } from "./backups-folder";
import { nowIso } from "./clock";
import type { Db } from "./db/open";

/** Revocations that a backup from before would bring back to life: a device that was put out since, a customer who was erased. */
type Revocation = { readonly at: string } & ({ readonly device: string } | { readonly customer: string });

const FILE = "revocations.jsonl";

/** Notes a revocation beside the backups, synced: it outlives the data that it is about. */
export function revoke(what: { readonly device: string } | { readonly customer: string }, at: Db): void {
  const backups = backupsFolder(dirname(at.$client.name));
  mkdirSync(backups, { recursive: true, mode: 0o700 });
  const file = openSync(join(backups, FILE), "a", 0o600);
  try {
    appendFileSync(file, `${JSON.stringify({ at: nowIso(), ...what })}\n`);
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
}

/** Revocations noted in a folder of backups; a line that was cut off as the power went is none. */
function noted(backups: string): Revocation[] {
  const path = join(backups, FILE);
  if (!existsSync(path)) return [];
  return readFileSync(path, "utf8")
    .split("\n")
    .flatMap((line): Revocation[] => {
      try {
        return [JSON.parse(line) as Revocation];
      } catch {
        return [];
      }
    });
}

/** How much a restored database had to be told again. */
export interface Replayed {
  readonly devices: number;
  readonly customers: number;
}

/**
 * Tells a restored database what was revoked since it was backed up, and notes the restore in its log.
 * @param from the backup; what was revoked is noted beside it, and beside the backups of this machine. @param takenAt when it was taken:
 * a customer who was erased before may have come again by then; a device that was put out once never is the same again.
 */
export function replay(file: string, from: string, backups: string, takenAt: string): Replayed {
  // A backup from a day that is still to come was dated by a clock that ran wild: it says nothing of before and after.
  const since = takenAt > nowIso() ? "" : takenAt;
  const list = [...new Set([dirname(from), backups])].flatMap(noted).filter((one) => "device" in one || one.at >= since);
  const database = new Database(file);
  try {
    database.pragma("secure_delete = ON");
    const has = (table: string) =>
      database.prepare("select 1 from sqlite_master where type = 'table' and name = ?").get(table) !== undefined;
    const out = has("devices") && database.prepare("update devices set out_at = ? where id = ? and out_at is null");
    const ended =
      has("sign_ins") && database.prepare("update sign_ins set ended_at = ? where device_id = ? and ended_at is null");
    const erased = database.prepare("delete from customers where job_id = ?");
    let [devices, customers] = [0, 0];
    const told = database.transaction(() => {
      for (const one of list) {
        if ("customer" in one) customers += erased.run(one.customer).changes;
        else if ("device" in one && out) {
          devices += out.run(one.at, one.device).changes;
          if (ended) ended.run(one.at, one.device);
        }
      }
      if (has("security_log"))
        database
          .prepare("insert into security_log (at, what, who, device, detail) values (?, 'restored', '', ?, ?)")
          .run(nowIso(), "the shop's machine", `${devices} devices removed and ${customers} customers erased again`);
    });
    told.immediate();
    database.pragma("wal_checkpoint(TRUNCATE)");
    return { devices, customers };
  } finally {
    database.close();
  }
}
