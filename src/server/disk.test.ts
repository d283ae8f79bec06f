import { mkdirSync, mkdtempSync, renameSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { listJobs } from "./board";
import { db } from "./db/open";
import { takeEntries } from "./entries-door";
import { answer } from "./http";
import { appendEntries, openJob, readEntries } from "./jobs";

/** Answer of a route: status and its sentence. */
const said = async (work: () => unknown) => {
  const response = await answer(work);
  const body = (await response.json()) as { error?: { message: string } };
  return { status: response.status, message: body.error?.message ?? "" };
};

const folder = mkdtempSync(join(tmpdir(), "pelota-disk-"));
const before = process.env.PELOTA_DATA;
beforeAll(() => {
  // What went wrong is logged, which is not looked at here.
  vi.spyOn(console, "error").mockImplementation(() => {});
  process.env.PELOTA_DATA = join(folder, "data");
});
afterAll(() => {
  db().$client.close();
  vi.restoreAllMocks();
  if (before === undefined) delete process.env.PELOTA_DATA;
  else process.env.PELOTA_DATA = before;
  rmSync(folder, { recursive: true, force: true });
});

const by = { by: "Wren Alder", device: "tablet", at: "2026-03-02T08:00:00.000Z" };
const jobId = uuid();
let deviceSeq = 1;
const noteOf = (text: string) => ({
  ...by,
  id: uuid(),
  jobId,
  kind: "note",
  v: 1,
  deviceSeq: ++deviceSeq,
  seenSeq: 0,
  body: { text },
});
const note = (text: string) => appendEntries(jobId, noteOf(text));
const texts = () => readEntries(jobId).flatMap((e) => (e.kind === "note" ? [(e.body as { text: string }).text] : []));

describe("a disk in trouble", () => {
  it("that is full says so, saves nothing, and takes the next entry once there is room, without a restart", async () => {
    openJob({ ...by, id: uuid(), jobId, deviceSeq: 1 });
    note("before");
    const pages = db().$client.pragma("page_count", { simple: true }) as number;
    db().$client.pragma(`max_page_count = ${pages}`);
    const full = await said(() =>
      appendEntries(
        jobId,
        Array.from({ length: 40 }, () => noteOf("x".repeat(900))),
      ),
    );
    expect(full.status).toBe(507);
    expect(full.message).toMatch(/full.*nothing was saved.*free/is);
    expect(texts()).toEqual(["before"]);
    db().$client.pragma(`max_page_count = ${pages + 1000}`);
    expect((await said(() => note("after"))).status).toBe(200);
    expect(texts()).toEqual(["before", "after"]);
  });

  it("that is full in the middle of what several clients write acknowledges none of it", async () => {
    const pages = db().$client.pragma("page_count", { simple: true }) as number;
    const had = texts();
    db().$client.pragma(`max_page_count = ${pages}`);
    const many = Array.from({ length: 40 }, () => noteOf("x".repeat(900)));
    const small = noteOf("small, and in the same commit");
    const answers = await Promise.all([small, many, noteOf("also small")].map((list) => said(() => takeEntries(jobId, list))));
    expect(answers.map(({ status }) => status)).toEqual([507, 507, 507]);
    expect(texts()).toEqual(had);
    db().$client.pragma(`max_page_count = ${pages + 1000}`);
    expect((await said(() => takeEntries(jobId, small))).status).toBe(200);
    expect(texts()).toEqual([...had, "small, and in the same commit"]);
  });

  it.each([
    ["ENOSPC", 507, /full/],
    ["EFBIG", 507, /full/],
    ["EDQUOT", 507, /full/],
    ["SQLITE_FULL", 507, /full/],
    ["EROFS", 503, /read-only/],
    ["EACCES", 503, /read-only/],
    ["SQLITE_READONLY_DBMOVED", 503, /gone/],
    ["SQLITE_READONLY", 503, /read-only/],
    ["SQLITE_CANTOPEN", 503, /gone/],
    ["SQLITE_CORRUPT", 503, /damaged.*verify/],
    ["SQLITE_NOTADB", 503, /damaged/],
    ["SQLITE_IOERR_WRITE", 507, /takes no more/],
    ["SQLITE_IOERR_READ", 503, /does not answer/],
    ["EIO", 503, /does not answer/],
    ["SQLITE_BUSY", 503, /busy/],
  ])("is told apart by what it says: %s", async (code, status, words) => {
    const answered = await said(() => {
      throw Object.assign(new Error("raw words of the system"), { code });
    });
    expect(answered.status).toBe(status);
    expect(answered.message).toMatch(words);
    expect(answered.message).not.toMatch(/raw words/);
  });

  it("that is read-only says so and recovers", async () => {
    db().$client.pragma("query_only = 1");
    expect(listJobs().map((job) => job.id)).toEqual([jobId]);
    const refused = await said(() => note("lost?"));
    expect(refused.status).toBe(503);
    expect(refused.message).toMatch(/read-only/);
    db().$client.pragma("query_only = 0");
    expect((await said(() => note("there"))).status).toBe(200);
  });

  it("whose data are gone acknowledges nothing, makes no empty shop in their place, and goes on when they are back", async () => {
    const data = process.env.PELOTA_DATA as string;
    renameSync(data, `${data}-away`);
    const gone = await said(() => note("into nothing"));
    expect(gone.status).toBe(503);
    expect(gone.message).toMatch(/gone/);
    mkdirSync(data);
    expect((await said(() => note("into an empty folder"))).status).toBe(503);
    rmSync(data, { recursive: true });
    renameSync(`${data}-away`, data);
    expect((await said(() => note("back"))).status).toBe(200);
    expect(texts().slice(-2)).toEqual(["there", "back"]);
  });
});
