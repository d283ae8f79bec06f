import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, it } from "vitest";
import type { JournalEntry } from "@/core/journal";
import { minute, proved } from "@/core/journal/journal.fixture";
import { rebuildBoard, refreshStale } from "./board";
import { callsDue } from "./calls";
import { openDb } from "./db/open";
import { eraseCustomer, importJob, writeCustomer } from "./jobs";
import { whatWeKnowHere } from "./lessons";
import { houseOn, readShop, readShopVersion, writeShop } from "./shop";

const folder = mkdtempSync(join(tmpdir(), "pelota-lessons-"));
const db = openDb(folder);
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

const file = (entries: readonly JournalEntry[]) => ({
  format: "pelota-job" as const,
  version: 1,
  exportedAt: minute(0),
  jobId: (entries[0] as JournalEntry).jobId,
  shop: readShop(db),
  entries,
});
function handedOver() {
  const { job } = proved();
  job.add("handover", { decidedOn: job.state().lastSeq, conditional: false, summary: "Sound again" });
  return job;
}

it("keeps what a job teaches and whom to call as its journal goes on, and forgets what it no longer says", () => {
  const job = handedOver();
  const { id } = importJob(file(job.entries), db);
  refreshStale(db);
  expect(whatWeKnowHere(db)).toMatchObject({ jobs: 1, proved: 1, held: { lasting: [{ name: "Permanent", made: 1, heard: 0 }] } });
  writeCustomer(id, { name: "Ines Fell", contact: "555 0142" }, db);
  const due = callsDue(db, "2026-03-20");
  expect(due).toMatchObject([{ jobId: id, about: "how-it-held", on: "2026-03-30", customer: { name: "Ines Fell" } }]);
  expect(callsDue(db, "2026-09-01")).toEqual([]);
  // Who was erased stands in no list.
  eraseCustomer(id, db);
  expect(callsDue(db, "2026-03-20")[0]?.customer).toBeUndefined();
  job.add("outcome", { result: "came-back" });
  importJob(file(job.entries), db);
  refreshStale(db);
  expect(whatWeKnowHere(db)).toMatchObject({ jobs: 1, proved: 0, held: { lasting: [{ heard: 1, cameBack: 1 }] } });
  expect(callsDue(db, "2026-03-20")).toEqual([]);
  const before = whatWeKnowHere(db);
  expect(rebuildBoard(db)).toBe(1);
  expect(whatWeKnowHere(db)).toEqual(before);
  // Practice teaches nothing and nobody is called about it.
  db.$client.prepare("update entries set body = json_set(body, '$.practice', '3008-BFY0-0000-006') where kind = 'opened'").run();
  rebuildBoard(db);
  expect(whatWeKnowHere(db).jobs).toBe(0);
});

it("knows the house methods of a day", () => {
  const { shop, version } = readShopVersion(db);
  expect(houseOn("2026-01-01T00:00:00.000Z", db).firstLocator).toBe("smoke");
  const saved = writeShop(
    { base: version, by: "Wren Alder", shop: { ...shop, house: { ...shop.house, firstLocator: "gas" } } },
    db,
  );
  expect(houseOn(saved.at, db).firstLocator).toBe("gas");
  expect(houseOn("2026-01-01T00:00:00.000Z", db).firstLocator).toBe("smoke");
});
