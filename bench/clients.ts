import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import { v4 as uuid } from "uuid";
import { NATURAL } from "@/core/core.fixture";
import { check, entryOf } from "./appends";
import { agent, ask, post, started, stopped } from "./built-app";
import { quantile } from "./quantile";

async function opened(): Promise<string> {
  const jobId = uuid();
  await post("jobs", { id: uuid(), jobId, at: new Date().toISOString(), by: "Wren Alder", device: "bench", deviceSeq: 0 });
  await post(`jobs/${jobId}/entries`, [entryOf(jobId, "vehicle", NATURAL, 1)]);
  return jobId;
}

/** Eight clients that each send the next entry as soon as the last is answered: entries a second, and their waits. */
async function eight(jobs: readonly string[], milliseconds: number) {
  const waits: number[] = [];
  const start = performance.now();
  await Promise.all(
    jobs.map(async (jobId, client) => {
      for (let i = 0; performance.now() - start < milliseconds; i++)
        waits.push((await post(`jobs/${jobId}/entries`, [entryOf(jobId, "note", { text: `${client} ${i}` }, i + 2)])).took);
    }),
  );
  return { rate: (1000 * waits.length) / (performance.now() - start), p99: quantile(waits, 0.99), worst: Math.max(...waits) };
}

/** Waiting times of others while something heavy goes on. */
async function waitsDuring(heavy: () => Promise<unknown>, jobId: string) {
  let over = false;
  const end = heavy().finally(() => {
    over = true;
  });
  const waits: number[] = [];
  for (let i = 0; !over || waits.length < 20; i++)
    waits.push((await post(`jobs/${jobId}/entries`, [entryOf(jobId, "note", { text: `meanwhile ${i}` }, 1000 + i)])).took);
  await end;
  return { middle: quantile(waits, 0.5), worst: Math.max(...waits) };
}

/** Speed of the disk: single synced transactions a second. */
function bareRate(folder: string): number {
  const bare = new Database(join(folder, "bare.sqlite"));
  bare.pragma("journal_mode = WAL");
  bare.pragma("synchronous = FULL");
  bare.exec("create table bare (id text primary key, body text)");
  const insert = bare.prepare("insert into bare values (?, ?)");
  const body = JSON.stringify(check("job", 0));
  const start = performance.now();
  let count = 0;
  for (; performance.now() - start < 2000; count++) bare.transaction(() => insert.run(uuid(), body)).immediate();
  const rate = (1000 * count) / (performance.now() - start);
  bare.close();
  return rate;
}

/** The built app under eight clients at once, and what one waits for while another does something heavy. */
export async function clientFigures() {
  const folder = mkdtempSync(join(tmpdir(), "pelota-clients-"));
  try {
    let server = await started(folder);
    const long = await opened();
    for (let i = 0; i < 500; i++) await post(`jobs/${long}/entries`, [check(long, i)]);
    const jobs = await Promise.all(Array.from({ length: 8 }, opened));
    await eight(jobs, 2000);
    const several = await eight(jobs, 5000);
    const one = await eight(Array(8).fill(jobs[0]), 5000);
    const bare = bareRate(folder);
    await stopped(server);

    // Started again: nothing of the long job has been worked out yet.
    server = await started(folder);
    const firstPage = (await ask("GET", `/jobs/${long}`)).took;
    const other = jobs[1] as string;
    const waits = {
      "its PDF": await waitsDuring(() => ask("GET", `/api/v1/jobs/${long}/handover`), other),
      "its page": await waitsDuring(() => ask("GET", `/jobs/${long}/handover`), other),
      "the whole board": await waitsDuring(() => ask("GET", "/?all=1"), other),
      "one more check": await waitsDuring(() => post(`jobs/${long}/entries`, [check(long, 900)]), other),
    };
    await stopped(server);
    return { several, one, bare, firstPage, waits };
  } finally {
    agent.destroy();
    rmSync(folder, { recursive: true, force: true });
  }
}
