import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { Agent, request } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as pause } from "node:timers/promises";
import { v4 as uuid } from "uuid";
import { NATURAL } from "@/core/core.fixture";
import { openDb } from "@/server/db/open";
import { entryOf } from "./appends";
import { agent, ask, PORT, post, started, stopped } from "./built-app";
import { quantile } from "./quantile";
import { fill } from "./scale";

/** The shop that is attacked has so many jobs. */
const JOBS = 20_000;
/** Memory is looked at again after so long, ms. */
const AFTERWARDS = 60_000;

interface Attacked {
  readonly name: string;
  /** Waits of another's entry meanwhile, ms */
  readonly p99: number;
  readonly worst: number;
  /** MB */
  readonly before: number;
  readonly peak: number;
  readonly after: number;
  /** Statuses that the attack was answered with, and how often */
  readonly answers: string;
}

/** Sends a body of so many bytes as it is asked for, in parts of unknown number. @returns the status, or 0 where it was cut off. */
function flood(path: string, bytes: number): Promise<number> {
  return new Promise((done) => {
    const sent = request({ host: "127.0.0.1", port: PORT, agent: new Agent(), method: "POST", path }, (answer) => {
      answer.resume();
      done(answer.statusCode ?? 0);
    });
    sent.on("error", () => done(0));
    const part = Buffer.alloc(1 << 20, 32);
    let left = bytes;
    const more = () => {
      while (left > 0 && !sent.destroyed) {
        left -= part.length;
        if (!sent.write(part)) return void sent.once("drain", more);
      }
      sent.end();
    };
    more();
  });
}

/** Opens a stream of changes, and says how it is shut. */
const stream = () =>
  new Promise<() => void>((done) => {
    const asked = request({ host: "127.0.0.1", port: PORT, agent: new Agent(), path: "/api/v1/changes" }, (answer) => {
      answer.resume();
      answer.on("error", () => {});
      done(() => asked.destroy());
    });
    asked.on("error", () => done(() => {}));
    asked.end();
  });

/** An attack, and its answer. */
const ATTACKS: Readonly<Record<string, (jobId: string) => Promise<number[]>>> = {
  "three bodies of 300 MB at the door of the passphrase": () => Promise.all([1, 2, 3].map(() => flood("/api/v1/session", 300e6))),
  "a body of 1.2 GB at a job's door": async (jobId) => [await flood(`/api/v1/jobs/${jobId}/entries`, 1.2e9)],
  "25,000 notes in one request, and fifty times five hundred": async (jobId) => {
    const notes = (n: number) => Array.from({ length: n }, (_, i) => entryOf(jobId, "note", { text: `note ${i}` }, i + 2));
    const answers = [(await ask("POST", `/api/v1/jobs/${jobId}/entries`, notes(25_000))).status];
    for (let i = 0; i < 50; i++) answers.push((await ask("POST", `/api/v1/jobs/${jobId}/entries`, notes(500))).status);
    return answers;
  },
  "800 streams of changes, shut at once": async () => {
    const shut: (() => void)[] = [];
    for (let i = 0; i < 16; i++) shut.push(...(await Promise.all(Array.from({ length: 50 }, stream))));
    await pause(2000);
    for (const one of shut) one();
    return shut.map(() => 200);
  },
  "200 looks at the shop's page": async () => {
    const answers: number[] = [];
    for (let i = 0; i < 200; i++) answers.push((await ask("GET", "/shop")).status);
    return answers;
  },
};

const counted = (answers: readonly number[]) =>
  [...new Set(answers)].map((status) => `${answers.filter((one) => one === status).length} × ${status}`).join(", ");

async function attacked(name: string, attack: () => Promise<number[]>, other: string, memory: () => number): Promise<Attacked> {
  const before = memory();
  let [over, peak] = [false, before];
  const answered = attack().finally(() => {
    over = true;
  });
  const waits: number[] = [];
  while (!over || waits.length < 50) {
    waits.push((await post(`jobs/${other}/entries`, [entryOf(other, "note", { text: name }, 1000 + waits.length)])).took);
    peak = Math.max(peak, memory());
    await pause(20);
  }
  const answers = counted(await answered);
  await pause(AFTERWARDS);
  return { name, p99: quantile(waits, 0.99), worst: Math.max(...waits), before, peak, after: memory(), answers };
}

/** The built app under each attack, one after the other. */
export async function attackFigures(): Promise<Attacked[]> {
  const folder = mkdtempSync(join(tmpdir(), "pelota-attack-"));
  try {
    const at = openDb(folder);
    fill(at, JOBS);
    // Without a lead names are taken as they are given: what is attacked is the server, not the sign-in.
    at.$client.exec("delete from people");
    at.$client.close();
    const server = await started(folder);
    const memory = () => Number(execFileSync("ps", ["-o", "rss=", "-p", String(server.pid)], { encoding: "utf8" })) / 1024;
    const open = async () => {
      const jobId = uuid();
      await post("jobs", { id: uuid(), jobId, at: new Date().toISOString(), by: "Wren Alder", device: "bench", deviceSeq: 0 });
      await post(`jobs/${jobId}/entries`, [entryOf(jobId, "vehicle", NATURAL, 1)]);
      return jobId;
    };
    const [victim, other] = [await open(), await open()];
    // Warm: what a first look loads is no attack's.
    for (const path of ["/", "/shop", `/jobs/${other}`]) await ask("GET", path);
    const figures: Attacked[] = [];
    for (const [name, attack] of Object.entries(ATTACKS)) figures.push(await attacked(name, () => attack(victim), other, memory));
    await stopped(server);
    return figures;
  } finally {
    agent.destroy();
    rmSync(folder, { recursive: true, force: true });
  }
}
