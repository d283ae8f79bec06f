"use client";

import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { type DeviceJournal, type Entry, type Kept, keptOf, leased, leftBy, nextBatch } from "@/core/journal";
import type { Role, WrappedKey } from "@/core/people";
import { keysOf, load, save } from "./storage";

/** A sign-in as this device keeps it, for when the server is away: its key is nothing without the PIN. */
export interface KeptSignIn extends WrappedKey {
  readonly personId: string;
  readonly signIn: string;
  readonly name: string;
  readonly role: Role;
  /** When that was by the server's clock, and until when it lets in, ms since 1970 */
  readonly since?: number;
  readonly until: number;
  /** Wrong PINs in a row, without the server */
  readonly wrong: number;
}

/** A picture on this device, named by its content. */
export interface KeptPicture {
  readonly jobId: string;
  readonly sha256: string;
  readonly name: string;
  readonly bytes: Blob;
}

/** A job's journal as it was when this device last had it open, whole in one piece. */
interface Copy {
  readonly jobId: string;
  /** ms since 1970 */
  readonly usedAt: number;
  readonly journal: DeviceJournal;
}

/** State that every tab of this device shares: its count of entries, what the server has not got for sure, and the jobs it knows. */
interface DeviceStore extends DBSchema {
  /** How many entries it has made, and the last of them */
  /** How many entries it has made, and the id of the last one */
  counts: { key: string; value: number | string };
  kept: { key: string; value: Kept };
  journals: { key: string; value: Copy; indexes: { usedAt: number } };
  /** The last sign-in of each person on this device */
  signIns: { key: string; value: KeptSignIn };
  /** Pictures that are on this device alone, until they have gone up */
  pictures: { key: [jobId: string, sha256: string]; value: KeptPicture };
  /** Where entries waited before each was kept with its tries */
  outbox: { key: string; value: Entry };
}

const COUNT = "deviceSeq";
const LAST = "lastEntry";
/** Where counts and waiting entries stood before all tabs shared one store. */
const OLD_COUNT = "pelota.deviceSeq";
const OLD_OUTBOX = "pelota.outbox.";
const OLD_ASIDE = "pelota.set-aside.";

let store: Promise<IDBPDatabase<DeviceStore>> | undefined;

const device = () => {
  store ??= opened().catch((error) => {
    store = undefined;
    throw error;
  });
  return store;
};

function opened(): Promise<IDBPDatabase<DeviceStore>> {
  return new Promise((done, fail) => {
    openDB<DeviceStore>("pelota", 5, {
      async upgrade(db, before, _, tx) {
        if (before < 1) db.createObjectStore("counts");
        if (before < 2) db.createObjectStore("kept", { keyPath: "id" });
        if (before < 3) db.createObjectStore("journals", { keyPath: "jobId" }).createIndex("usedAt", "usedAt");
        if (before < 4) db.createObjectStore("signIns", { keyPath: "personId" });
        db.createObjectStore("pictures", { keyPath: ["jobId", "sha256"] });
        if (before !== 1) return;
        for (const entry of await tx.objectStore("outbox").getAll())
          for (const kept of keptOf([entry])) await tx.objectStore("kept").put(kept);
        db.deleteObjectStore("outbox");
      },
      blocked: () =>
        fail(new Error("Another tab of this device still runs an older version: close or reload it. What you typed is kept")),
      // A newer version wants in: this tab steps aside, and reloading brings it up to date.
      blocking: (_, __, event) => {
        (event.target as IDBDatabase).close();
        store = undefined;
      },
      terminated: () => {
        store = undefined;
      },
    })
      .then(takeOver)
      .then(done, fail);
  });
}

/** Takes in what waited in this browser's plain storage; only then is it taken out there. */
async function takeOver(db: IDBPDatabase<DeviceStore>): Promise<IDBPDatabase<DeviceStore>> {
  const waiting = keysOf(OLD_OUTBOX).flatMap((key) => (load<Entry[]>(key) ?? []).flatMap((entry) => keptOf([entry])));
  const aside = keysOf(OLD_ASIDE).flatMap((key) =>
    (load<{ entry: Entry; message: string }[]>(key) ?? []).flatMap(({ entry, message }) =>
      keptOf([entry]).map((k) => ({ ...k, refused: { message, at: Date.now() } })),
    ),
  );
  if (waiting.length + aside.length > 0) {
    const tx = db.transaction("kept", "readwrite");
    for (const kept of [...waiting, ...aside]) await tx.store.put(kept);
    await tx.done;
  }
  for (const key of [...keysOf(OLD_OUTBOX), ...keysOf(OLD_ASIDE)]) save(key, undefined);
  return db;
}

/** Where an entry stands among all that its device made. */
export type Place = Pick<Entry, "deviceSeq" | "prior">;

/** The places of entries that are made now, by their ids, in this device's own count: no two tabs ever get the same. */
export async function nextPlaces(ids: readonly string[]): Promise<Place[]> {
  const tx = (await device()).transaction("counts", "readwrite");
  const count = ((await tx.store.get(COUNT)) as number | undefined) ?? load<number>(OLD_COUNT) ?? 0;
  const last = (await tx.store.get(LAST)) as string | undefined;
  await tx.store.put(count + ids.length, COUNT);
  await tx.store.put(ids.at(-1) as string, LAST);
  await tx.done;
  return ids.map((_, i) => {
    const prior = i === 0 ? last : ids[i - 1];
    return { deviceSeq: count + 1 + i, ...(prior ? { prior } : {}) };
  });
}

/** Everything this device keeps, oldest first. */
export const readKept = async (): Promise<Kept[]> =>
  (await (await device()).getAll("kept")).sort((a, b) => a.entry.deviceSeq - b.entry.deviceSeq);

/** Keeps entries made together, before anything is sent. */
export async function keep(entries: readonly Entry[]): Promise<void> {
  const tx = (await device()).transaction("kept", "readwrite", { durability: "strict" });
  for (const kept of keptOf(entries)) await tx.store.put(kept);
  await tx.done;
}

/** Keeps what another store of this device held; what is kept here already stays as it is. */
export async function takeOverKept(all: readonly Kept[]): Promise<void> {
  const tx = (await device()).transaction("kept", "readwrite", { durability: "strict" });
  for (const one of all) if ((await tx.store.get(one.id)) === undefined) await tx.store.put(one);
  await tx.done;
}

/** Takes on the next batch for this tab: looked for and leased in one transaction, so that no other tab does too. */
export async function takeOn(tab: string, now: number, hurry: boolean): Promise<Kept[]> {
  const tx = (await device()).transaction("kept", "readwrite");
  const batch = nextBatch(await tx.store.getAll(), tab, now, hurry).map((k) => leased(k, tab, now));
  for (const kept of batch) await tx.store.put(kept);
  await tx.done;
  return batch;
}

/** Frees what a tab had taken on that is gone. */
export async function freeLeases(tab: string): Promise<void> {
  const tx = (await device()).transaction("kept", "readwrite");
  for (const kept of await tx.store.getAll()) if (kept.lease?.tab === tab) await tx.store.put(leftBy(kept, tab));
  await tx.done;
}

/** Changes what is still kept of these; undefined takes it out. */
export async function changeKept(ids: readonly string[], change: (kept: Kept) => Kept | undefined): Promise<void> {
  const tx = (await device()).transaction("kept", "readwrite");
  for (const id of ids) {
    const kept = await tx.store.get(id);
    if (!kept) continue;
    const next = change(kept);
    if (next) await tx.store.put(next);
    else await tx.store.delete(id);
  }
  await tx.done;
}

/** Journals of so many jobs stay on this device. */
const COPIES = 30;

/** The journal of a job as this device last had it; undefined where it has none, or cannot read it. */
export const readCopy = async (jobId: string): Promise<DeviceJournal | undefined> =>
  device()
    .then((db) => db.get("journals", jobId))
    .then((copy) => copy?.journal)
    .catch(() => undefined);

/** Every journal that this device holds. */
export const readCopies = async (): Promise<Copy[]> => (await device()).getAll("journals");

/** Keeps a job's journal for the next time, and lets go of those not opened for longest; where it cannot, nothing is lost. */
export async function saveCopy(jobId: string, journal: DeviceJournal): Promise<void> {
  const tx = (await device()).transaction("journals", "readwrite");
  await tx.store.put({ jobId, usedAt: Date.now(), journal });
  const known = await tx.store.index("usedAt").getAllKeys();
  for (const old of known.slice(0, -COPIES)) await tx.store.delete(old);
  await tx.done;
}

export const keptSignIns = async (): Promise<KeptSignIn[]> => (await device()).getAll("signIns");
export const keepSignIn = async (kept: KeptSignIn): Promise<void> => {
  await (await device()).put("signIns", kept);
};

/** Pictures of a job that are on this device alone. */
export const picturesHere = async (jobId: string): Promise<KeptPicture[]> =>
  (await device()).getAll("pictures", IDBKeyRange.bound([jobId], [jobId, []]));
export async function keepPictureHere(picture: KeptPicture): Promise<void> {
  const tx = (await device()).transaction("pictures", "readwrite", { durability: "strict" });
  await tx.store.put(picture);
  await tx.done;
}
export const dropPicture = async (jobId: string, sha256: string): Promise<void> =>
  (await device()).delete("pictures", [jobId, sha256]);

/** Wording where this device could not keep something. */
export const cannotKeep = (error: unknown): string =>
  (error as Error).name === "QuotaExceededError"
    ? "The storage of this device is full: nothing was recorded, and what you typed is still here. Free some space on it, then do it again"
    : `This device could not keep it: ${(error as Error).message}`;

/** Lets go of a copy: the job is fetched anew the next time. */
export const dropCopy = async (jobId: string): Promise<void> => (await device()).delete("journals", jobId);
