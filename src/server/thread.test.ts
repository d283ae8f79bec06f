import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { NATURAL } from "@/core/core.fixture";
import { BadInput } from "@/core/input";
import { boardFolded, listJobs } from "./board";
import { listen } from "./changes";
import { db } from "./db/open";
import { takeEntries } from "./entries-door";
import { appendEntries, openJob } from "./jobs";
import { Conflict, NotFound } from "./refusals";
import { TASKS } from "./tasks";
import { inWorker } from "./worker";

const AT = "2026-03-02T08:00:00.000Z";
const folder = mkdtempSync(join(tmpdir(), "pelota-thread-"));
process.env.PELOTA_DATA = folder;

interface Started {
  ask: (what: string, jobId: string) => Promise<unknown>;
  stop: () => void;
  kill: () => void;
}
const shared = globalThis as typeof globalThis & { pelotaThread?: Started };
let thread: Started;

beforeAll(async () => {
  // As the server is started: by a script, with the thread bundled.
  const { startThread } = (await import("../../scripts/thread.mjs" as string)) as { startThread: () => Promise<Started> };
  thread = await startThread();
  shared.pelotaThread = thread;
}, 60_000);
afterAll(() => {
  thread.stop();
  delete shared.pelotaThread;
  db().$client.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Longer than any machine takes, ms: what is tried is what is said, not how fast. */
const UNHURRIED = 60_000;
const jobId = uuid();
const entry = (kind: string, body: object) => ({
  id: uuid(),
  jobId,
  kind,
  v: 1,
  at: AT,
  by: "Wren Alder",
  device: "tablet",
  deviceSeq: 1,
  seenSeq: 0,
  body,
});

describe("the thread beside the server", () => {
  it("lets the board follow an entry, and says so to whoever listens", async () => {
    const heard: string[] = [];
    const leave = listen((id) => heard.push(id));
    openJob({ id: uuid(), jobId, at: AT, by: "Wren Alder", device: "tablet", deviceSeq: 0 });
    appendEntries(jobId, entry("vehicle", NATURAL));
    appendEntries(jobId, entry("story", { complaint: "Hiss at idle", symptoms: [], verified: "seen" }));
    const before = heard.length;
    await vi.waitFor(() => expect(listJobs()[0]).toMatchObject({ complaint: "Hiss at idle", top: 3, folded: 3 }));
    await vi.waitFor(() => expect(heard.length).toBeGreaterThan(before));
    leave();
    appendEntries(jobId, entry("story", { complaint: "Hiss and smell", symptoms: [], verified: "seen" }));
    expect(await boardFolded(UNHURRIED)).toBe(0);
    expect(listJobs()[0]).toMatchObject({ complaint: "Hiss and smell", folded: 4 });
  });

  it("shows whoever waits for the board what was written before, whatever else the thread has to do", async () => {
    const long = Array.from({ length: 5 }, () => inWorker("pdf", jobId));
    appendEntries(jobId, entry("story", { complaint: "Hiss, smell and smoke", symptoms: [], verified: "seen" }));
    expect(await boardFolded(UNHURRIED)).toBe(0);
    expect(listJobs()[0]).toMatchObject({ complaint: "Hiss, smell and smoke", folded: 5 });
    await Promise.all(long);
  });

  it("says how many jobs the board is behind with where that is not waited for", async () => {
    shared.pelotaThread = { ...thread, ask: () => new Promise(() => {}) };
    appendEntries(jobId, entry("story", { complaint: "Hiss at idle", symptoms: [], verified: "seen" }));
    expect(await boardFolded(1)).toBe(1);
    shared.pelotaThread = { ...thread, ask: () => Promise.reject({ message: "The thread beside the server has ended" }) };
    expect(await boardFolded(UNHURRIED)).toBe(1);
    shared.pelotaThread = thread;
    expect(await boardFolded(UNHURRIED)).toBe(0);
  });

  it("works out the same as is worked out here", async () => {
    expect(await inWorker("gates", jobId)).toEqual(TASKS.gates(jobId));
    expect(await inWorker("readings", jobId)).toEqual(TASKS.readings(jobId));
    expect(
      Buffer.from(await inWorker("pdf", jobId))
        .subarray(0, 5)
        .toString(),
    ).toBe("%PDF-");
  });

  it("judges the gates of an entry that closes, and a refusal is the same as ever", async () => {
    const close = entry("close", { decidedOn: 6 });
    const refusal = await takeEntries(jobId, close).catch((error: Error) => error.message);
    expect(refusal).toMatch(/nothing is repaired yet/);
    expect(() => appendEntries(jobId, close)).toThrow(refusal as string);
    // What is recorded while the gates are judged makes them another state's.
    const judged = { lastSeq: 6, blocks: { close: [], handOver: [] } };
    shared.pelotaThread = {
      ...thread,
      ask: async () => {
        appendEntries(jobId, entry("note", { text: "in between" }));
        return judged;
      },
    };
    await expect(takeEntries(jobId, close)).rejects.toThrow(/changed since you looked/);
    shared.pelotaThread = thread;
    expect(listJobs()[0]?.status).toBe("open");
  });

  it("takes a job file in, and refuses what is none as it is refused here", async () => {
    const file = await inWorker("exported", jobId);
    const asked = (text: string) => JSON.stringify({ by: "Maren Oake", file: text });
    expect(JSON.parse(file)).toMatchObject(
      JSON.parse(TASKS.exported(jobId) as string, (key, value) => (key === "exportedAt" ? expect.anything() : value)),
    );
    expect(await inWorker("imported", asked(file))).toMatchObject({ id: jobId, added: 0 });
    await expect(inWorker("imported", asked(file.slice(0, 99)))).rejects.toBeInstanceOf(BadInput);
    await expect(inWorker("imported", asked(file.replace("Hiss at idle", "Something else")))).rejects.toBeInstanceOf(Conflict);
  });

  it("says what went wrong, and goes on", async () => {
    await expect(inWorker("readings", uuid())).rejects.toBeInstanceOf(NotFound);
    expect(await inWorker("gates", jobId)).toEqual(TASKS.gates(jobId));
  });

  it("keeps nobody waiting for a whole shop that is taken in, and says how far behind the board is", async () => {
    shared.pelotaThread = { ...thread, ask: () => new Promise(() => {}) };
    thread.kill();
    for (let i = 0; i < 101; i++)
      openJob({ id: uuid(), jobId: uuid(), at: AT, by: "Wren Alder", device: "tablet", deviceSeq: 0 });
    expect(await boardFolded(UNHURRIED)).toBeGreaterThan(100);
    shared.pelotaThread = thread;
    await vi.waitFor(async () => expect(await boardFolded(UNHURRIED)).toBe(0), { timeout: 60_000, interval: 300 });
    expect(listJobs({ limit: 1000 })).toHaveLength(102);
  });

  it("is started again where it ends by itself; what was asked of it fails and is not waited for for ever", async () => {
    const asked = inWorker("pdf", jobId);
    thread.kill();
    await expect(asked).rejects.toThrow(/has ended/);
    await vi.waitFor(async () => expect(await inWorker("gates", jobId)).toEqual(TASKS.gates(jobId)), {
      timeout: 15_000,
      interval: 300,
    });
  });
});
