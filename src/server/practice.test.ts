import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterAll, describe, expect, it } from "vitest";
import { judgeCheck } from "@/core/checks";
import { contextOf } from "@/core/core.fixture";
import { parseJobFile } from "@/core/journal";
import { seededNoise } from "@/core/maths/random";
import { type PracticeCase, practiceCase } from "@/core/practice/case";
import { caseCode } from "@/core/practice/code";
import { READERS } from "@/core/practice/readers";
import { verifyData } from "./backup";
import { boardPage, listJobs, refreshStale } from "./board";
import { openDb } from "./db/open";
import { exportJob, importJob } from "./job-files";
import { appendEntries, openJob, readEntries, readJob } from "./jobs";
import { playedCases } from "./practice";
import { proofHistory } from "./shop";

const folders: string[] = [];
function fresh() {
  const folder = mkdtempSync(join(tmpdir(), "pelota-practice-"));
  folders.push(folder);
  return { db: openDb(folder), folder };
}
afterAll(() => {
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

/** A case whose car tells by its trims. */
const given = Array.from({ length: 40 }, (_, seed) => practiceCase(caseCode({ family: "engine", level: 1, seed }))).find(
  (one) => one.facts.metering === "maf",
) as PracticeCase;
const CODE = given.code;

/** A job, of practice or not, and what writes into it. */
function begin(db: ReturnType<typeof openDb>, practice?: string) {
  const jobId = uuid();
  const opening = { id: uuid(), jobId, at: new Date().toISOString(), by: "Maren Oake", device: "tablet", deviceSeq: 1 };
  openJob({ ...opening, ...(practice ? { practice } : {}) }, db);
  let deviceSeq = 1;
  const entry = (kind: string, body: object, at: unknown = new Date().toISOString()) => ({
    id: uuid(),
    jobId,
    kind,
    v: 1,
    at,
    by: "Maren Oake",
    device: "tablet",
    deviceSeq: ++deviceSeq,
    seenSeq: deviceSeq,
    body,
  });
  const add = (kind: string, body: object, at?: unknown) => appendEntries(jobId, entry(kind, body, at), db);
  add("vehicle", given.facts);
  add("story", given.story);
  return { jobId, add };
}
const DEVICE = { kind: "device", device: "Practice bay", simulated: true };
const survey = () => ({ ...(READERS.trims?.({ car: given.car, noise: seededNoise(1) }, {}) as object), source: DEVICE });

describe("practice beside real jobs", () => {
  it("counts what simulated devices read, and nowhere else", () => {
    const { db } = fresh();
    const [real, played] = [begin(db), begin(db, CODE)];
    for (const job of [real, played]) job.add("check", { check: "trims", record: survey() });
    expect(readJob(real.jobId, db).checks[0]?.verdict.outcome).toBe("void");
    expect(readJob(played.jobId, db).checks[0]?.verdict.outcome).not.toBe("void");
    expect(judgeCheck("trims", survey(), contextOf(given.facts)).outcome).toBe("void");
  });

  it("makes no real job a practice one: it is opened once, and no later line changes what it is", () => {
    const { db } = fresh();
    const real = begin(db);
    expect(() => real.add("opened", { number: 1, practice: CODE })).toThrow(/opened once/);
    expect(() => real.add("bay", { act: "wait", minutes: 600 })).toThrow(/on a real car/);
    // Not by a file either: the opening that is there stands.
    const file = exportJob(real.jobId, db);
    const [first] = file.entries;
    const forged = { ...first, id: uuid(), seq: file.entries.length + 1, body: { number: 1, practice: CODE } };
    importJob(parseJobFile(JSON.stringify({ ...file, entries: [...file.entries, forged] })), db);
    real.add("check", { check: "trims", record: survey() });
    const state = readJob(real.jobId, db);
    expect(state.practice).toBeUndefined();
    expect(state.checks[0]?.verdict.outcome).toBe("void");
  });

  it("refuses a case that nobody can know", () => {
    const { db } = fresh();
    expect(() => begin(db, "3000-1234")).toThrow(/no case code/);
    expect(() => begin(db, CODE.toLowerCase())).not.toThrow();
    expect(listJobs({ practice: true }, db)[0]?.practice).toBe(CODE);
  });

  it("stands apart on the board, in the search and in the machines' proofs", () => {
    const { db, folder } = fresh();
    begin(db);
    const played = begin(db, CODE);
    const smoke = READERS.smoke?.({ car: given.car, noise: seededNoise(2) }, { entry: "gauge-port" }) as object;
    played.add("check", { check: "smoke", record: { ...smoke, source: DEVICE } });
    refreshStale(db);
    expect(boardPage({}, 1, db).total).toBe(1);
    expect(boardPage({ search: given.facts.model as string }, 1, db).total).toBe(1);
    expect(boardPage({ practice: true }, 1, db).total).toBe(1);
    expect(proofHistory(db)).toEqual({});
    db.$client.close();
    return expect(verifyData(folder)).resolves.toMatchObject({ jobs: 2, wrong: [] });
  });

  it("has a clock of its own, which runs ahead; a real job's cannot", () => {
    const { db } = fresh();
    const ahead = new Date(Date.now() + 12 * 3600_000).toISOString();
    const [real, played] = [begin(db), begin(db, CODE)];
    real.add("note", { text: "later" }, ahead);
    played.add("bay", { act: "wait", minutes: 720 }, { from: new Date().toISOString(), to: ahead });
    played.add("note", { text: "later" }, ahead);
    expect(readEntries(real.jobId, 0, db).at(-1)?.clampedFrom).toBe(ahead);
    expect(readEntries(played.jobId, 0, db).at(-1)?.at).toBe(ahead);
  });

  it("tells how each case went, and leaves out one of another version", () => {
    const { db } = fresh();
    const played = begin(db, CODE);
    expect(playedCases(10, db)).toMatchObject([{ code: CODE, family: "engine", by: "Maren Oake", over: false, won: false }]);
    played.add("bay", { act: "end" });
    expect(playedCases(10, db)).toMatchObject([{ over: true, won: false, comeback: true }]);
    db.$client.prepare("update jobs set practice = 'ZZZZ-ZZZZ'").run();
    expect(playedCases(10, db)).toEqual([]);
  });
});
