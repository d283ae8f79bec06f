import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterAll, describe, expect, it } from "vitest";
import { backupState, dailyBackup } from "./daily-backup";
import { openDb } from "./db/open";
import { pathOf, storeFile } from "./files";
import { openJob } from "./jobs";

const root = mkdtempSync(join(tmpdir(), "pelota-daily-"));
afterAll(() => rmSync(root, { recursive: true, force: true }));
const at = (day: number, hour = 3) => Date.UTC(2026, 2, day, hour);

function shop() {
  const data = mkdtempSync(join(root, "data-"));
  const db = openDb(data);
  const jobId = uuid();
  openJob({ id: uuid(), jobId, at: new Date(at(1)).toISOString(), by: "Wren Alder", device: "tablet", deviceSeq: 1 }, db);
  return { data, db, jobId, backups: `${data}-backups` };
}

describe("the daily backup", () => {
  it("is taken once a day, and shown with what it holds", async () => {
    const { data, backups } = shop();
    expect(backupState(backups, 14)).toEqual({ folder: backups, keep: 14, kept: 0 });
    expect(await dailyBackup(backups, 14, data, at(2))).toMatchObject({ jobs: 1 });
    expect(await dailyBackup(backups, 14, data, at(2, 20))).toBeUndefined();
    expect(await dailyBackup(backups, 14, data, at(3, 4))).toMatchObject({ jobs: 1 });
    expect(backupState(backups, 14)).toMatchObject({
      kept: 2,
      last: { at: new Date(at(3, 4)).toISOString(), jobs: 1, files: 0 },
    });
  });

  it("keeps so many good ones, and takes nothing away that it has not made itself", async () => {
    const { data, backups } = shop();
    mkdirSync(join(backups, "holiday pictures"), { recursive: true });
    writeFileSync(join(backups, "2026-03-01.txt"), "mine");
    for (let day = 1; day <= 6; day++) await dailyBackup(backups, 3, data, at(day));
    expect(readdirSync(backups)).toEqual([
      "2026-03-01.txt",
      "2026-03-04T03-00-00Z",
      "2026-03-05T03-00-00Z",
      "2026-03-06T03-00-00Z",
      "holiday pictures",
    ]);
  });

  it("that fails takes no good one away, leaves no half one, and is tried again", async () => {
    const { data, db, jobId, backups } = shop();
    for (const day of [1, 2]) await dailyBackup(backups, 2, data, at(day));
    const { sha256 } = storeFile(jobId, "log.csv", Buffer.from("Time,RPM\n0,800\n"), db, data);
    rmSync(pathOf(data, sha256));
    await expect(dailyBackup(backups, 2, data, at(3))).rejects.toThrow(/missing/);
    expect(readdirSync(backups)).toEqual(["2026-03-01T03-00-00Z", "2026-03-02T03-00-00Z"]);
    storeFile(jobId, "log.csv", Buffer.from("Time,RPM\n0,800\n"), db, data);
    expect(await dailyBackup(backups, 2, data, at(3, 4))).toMatchObject({ files: [{ sha256 }] });
    expect(readdirSync(backups)).toEqual(["2026-03-02T03-00-00Z", "2026-03-03T04-00-00Z"]);
  });

  it("counts no stump of one that was killed as a backup, and clears it away", async () => {
    const { data, backups } = shop();
    mkdirSync(join(backups, "2026-03-09T03-00-00Z"), { recursive: true });
    writeFileSync(join(backups, "2026-03-09T03-00-00Z", "pelota.sqlite"), "half");
    mkdirSync(join(backups, ".taking-2026-03-09T03-00-00Z"));
    expect(backupState(backups, 14).kept).toBe(0);
    await dailyBackup(backups, 14, data, at(10));
    expect(backupState(backups, 14).kept).toBe(1);
    expect(existsSync(join(backups, ".taking-2026-03-09T03-00-00Z"))).toBe(false);
  });

  it("is off where none are to be kept", async () => {
    const { data, backups } = shop();
    expect(await dailyBackup(backups, 0, data, at(1))).toBeUndefined();
    expect(existsSync(backups)).toBe(false);
  });
});
