import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterAll, expect, it } from "vitest";
import { lookList } from "@/core/checks/look";
import { NATURAL, VAPOUR } from "@/core/core.fixture";
import { foldJob } from "@/core/journal";
import { proved } from "@/core/journal/journal.fixture";
import type { Tally } from "@/core/suspects";
import { engineOf, layoutOf } from "@/core/vehicle";
import { listJobs, rebuildBoard, refreshStale, staleJobs, tryRefresh } from "./board";
import { callsDue } from "./calls";
import { eraseCustomer, writeCustomer } from "./customers";
import { openDb } from "./db/open";
import { experienceFor, learnedHere } from "./experience";
import { appendEntries, openJob, readEntries } from "./jobs";
import { whatWeKnowHere } from "./lessons";
import { entryOf, opening, STORY } from "./mutated.fixture";
import { recordHere } from "./recorded.fixture";
import { houseOn, readShop, readShopVersion, writeShop } from "./shop";

const folder = mkdtempSync(join(tmpdir(), "pelota-lessons-"));
const db = openDb(folder);
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

function handedOver() {
  const { job } = proved();
  job.add("handover", { decidedOn: job.state().lastSeq, conditional: false, summary: "Sound again" });
  return job;
}

it("keeps what a job teaches and whom to call as its journal goes on, and forgets what it no longer says", () => {
  const job = handedOver();
  const id = recordHere(job.entries, db);
  refreshStale(db);
  expect(learnedHere(db)).toEqual([]);
  expect(whatWeKnowHere(db)).toMatchObject({ jobs: 1, proved: 1, held: { lasting: [{ name: "Permanent", made: 1, heard: 0 }] } });
  writeCustomer(id, { name: "Ines Fell", contact: "555 0142" }, db);
  const due = callsDue(db, "2026-03-20");
  expect(due).toMatchObject([{ jobId: id, about: "how-it-held", on: "2026-03-30", customer: { name: "Ines Fell" } }]);
  expect(callsDue(db, "2026-09-01")).toEqual([]);
  // Who was erased stands in no list.
  eraseCustomer(id, db);
  expect(callsDue(db, "2026-03-20")[0]?.customer).toBeUndefined();
  job.add("outcome", { result: "came-back" });
  recordHere(job.entries, db);
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

it("names the best next check as the bench does, with what the shop has proved since", () => {
  const other = openDb(mkdtempSync(join(folder, "other-")));
  const jobId = uuid();
  openJob(opening(jobId), other);
  const looked = { items: lookList(layoutOf(VAPOUR), VAPOUR).map(({ id }) => ({ id, state: "fine" })) };
  const add = (kind: string, body: object) => appendEntries(jobId, entryOf(jobId, kind, body), other);
  add("vehicle", VAPOUR);
  add("story", STORY);
  add("codes", { codes: [{ code: "P0455", status: "stored" }] });
  add("check", { check: "look", record: looked });
  refreshStale(other);
  const reason = () => listJobs({}, other).find((j) => j.id === jobId)?.reason;
  const fold = (experience?: Tally) => foldJob(readEntries(jobId, 0, other), readShop(other), Date.now(), experience);
  const without = fold();
  expect(reason()).toBe(without.nextStation.reason);
  // A place that moves it, if it was found every time.
  const places = without.suspects.map((s) => s.cause.joint ?? s.cause.id);
  const moves = places.find(
    (id) => fold({ jobs: 6, found: { [id]: 6 }, of: "" }).nextStation.reason !== without.nextStation.reason,
  );
  expect(moves).toBeDefined();
  const insert = other.$client.prepare(
    `insert into jobs (id, number, created_at, status, station, reason, waiting_on, vehicle, registration, complaint, codes, updated_at, proved, engine)
     values (?, ?, '2026-01-01', 'closed', 'handover', '', 'me', '', '', '', '', '2026-01-01', ?, ?)`,
  );
  const proved = JSON.stringify({ engine: engineOf(VAPOUR), families: ["evap"], found: [moves] });
  for (let i = 0; i < 6; i++) insert.run(uuid(), 100 + i, proved, engineOf(VAPOUR));
  expect(experienceFor(jobId, other)).toMatchObject({ jobs: 6 });
  // One that came back counts no more: five are left, then four, which are not enough.
  const forget = other.$client.prepare("update jobs set proved = '' where number = ?");
  forget.run(100);
  expect(experienceFor(jobId, other)).toMatchObject({ jobs: 5 });
  forget.run(101);
  expect(experienceFor(jobId, other)).toBeUndefined();
  for (const number of [100, 101]) other.$client.prepare("update jobs set proved = ? where number = ?").run(proved, number);
  other.$client.prepare("update jobs set folded = 0 where id = ?").run(jobId);
  refreshStale(other);
  expect(reason()).toBe(fold(experienceFor(jobId, other)).nextStation.reason);
  expect(reason()).not.toBe(without.nextStation.reason);
  other.$client.close();
});

it("folds the open jobs of an engine anew once another one of it is proved, and no closed one", () => {
  const other = openDb(mkdtempSync(join(folder, "engine-")));
  const open = uuid();
  openJob(opening(open), other);
  appendEntries(open, entryOf(open, "vehicle", NATURAL), other);
  const job = handedOver();
  job.add("close", { decidedOn: job.state().lastSeq });
  recordHere(job.entries, other);
  for (const jobId of staleJobs(other)) if (jobId === open) tryRefresh(jobId, other);
  for (const jobId of staleJobs(other)) tryRefresh(jobId, other);
  expect(staleJobs(other)).toEqual([open]);
  refreshStale(other);
  expect(staleJobs(other)).toEqual([]);
  other.$client.close();
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
