import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { hold, pinch, vacuum, valve } from "@/core/checks/records.fixture";
import { NATURAL, smokeRun } from "@/core/core.fixture";
import type { Entry } from "@/core/journal";
import { LEAN, trimSurvey } from "@/core/journal/journal.fixture";
import { listJobs } from "@/server/board";
import { type Db, openDb } from "@/server/db/open";
import { appendEntries, openJob } from "@/server/jobs";
import { quantile } from "./quantile";

const AT = "2026-03-02T08:00:00.000Z";
export const entryOf = (jobId: string, kind: string, body: object, deviceSeq: number): Entry =>
  ({ id: uuid(), jobId, kind, v: 1, at: AT, by: "Wren Alder", device: "bench", deviceSeq, seenSeq: 0, body }) as Entry;

const opened = (at: Db): string => {
  const jobId = uuid();
  openJob({ id: uuid(), jobId, at: AT, by: "Wren Alder", device: "bench", deviceSeq: 0 }, at);
  appendEntries(jobId, [entryOf(jobId, "vehicle", NATURAL, 1)], at);
  return jobId;
};

/** A check of one of six kinds, each with a reading of its own, so that no verdict is known beforehand. */
export function check(jobId: string, i: number): Entry {
  const trims = trimSurvey(LEAN.map((t) => t + 0.001 * i));
  const kinds = [
    { check: "smoke", record: smokeRun(4.5 + 0.001 * i) },
    { check: "trims", record: trims },
    { check: "vacuum", record: vacuum },
    { check: "hold", record: hold },
    { check: "valve", record: valve },
    { check: "pinch", record: pinch },
  ];
  return entryOf(jobId, "check", kinds[i % kinds.length] as object, i + 2);
}

function rate(count: number, work: (i: number) => void): number {
  const start = performance.now();
  for (let i = 0; i < count; i++) work(i);
  return (1000 * count) / (performance.now() - start);
}

/** Appends to a job of 500 checks, against the bare synced transactions of the same disk, and the board of 20,000 jobs. */
export function appendFigures() {
  const folder = mkdtempSync(join(tmpdir(), "pelota-appends-"));
  try {
    const at = openDb(folder);
    const long = opened(at);
    for (let i = 0; i < 500; i++) appendEntries(long, [check(long, i)], at);
    const times = Array.from({ length: 200 }, (_, i) => {
      const entry = i % 2 ? check(long, 500 + i) : entryOf(long, "note", { text: `note ${i}` }, 600 + i);
      const start = performance.now();
      appendEntries(long, [entry], at);
      return performance.now() - start;
    });
    at.$client.exec("create table bare (id text primary key, body text)");
    const insert = at.$client.prepare("insert into bare values (?, ?)");
    const body = JSON.stringify(check(long, 0));
    const bare = rate(400, () => at.$client.transaction(() => insert.run(uuid(), body)).immediate());
    const several = Array.from({ length: 8 }, () => opened(at));
    const eight = rate(400, (i) => {
      const id = several[i % 8] as string;
      appendEntries(id, [entryOf(id, "note", { text: `note ${i}` }, i + 10)], at);
    });
    const single = opened(at);
    const one = rate(400, (i) => appendEntries(single, [entryOf(single, "note", { text: `note ${i}` }, i + 10)], at));
    at.$client.exec(
      `with recursive n(i) as (select 1 union all select i + 1 from n where i < 20000)
       insert into jobs (id, number, created_at, status, station, reason, waiting_on, vehicle, registration, complaint, codes, updated_at)
         select 'job' || i, 100000 + i, '${AT}', 'open', 'check', 'Run the next check', 'me', 'Ondrell Petrel 1.6 · 2014',
         'FW ' || i, 'Hiss at idle', 'P0171', '${AT}' from n`,
    );
    const board = Array.from({ length: 20 }, (_, i) => {
      const start = performance.now();
      listJobs({ search: i % 2 ? `FW ${i}` : "" }, at);
      return performance.now() - start;
    });
    at.$client.close();
    return { middle: quantile(times, 0.5), p99: quantile(times, 0.99), bare, eight, one, board: quantile(board, 0.9) };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
