import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterAll, expect, it, vi } from "vitest";
import { committed } from "./commit";
import { db } from "./db/open";
import { takeEntries } from "./entries-door";
import { openJob, readEntries } from "./jobs";

const folder = mkdtempSync(join(tmpdir(), "pelota-commit-"));
vi.stubEnv("PELOTA_DATA", folder);
afterAll(() => {
  db().$client.close();
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true, force: true });
});

const AT = "2026-03-02T08:00:00.000Z";
const opened = () => {
  const jobId = uuid();
  openJob({ id: uuid(), jobId, at: AT, by: "Wren Alder", device: "tablet", deviceSeq: 0 });
  return jobId;
};
const note = (jobId: string, text: string, id = uuid()) => ({
  id,
  jobId,
  kind: "note",
  v: 1,
  at: AT,
  by: "Wren Alder",
  device: "tablet",
  deviceSeq: 1,
  seenSeq: 0,
  body: { text },
});
const texts = (jobId: string) =>
  readEntries(jobId).flatMap((e) => (e.kind === "note" ? [(e.body as { text: string }).text] : []));
it("puts what several clients write at once into one commit, and answers when it is there", async () => {
  const [one, two] = [opened(), opened()];
  const begun = vi.spyOn(db().$client, "transaction");
  const begins = () => begun.mock.results.filter(({ value }) => value).length;
  const before = begins();
  await Promise.all([one, two, one, two].map((jobId, i) => takeEntries(jobId, note(jobId, `note ${i}`))));
  // One around them all, and one for each inside.
  expect(begins() - before).toBe(5);
  begun.mockRestore();
  expect([texts(one), texts(two)]).toEqual([
    ["note 0", "note 2"],
    ["note 1", "note 3"],
  ]);
});

it("refuses one without touching the others, and takes the same entry from two at once as one", async () => {
  const jobId = opened();
  const [id, same] = [uuid(), uuid()];
  const answers = await Promise.allSettled([
    takeEntries(jobId, note(jobId, "first", id)),
    takeEntries(jobId, [note(jobId, "with a wrong one"), note(jobId, "other contents", id)]),
    takeEntries(jobId, note(jobId, "twice", same)),
    takeEntries(jobId, note(jobId, "twice", same)),
    committed(() => {
      throw new Error("of its own");
    }),
  ]);
  expect(answers.map(({ status }) => status)).toEqual(["fulfilled", "rejected", "fulfilled", "fulfilled", "rejected"]);
  expect((answers[1] as PromiseRejectedResult).reason.message).toMatch(/other contents is already recorded/);
  expect(texts(jobId)).toEqual(["first", "twice"]);
  expect(readEntries(jobId).map((e) => e.seq)).toEqual([1, 2, 3]);
});

it("closes a job on what was judged only, though something else goes into the same commit before it", async () => {
  const jobId = opened();
  const close = { ...note(jobId, ""), kind: "close", body: { decidedOn: 1 } };
  vi.stubGlobal("pelotaThread", { ask: async () => ({ lastSeq: 1, blocks: { close: [], handOver: [] } }) });
  const [noted, closed] = await Promise.allSettled([takeEntries(jobId, note(jobId, "just before")), takeEntries(jobId, close)]);
  vi.unstubAllGlobals();
  expect(noted.status).toBe("fulfilled");
  expect((closed as PromiseRejectedResult).reason.message).toMatch(/changed since you looked/);
});
