import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { buildSync } from "esbuild";
import { v4 as uuid } from "uuid";
import { afterAll, describe, expect, it, vi } from "vitest";
import { evapSmokeRun } from "@/core/checks/evap.fixture";
import { hold } from "@/core/checks/records.fixture";
import { NATURAL, smokeRun } from "@/core/core.fixture";
import { asRecorded, canonicalJson, foldJob, type JournalEntry, parseJobFile } from "@/core/journal";
import { trials } from "../trials.fixture";
import { verifyData } from "./backup";
import * as board from "./board";
import * as customers from "./customers";
import { type Db, openDb } from "./db/open";
import * as door from "./entries-door";
import { readFile, storeFile } from "./files";
import { answer, jsonBody } from "./http";
import * as files from "./job-files";
import * as journals from "./jobs";
import { readMapping, writeMapping } from "./mappings";
import { addPerson, listPeople } from "./people";
import { Conflict, NotFound } from "./refusals";
import { proofHistory, readShop, readShopVersion, writeShop } from "./shop";

const jobs = { ...journals, ...door, ...files, ...customers };

const folders: string[] = [];
const fresh = (): { db: Db; folder: string } => {
  const folder = mkdtempSync(join(tmpdir(), "pelota-server-"));
  folders.push(folder);
  return { db: openDb(folder), folder };
};
afterAll(() => {
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

const says = (work: () => unknown): string => {
  try {
    work();
    return "taken";
  } catch (error) {
    return (error as Error).message;
  }
};

function opened(db: Db) {
  const jobId = uuid();
  const opening = { id: uuid(), jobId, at: new Date().toISOString(), by: "Maren Oake", device: "tablet", deviceSeq: 1 };
  const job = jobs.openJob(opening, db);
  let deviceSeq = 1;
  const entry = (kind: string, body: object, more: Partial<JournalEntry> = {}) => ({
    id: uuid(),
    jobId,
    kind,
    v: 1,
    at: new Date().toISOString(),
    by: "Maren Oake",
    device: "tablet",
    deviceSeq: ++deviceSeq,
    seenSeq: 0,
    body,
    ...more,
  });
  return { jobId, opening, job, entry, add: (kind: string, body: object) => jobs.appendEntries(jobId, entry(kind, body), db) };
}

describe("database", () => {
  it("is in WAL, syncs every commit and holds foreign keys, at every open", () => {
    const { db, folder } = fresh();
    for (const at of [db, openDb(folder)]) {
      expect(at.$client.pragma("journal_mode", { simple: true })).toBe("wal");
      expect(at.$client.pragma("synchronous", { simple: true })).toBe(2);
      expect(at.$client.pragma("foreign_keys", { simple: true })).toBe(1);
    }
  });
});

describe("opening a job", () => {
  it("gives the next number once, however often it is asked", () => {
    const { db } = fresh();
    const { opening, job } = opened(db);
    expect(job.number).toBe(1);
    expect(jobs.openJob(opening, db)).toEqual(job);
    expect(opened(db).job.number).toBe(2);
    expect(says(() => jobs.openJob({ ...opening, jobId: uuid(), by: " " }, db))).toMatch(/Say who you are/);
  });

  it.each([
    [{ at: "tomorrow" }, /ISO time in UTC/],
    [{ at: null }, /at/],
    [{ deviceSeq: 1.5 }, /deviceSeq/],
    [{ device: " " }, /device has no name/],
    [{ id: "constructor" }, /UUID/],
    [{ colour: "red" }, /unknown key/],
  ])("refuses %j, and the board stands", (change, message) => {
    const { db } = fresh();
    const { opening } = opened(db);
    expect(says(() => jobs.openJob({ ...opening, id: uuid(), jobId: uuid(), ...change }, db))).toMatch(message);
    expect(board.listJobs({}, db)).toHaveLength(1);
  });

  it("reads what an older door let in with no time, and goes on", () => {
    const { db } = fresh();
    const { jobId, add } = opened(db);
    db.$client.prepare("update entries set at = ? where job_id = ?").run('"tomorrow"', jobId);
    add("story", { complaint: "Hiss", symptoms: [], verified: "seen" });
    const state = jobs.readJob(jobId, db);
    expect(Number.isFinite(Date.parse(state.updatedAt))).toBe(true);
    expect(state.story?.complaint).toBe("Hiss");
    expect(board.rebuildBoard(db)).toBe(1);
  });
});

describe("appending", () => {
  it("numbers entries, stamps them, and folds the board's columns", () => {
    const { db } = fresh();
    const { jobId, add } = opened(db);
    add("vehicle", NATURAL);
    const [story] = add("story", { complaint: "Hiss at idle", symptoms: [], verified: "seen" });
    expect(story).toMatchObject({ seq: 3, recordedAt: expect.stringMatching(/Z$/) });
    board.refreshStale(db);
    const [row] = board.listJobs({ search: "hiss petrel" }, db);
    expect(row).toMatchObject({ id: jobId, registration: NATURAL.registration, complaint: "Hiss at idle", station: "scan" });
    expect(board.listJobs({ search: "velloram" }, db)).toEqual([]);
  });

  it("takes the same entry twice as once, and refuses its id with other contents", () => {
    const { db } = fresh();
    const { jobId, entry } = opened(db);
    const note = entry("note", { text: "once" });
    const first = jobs.appendEntries(jobId, note, db);
    expect(jobs.appendEntries(jobId, note, db)).toEqual(first);
    expect(() => jobs.appendEntries(jobId, { ...note, body: { text: "twice" } }, db)).toThrow(Conflict);
    expect(jobs.readEntries(jobId, 0, db)).toHaveLength(2);
  });

  it("takes a batch whole or not at all", () => {
    const { db } = fresh();
    const { jobId, entry } = opened(db);
    const batch = [entry("note", { text: "good" }), entry("note", { text: "" })];
    expect(says(() => jobs.appendEntries(jobId, batch, db))).toMatch(/note is empty/);
    expect(jobs.readEntries(jobId, 0, db)).toHaveLength(1);
  });

  it("sets a clock that runs ahead back, and notes what it said", () => {
    const { db } = fresh();
    const { jobId, entry } = opened(db);
    const ahead = new Date(Date.now() + 3600_000).toISOString();
    const [kept] = jobs.appendEntries(jobId, entry("note", { text: "early" }, { at: ahead }), db);
    expect(Date.parse(kept?.at as string)).toBeLessThan(Date.now() + 1000);
    expect(kept?.clampedFrom).toBe(ahead);
    const [again] = jobs.readEntries(jobId, 1, db);
    expect(again).toEqual(kept);
  });

  it("does not turn time round when the server's own clock is set back", () => {
    const { db } = fresh();
    const { jobId, add, entry } = opened(db);
    add("note", { text: "before" });
    const real = Date.now();
    vi.spyOn(Date, "now").mockReturnValue(real - 3 * 3600_000);
    try {
      const at = new Date(real + 1000).toISOString();
      const [kept] = jobs.appendEntries(jobId, entry("note", { text: "after" }, { at }), db);
      expect(kept?.at).toBe(at);
      expect(kept?.clampedFrom).toBeUndefined();
      const list = jobs.readEntries(jobId, 0, db).map((e) => e.recordedAt);
      expect(list).toEqual(list.toSorted());
    } finally {
      vi.restoreAllMocks();
    }
  });

  it("refuses corrections that name nothing, another kind or another correction", () => {
    const { db } = fresh();
    const { jobId, entry } = opened(db);
    const note = entry("note", { text: "first" });
    jobs.appendEntries(jobId, note, db);
    const correction = (kind: string, body: object, corrects?: string) =>
      says(() => jobs.appendEntries(jobId, entry(kind, body, corrects ? { corrects } : {}), db));
    expect(correction("note", { text: "second" }, uuid())).toMatch(/not in this job/);
    expect(correction("waiting", { on: "me" }, note.id)).toMatch(/same kind/);
    expect(correction("retract", { reason: "wrong" })).toMatch(/which entry is taken out/);
    const second = entry("note", { text: "second" }, { corrects: note.id });
    jobs.appendEntries(jobId, second, db);
    expect(correction("note", { text: "third" }, second.id)).toMatch(/not another correction/);
    expect(correction("retract", { reason: "wrong" }, note.id)).toBe("taken");
    expect(jobs.readJob(jobId, db).notes).toEqual([]);
  });

  it("shuts its gates: not proved, or decided on an older state", () => {
    const { db } = fresh();
    const { jobId, entry, add } = opened(db);
    add("vehicle", NATURAL);
    const close = (decidedOn: number) => says(() => jobs.appendEntries(jobId, entry("close", { decidedOn }), db));
    expect(close(1)).toMatch(/changed since you looked/);
    expect(close(2)).toMatch(/Write down the complaint; Repair it, show that nothing is wrong, or hand over/);
    add("displaced", { what: "engine cover" });
    const handover = entry("handover", { decidedOn: 3, conditional: true, summary: "Drive it" });
    expect(says(() => jobs.appendEntries(jobId, handover, db))).toBe("Put back to normal: engine cover");
  });

  it("knows no job but its own", () => {
    const { db } = fresh();
    const { entry } = opened(db);
    expect(() => jobs.appendEntries(uuid(), entry("note", { text: "x" }), db)).toThrow(/another job/);
    const stray = uuid();
    expect(() => jobs.appendEntries(stray, entry("note", { text: "x" }, { jobId: stray }), db)).toThrow(NotFound);
    expect(() => jobs.readEntries(stray, 0, db)).toThrow(NotFound);
  });

  it("lets the board's columns follow, also after a stop in between", () => {
    const { db, folder } = fresh();
    const { jobId, add } = opened(db);
    const row = (at: Db) => at.$client.prepare("select complaint, top, folded from jobs where id = ?").get(jobId);
    add("story", { complaint: "Hiss", symptoms: [], verified: "seen" });
    expect(row(db)).toEqual({ complaint: "", top: 2, folded: 0 });
    board.refreshStale(db);
    expect(row(db)).toEqual({ complaint: "Hiss", top: 2, folded: 2 });
    add("story", { complaint: "Hiss and smell", symptoms: [], verified: "seen" });
    db.$client.close();
    const again = openDb(folder);
    board.refreshStale(again);
    expect(board.listJobs({}, again)[0]).toMatchObject({ complaint: "Hiss and smell", top: 3, folded: 3 });
  });

  it("rebuilds the board from the journals at will", () => {
    const { db } = fresh();
    const { add } = opened(db);
    add("vehicle", NATURAL);
    board.refreshStale(db);
    const before = board.listJobs({}, db);
    db.$client.exec("update jobs set vehicle = 'nonsense', station = 'nowhere'");
    expect(board.rebuildBoard(db)).toBe(1);
    expect(board.listJobs({}, db)).toEqual(before);
  });
});

describe("a journal that is read again", () => {
  it("is not judged again: the same text is the same record, its verdict found under it", () => {
    const { db } = fresh();
    const { jobId, add } = opened(db);
    add("vehicle", NATURAL);
    add("check", { check: "hold", record: hold });
    const [first, second] = [jobs.readJob(jobId, db), jobs.readJob(jobId, db)];
    expect(first.checks[0]?.verdict.measures.length).toBeGreaterThan(0);
    expect(second.checks[0]?.verdict.measures).toBe(first.checks[0]?.verdict.measures);
    expect(second.vehicle).toBe(first.vehicle);
    const body = jobs.readEntries(jobId, 0, db).at(-1)?.body as { record: { still: number[][] } };
    expect(() => body.record.still.push([1, 2])).toThrow(TypeError);
    // Under other limits it is judged anew.
    const holdLoss = { value: 0.001, source: "the maker's data" };
    add("vehicle", { ...NATURAL, limits: { holdLoss } });
    expect(jobs.readJob(jobId, db).checks[0]?.verdict).not.toEqual(first.checks[0]?.verdict);
  });
});

describe("what a device is told", () => {
  it("gets what it posted and all that it had missed, with the number through which that is complete", () => {
    const { db } = fresh();
    const { jobId, add, entry } = opened(db);
    add("note", { text: "by another device" });
    const mine = entry("note", { text: "mine" });
    const posted = jobs.appendEntries(jobId, mine, db);
    const answer = jobs.answerBehind(jobId, { behind: 1, last: "" }, posted, db);
    expect(answer.through).toBe(3);
    expect(answer.entries.map((e) => e.seq)).toEqual([2, 3]);
    // A retry of what was recorded long before brings it back, though it lies further down.
    const again = jobs.answerBehind(jobId, { behind: 3, last: "" }, jobs.appendEntries(jobId, mine, db), db);
    expect(again).toMatchObject({ after: 3, through: 3, entries: [{ id: mine.id, seq: 3 }] });
  });

  it("gets all there is where what it holds is no part of this journal: beyond its end, or another entry in its place", () => {
    const { db } = fresh();
    const { jobId, add } = opened(db);
    const second = add("note", { text: "second" })[0] as JournalEntry;
    const told = (behind: number, last: string) => jobs.answerBehind(jobId, { behind, last }, [], db);
    expect(told(2, second.id)).toEqual({ after: 2, through: 2, entries: [] });
    expect(told(2, asRecorded(second))).toEqual({ after: 2, through: 2, entries: [] });
    // Sent again after a backup was restored, it may come to the same number over other entries: it was recorded later then.
    const again = asRecorded({ ...second, recordedAt: "2031-01-01T00:00:00.000Z" });
    for (const held of [told(2, uuid()), told(7, uuid()), told(1, second.id), told(2, again)])
      expect(held).toMatchObject({ instead: true, after: 0, through: 2, entries: [{ seq: 1 }, { seq: 2 }] });
  });

  it("closes nothing in one batch with other entries", () => {
    const { db } = fresh();
    const { jobId, entry } = opened(db);
    const batch = [entry("note", { text: "x" }), entry("close", { decidedOn: 1 })];
    expect(says(() => jobs.appendEntries(jobId, batch, db))).toMatch(/entry of its own/);
    expect(jobs.readEntries(jobId, 0, db)).toHaveLength(1);
  });
});

describe("a job as a file", () => {
  const source = fresh();
  const { jobId, add, entry } = opened(source.db);
  add("vehicle", NATURAL);
  add("story", { complaint: "<script>alert(1)</script> & hiss", symptoms: ["hiss-idle"], verified: "seen" });
  add("codes", { codes: [{ code: "P0171", status: "current" }] });
  const file = parseJobFile(JSON.stringify(jobs.exportJob(jobId, source.db)));

  it("comes into an empty database with numbers, stamps and folded state kept, marked as imported", () => {
    const target = fresh().db;
    expect(jobs.importJob(file, target, "Maren Oake")).toEqual({ id: jobId, number: 1, added: 4 });
    const [here, there] = [jobs.readEntries(jobId, 0, source.db), jobs.readEntries(jobId, 0, target)];
    const imported = { by: "Maren Oake", at: expect.any(String) };
    expect(there).toEqual(here.map((e) => ({ ...e, imported })));
    const at = Date.parse(file.exportedAt);
    const { imported: mark, ...state } = foldJob(there, file.shop, at);
    expect(mark).toEqual(imported);
    expect(canonicalJson(state)).toBe(canonicalJson(foldJob(here, readShop(source.db), at)));
    expect(jobs.importJob(file, target).added).toBe(0);
  });

  it("conflicts where the journals have parted, and changes nothing then", () => {
    const target = fresh().db;
    jobs.importJob(file, target);
    jobs.appendEntries(jobId, entry("note", { text: "gone on here" }), target);
    const last = file.entries.at(-1) as JournalEntry;
    const parted = { ...file, entries: [...file.entries, { ...last, id: uuid(), seq: last.seq + 1 }] };
    expect(() => jobs.importJob(parted, target)).toThrow(/gone on here since/);
    const altered = { ...file, entries: file.entries.map((e) => (e.kind === "story" ? { ...e, by: "Somebody" } : e)) };
    expect(() => jobs.importJob(altered, target)).toThrow(/other contents: nothing was imported/);
    expect(jobs.readEntries(jobId, 0, target)).toHaveLength(5);
  });

  it("lets nothing slip in below what devices hold to be complete", () => {
    const target = fresh().db;
    const holed = { ...file, entries: file.entries.filter((e) => e.seq !== 3) };
    jobs.importJob(holed, target);
    expect(jobs.answerBehind(jobId, { behind: 0, last: "" }, [], target)).toMatchObject({ through: 4, entries: { length: 3 } });
    expect(() => jobs.importJob(file, target)).toThrow(
      /gone on here since it was exported \(entry number 3\): nothing was imported/,
    );
    expect(jobs.readEntries(jobId, 0, target)).toHaveLength(3);
  });

  it("gives an imported job a number of its own where its own is taken", () => {
    const target = fresh().db;
    opened(target);
    expect(jobs.importJob(file, target).number).toBe(2);
  });
});

describe("how the proofs of machines went", () => {
  it("counts each that was taken, of whatever circuit, by its machine's name whatever that is", () => {
    const { db } = fresh();
    const { add } = opened(db);
    const proof = { pressure: { value: 13, unit: "inH2O", kind: "gauge" }, ballAtBottom: true, smokeSeen: true } as const;
    const machine = { ...smokeRun().machine, name: "constructor" };
    add("check", { check: "smoke", record: smokeRun(0, { machine, proof }) });
    // Regulated to half of what it is made for, it comes up to half: that is no weakness.
    const regulated = { value: 6.5, unit: "inH2O", kind: "gauge" } as const;
    add("check", {
      check: "evap-smoke",
      record: evapSmokeRun(0, { machine, regulated, proof: { ...proof, pressure: regulated } }),
    });
    // One that served another run of its session, none, and one of a machine without a gauge are none of their own.
    add("check", { check: "smoke", record: smokeRun(0, { machine, proof: { ...proof, takenAt: "2026-03-02T08:00:00.000Z" } }) });
    add("check", { check: "smoke", record: smokeRun(0, { machine, proof: undefined }) });
    add("check", { check: "smoke", record: smokeRun(0, { machine, proof: { ballAtBottom: true, smokeSeen: true } }) });
    const history = proofHistory(db);
    expect(Object.keys(history)).toEqual(["constructor"]);
    expect(Object.values(history)[0]?.map((p) => p.share)).toEqual([expect.closeTo(1, 6), expect.closeTo(1, 6)]);
  });
});

describe("beside the journal", () => {
  it("keeps the customer apart, and erases it without a trace in the journal or the file", () => {
    const { db } = fresh();
    const { jobId } = opened(db);
    jobs.writeCustomer(jobId, { name: "Hanne Quill", contact: "lighthouse" }, db);
    expect(jobs.readCustomer(jobId, db)).toEqual({ name: "Hanne Quill", contact: "lighthouse" });
    expect(JSON.stringify(jobs.exportJob(jobId, db))).not.toContain("Quill");
    jobs.eraseCustomer(jobId, db);
    expect(jobs.readCustomer(jobId, db)).toBeUndefined();
    expect(says(() => jobs.writeCustomer(jobId, { name: "x".repeat(200), contact: "" }, db))).toMatch(/under 120/);
  });

  it("keeps files by content, once, and only for their job", () => {
    const { db, folder } = fresh();
    const { jobId } = opened(db);
    const bytes = new TextEncoder().encode("Time,RPM\n0,700\n");
    const { sha256 } = storeFile(jobId, "drive.csv", bytes, db, folder);
    storeFile(jobId, "drive.csv", bytes, db, folder);
    expect(readFile(jobId, sha256, db, folder).toString()).toContain("0,700");
    const kept = join(folder, "files", sha256.slice(0, 2));
    expect(existsSync(join(kept, sha256))).toBe(true);
    expect(readdirSync(kept)).toHaveLength(1);
    expect(() => readFile(uuid(), sha256, db, folder)).toThrow(/no such file/i);
    expect(() => storeFile(uuid(), "x.csv", Buffer.from("of no job"), db, folder)).toThrow(/no such job/i);
    expect(readdirSync(join(folder, "files"))).toHaveLength(1);
    // A stump that a full disk left is not taken for the file.
    writeFileSync(join(kept, sha256), bytes.subarray(0, 3));
    storeFile(jobId, "drive.csv", bytes, db, folder);
    expect(readFile(jobId, sha256, db, folder).equals(bytes)).toBe(true);
    expect(readdirSync(kept)).toEqual([sha256]);
  });

  it("remembers a mapping by signature and refuses a wrong one", () => {
    const { db } = fresh();
    const signature = "a".repeat(32);
    expect(readMapping(signature, db)).toBeUndefined();
    writeMapping(signature, { "Sensor 7": { channel: "maf", unit: "kg/h" } }, db);
    expect(readMapping(signature, db)).toEqual({ "Sensor 7": { channel: "maf", unit: "kg/h" } });
    expect(says(() => writeMapping(signature, { x: { channel: "tea" } }, db))).toMatch(/no such channel/);
    expect(says(() => writeMapping("short", {}, db))).toMatch(/32 hex digits/);
    expect(says(() => writeMapping(signature, [], db))).not.toBe("taken");
  });

  it("keeps people by name and the shop by its schema", async () => {
    const { db } = fresh();
    await addPerson({ name: " Maren Oake " }, db);
    expect(listPeople(db).map((p) => p.name)).toEqual(["Maren Oake"]);
    await expect(addPerson({ name: "maren oake" }, db)).rejects.toThrow(/There is a maren oake already/);
    await expect(addPerson({ name: "  " }, db)).rejects.toThrow(/Type a name/);
    const shop = readShop(db);
    writeShop({ base: 0, by: "Maren Oake", shop: { ...shop, name: "Ferrowick" } }, db);
    expect(readShop(db).name).toBe("Ferrowick");
    expect(says(() => writeShop({ base: 1, by: "Maren Oake", shop: { ...shop, limits: {} } }, db))).toMatch(/limits/);
    expect(
      says(() =>
        writeShop(
          {
            base: 1,
            by: "Maren Oake",
            shop: {
              ...shop,
              machines: [
                {
                  id: "a",
                  name: "",
                  ratedPressure: { value: 13, unit: "inH2O" },
                  maxFlow: { value: 12, unit: "L/min" },
                  autoOff: 300,
                },
              ],
            },
          },
          db,
        ),
      ),
    ).toMatch(/Name the machine/);
    expect(readShop(db).name).toBe("Ferrowick");
  });

  it("merges what two tablets save of the shop, refuses what they save apart, and keeps every version with its author", () => {
    const { db } = fresh();
    const shop = readShop(db);
    const save = (base: number, by: string, change: Partial<typeof shop>) => () =>
      writeShop({ base, by, shop: { ...shop, ...change } }, db);
    const strict = { ...shop.house, trimLimit: shop.house.trimLimit === "strict" ? "common" : "strict" };
    expect(save(0, "Maren Oake", { name: "Ferrowick" })()).toMatchObject({ version: 1, by: "Maren Oake" });
    expect(says(save(0, "Tobin Falk", { name: "Another" }))).toMatch(/Maren Oake has changed the shop's name meanwhile/);
    expect(save(0, "Tobin Falk", { house: strict as typeof shop.house })()).toMatchObject({ version: 2 });
    expect(readShop(db)).toMatchObject({ name: "Ferrowick", house: strict });
    expect(says(save(7, "Tobin Falk", {}))).toMatch(/no longer there/);
    expect(readShopVersion(db)).toMatchObject({ version: 2, by: "Tobin Falk" });
    expect(db.$client.prepare("select by from shop_versions order by version").pluck().all()).toEqual([
      "Maren Oake",
      "Tobin Falk",
    ]);
  });
});

describe("answers", () => {
  const statusOf = async (work: () => unknown) => (await answer(work)).status;
  it("tells nothing found from nothing to say", async () => {
    expect(await (await answer(() => null)).json()).toBeNull();
    expect(await (await answer(() => undefined)).json()).toEqual({});
  });

  it("turns refusals into statuses with words", async () => {
    const { db } = fresh();
    expect(await statusOf(() => jobs.readEntries(uuid(), 0, db))).toBe(404);
    expect(await statusOf(() => addPerson({ name: "" }, db))).toBe(400);
    const body = await (await answer(() => addPerson({ name: "" }, db))).json();
    expect(body.error).toMatchObject({ message: "Type a name", path: "name" });
    expect(await statusOf(async () => jsonBody(new Request("http://x", { method: "POST", body: "{" })))).toBe(400);
    expect(await statusOf(async () => jsonBody(new Request("http://x", { method: "POST", body: '"long"' }), 3))).toBe(413);
    const deep = new Request("http://x", { method: "POST", body: "[".repeat(60) + "]".repeat(60) });
    expect(await statusOf(async () => jsonBody(deep))).toBe(400);
  });
});

describe("pulling the plug", () => {
  const CYCLES = trials(7, 60);
  /** Built beside the packages that it loads. */
  const program = resolve(`node_modules/.cache/plug-${process.pid}.mjs`);
  afterAll(() => rmSync(program, { force: true }));

  /** Lines that were answered for before the program was killed, at a time that nobody chose. */
  const killed = (folder: string, args: string[], lines: number) =>
    new Promise<string[]>((done) => {
      const writer = spawn(process.execPath, [program, ...args], { env: { ...process.env, PELOTA_DATA: folder } });
      let said = "";
      writer.stdout.on("data", (data: Buffer) => {
        said += data;
        if (said.split("\n").length > lines) writer.kill("SIGKILL");
      });
      // The last line may be cut off: it was not answered for.
      writer.on("close", () => done(said.split("\n").slice(0, -1)));
    });

  it(`loses nothing that was answered for in ${CYCLES} kills between writes and uploads, and no half is left`, async () => {
    buildSync({
      entryPoints: ["src/server/plug.fixture.ts"],
      outfile: program,
      bundle: true,
      platform: "node",
      format: "esm",
      // In one file with all but the binding: each start reads one file instead of hundreds.
      external: ["better-sqlite3"],
      banner: { js: 'import { createRequire as makeRequire } from "node:module"; const require = makeRequire(import.meta.url);' },
      logLevel: "error",
    });
    const { db, folder } = fresh();
    const { jobId } = opened(db);
    const answered: string[] = [];
    for (let cycle = 0; cycle < CYCLES; cycle++)
      answered.push(...(await killed(folder, [jobId, String(cycle)], 1 + (cycle % 7))));
    expect(answered.length).toBeGreaterThan(CYCLES);
    const after = openDb(folder);
    const recorded = jobs.readEntries(jobId, 0, after);
    expect(recorded.map((e) => e.seq)).toEqual(recorded.map((_, i) => i + 1));
    const texts = recorded.flatMap((e) => (e.kind === "note" ? [(e.body as { text: string }).text] : []));
    // Two go in together or not at all.
    for (const text of texts) expect(texts).toContain(text.endsWith("a") ? text.replace(/a$/, "b") : text.replace(/b$/, "a"));
    expect(new Set(texts).size).toBe(texts.length);
    for (const line of answered) {
      const [kind, ...what] = line.split(" ") as [string, ...string[]];
      if (kind === "note") expect(texts).toEqual(expect.arrayContaining(what));
      else expect(readFile(jobId, what[0] as string, after, folder).length).toBeGreaterThan(20_000 - 1);
    }
    after.$client.close();
    expect((await verifyData(folder)).wrong).toEqual([]);
    const files = readdirSync(join(folder, "files"), { recursive: true, withFileTypes: true }).filter((f) => f.isFile());
    expect(files.filter(({ name }) => !/^[0-9a-f]{64}$/.test(name))).toEqual([]);
  }, 120_000);
});
