import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { backup, type Manifest, readManifest } from "./backup";
import { backupsFolder } from "./backups-folder";
import { now } from "./clock";
import { dataFolder } from "./db/open";

const USUAL_KEEP = 14;
/** How many daily backups are kept: `PELOTA_KEEP_BACKUPS`; 0 takes none. */
export function keepBackups(): number {
  const given = Number(process.env.PELOTA_KEEP_BACKUPS ?? USUAL_KEEP);
  return Number.isInteger(given) && given >= 0 ? given : USUAL_KEEP;
}

/** A day, with an hour to spare for when it was looked last, ms. */
const DAY = 23 * 3600_000;
/** Only what is called so was made here, and may be taken away. */
const NAME = /^\d{4}-\d\d-\d\dT\d\d-\d\d-\d\dZ$/;
const TAKING = ".taking-";
const nameOf = (ms: number) => `${new Date(ms).toISOString().slice(0, 19).replaceAll(":", "-")}Z`;

const read = (folder: string): Manifest | undefined => {
  try {
    return readManifest(folder);
  } catch {
    return undefined;
  }
};

/** Backups that were finished, oldest first. */
const finished = (folder: string): string[] =>
  existsSync(folder)
    ? readdirSync(folder)
        .filter((name) => NAME.test(name) && read(join(folder, name)))
        .sort()
    : [];

/** Oldest first; those dated ahead of now come before all: they say nothing of when they were taken. */
const byAge = (names: readonly string[], at: number): string[] => {
  const ahead = nameOf(at + DAY);
  return [...names.filter((name) => name > ahead), ...names.filter((name) => name <= ahead)];
};

export interface BackupState {
  readonly folder: string;
  readonly keep: number;
  readonly kept: number;
  /** The last that was read again and found whole */
  readonly last?: { readonly at: string; readonly jobs: number; readonly files: number };
}

/** Contents of the folder of daily backups. */
export function backupState(folder = backupsFolder(), keep = keepBackups()): BackupState {
  const names = finished(folder);
  const last = names.length > 0 ? read(join(folder, names.at(-1) as string)) : undefined;
  return {
    folder,
    keep,
    kept: names.length,
    ...(last ? { last: { at: last.takenAt, jobs: last.jobs, files: last.files.length } } : {}),
  };
}

/**
 * Takes today's backup where there is none yet: under a name of its own, put in its place once it verifies; only then are
 * the oldest beyond `keep` taken away. Throws what `backup` throws; nothing is changed then.
 * @returns undefined where none was due.
 */
export async function dailyBackup(
  folder = backupsFolder(),
  keep = keepBackups(),
  data = dataFolder(),
  at = now(),
): Promise<Manifest | undefined> {
  if (keep === 0) return undefined;
  const last = read(join(folder, finished(folder).at(-1) ?? ""));
  // One from a day that is still to come was dated by a clock that ran wild: it is none of today's.
  if (last && Math.abs(at - Date.parse(last.takenAt)) < DAY) return undefined;
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  // What a killed one left is no backup.
  for (const name of readdirSync(folder))
    if (name.startsWith(TAKING)) rmSync(join(folder, name), { recursive: true, force: true });
  const name = nameOf(at);
  const taking = join(folder, `${TAKING}${name}`);
  try {
    const manifest = await backup(taking, data, at);
    renameSync(taking, join(folder, name));
    for (const old of byAge(finished(folder), at).slice(0, -keep)) rmSync(join(folder, old), { recursive: true, force: true });
    return manifest;
  } finally {
    rmSync(taking, { recursive: true, force: true });
  }
}
