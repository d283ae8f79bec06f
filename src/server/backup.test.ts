import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterAll, describe, expect, it } from "vitest";
import { NATURAL } from "@/core/core.fixture";
import { canonicalJson } from "@/core/journal";
import { backup, checkBackup, restore, verifyData } from "./backup";
import * as board from "./board";
import { type Db, openDb } from "./db/open";
import { pathOf, storeFile } from "./files";
import * as jobs from "./jobs";

const folders: string[] = [];
const fresh = () => {
  const folder = mkdtempSync(join(tmpdir(), "pelota-backup-"));
  folders.push(folder);
  return folder;
};
afterAll(() => {
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

/** A data folder with two jobs and a log. */
function shop() {
  const folder = fresh();
  const db = openDb(folder);
  const open = () => {
    const jobId = uuid();
    const line = { jobId, at: "2026-03-02T08:00:00.000Z", by: "Maren Oake", device: "tablet" };
    jobs.openJob({ ...line, id: uuid(), deviceSeq: 1 }, db);
    const add = (kind: string, body: object) =>
      jobs.appendEntries(jobId, { ...line, id: uuid(), deviceSeq: 2, kind, v: 1, seenSeq: 1, body }, db);
    add("vehicle", NATURAL);
    add("story", { complaint: "Hiss at idle", symptoms: [], verified: "seen" });
    return { jobId, add };
  };
  const [first, second] = [open(), open()];
  const { sha256 } = storeFile(first.jobId, "drive.csv", Buffer.from("Time,RPM\n0,700\n"), db, folder);
  return { folder, db, first, second, sha256 };
}
const journals = (db: Db) => canonicalJson(board.listJobs({ includeClosed: true }, db).map((j) => jobs.readEntries(j.id, 0, db)));
const refused = async (work: Promise<unknown>) =>
  work.then(
    () => "taken",
    (e: Error) => e.message,
  );

describe("a restore drill", () => {
  it("brings back what was there at the moment of the backup, though the shop went on", async () => {
    const { folder, db, first, sha256 } = shop();
    const then = journals(db);
    const kept = join(fresh(), "monday");
    const taking = backup(kept, folder);
    first.add("note", { text: "written meanwhile" });
    const manifest = await taking;
    expect(manifest).toMatchObject({ format: "pelota-backup", jobs: 2, files: [{ sha256 }] });
    expect(await checkBackup(kept)).toEqual([]);
    first.add("note", { text: "written after" });

    const back = join(fresh(), "new-machine");
    await restore(kept, back);
    const there = openDb(back);
    // One moment: with the note that was being written, or without it.
    const meanwhile = jobs.readJob(first.jobId, there).notes.map((n) => n.text);
    expect([[], ["written meanwhile"]]).toContainEqual(meanwhile);
    if (meanwhile.length === 0) expect(journals(there)).toBe(then);
    expect(await verifyData(back)).toEqual({ jobs: 2, files: 1, wrong: [] });
    expect(readdirSync(join(back, "files"))).toHaveLength(1);
  });

  it("goes nowhere that something is already, and takes nothing that does not verify", async () => {
    const { folder, sha256 } = shop();
    const kept = join(fresh(), "tuesday");
    await backup(kept, folder);
    expect(await refused(backup(kept, folder))).toMatch(/is not empty: name a new folder/);
    expect(await refused(restore(kept, folder))).toMatch(/is not empty.*nothing is lost/);
    expect(await refused(backup(join(fresh(), "x"), fresh()))).toMatch(/There is no database/);
    expect(await refused(restore(fresh(), join(fresh(), "y")))).toMatch(/holds no backup/);

    for (const damage of [
      () => truncateSync(join(kept, "pelota.sqlite"), 4096),
      () => writeFileSync(pathOf(kept, sha256), "Time,RPM\n0,701\n"),
      () => rmSync(pathOf(kept, sha256)),
      () => writeFileSync(join(kept, "manifest.json"), "{"),
      () => writeFileSync(join(kept, "manifest.json"), '{"format":"pelota-backup","version":2}'),
    ]) {
      damage();
      const target = join(fresh(), "nothing");
      expect(await refused(restore(kept, target))).not.toBe("taken");
      expect(existsSync(target) ? readdirSync(target) : []).toEqual([]);
    }
  });

  it("does not back up what is already broken and call it good", async () => {
    const { folder, sha256 } = shop();
    rmSync(pathOf(folder, sha256));
    expect(await refused(backup(join(fresh(), "a"), folder))).toMatch(/is missing in/);
    mkdirSync(join(folder, "files", sha256.slice(0, 2)), { recursive: true });
    writeFileSync(pathOf(folder, sha256), "Time,RPM\n9,999\n");
    expect(await refused(backup(join(fresh(), "b"), folder))).toMatch(/does not verify: file/);
  });
});

describe("looking through a data folder", () => {
  it("finds nothing where all is well, and says of each fault what to do", async () => {
    const { folder, db, first, sha256 } = shop();
    expect(await verifyData(folder)).toEqual({ jobs: 2, files: 1, wrong: [] });
    board.refreshStale(db);
    db.$client.prepare("update jobs set complaint = 'nothing at all' where id = ?").run(first.jobId);
    writeFileSync(pathOf(folder, sha256), "short");
    const { wrong } = await verifyData(folder);
    expect(wrong.map((w) => w.what)).toEqual([
      expect.stringMatching(/^Job 1: the board says otherwise than its journal \(complaint\)/),
      `File ${sha256} is damaged`,
    ]);
    for (const { todo } of wrong) expect(todo).not.toBe("");
    first.add("note", { text: "fold me anew" });
    expect((await verifyData(folder)).wrong).toHaveLength(1);
  });

  it("says that a database is damaged instead of breaking on it", async () => {
    const { folder, db } = shop();
    db.$client.close();
    for (const extra of ["pelota.sqlite-wal", "pelota.sqlite-shm"]) rmSync(join(folder, extra), { force: true });
    writeFileSync(join(folder, "pelota.sqlite"), "no database ".repeat(1000));
    expect((await verifyData(folder)).wrong[0]?.what).toMatch(/The database is damaged/);
  });
});
