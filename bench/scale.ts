import { execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { NATURAL, smokeRun } from "@/core/core.fixture";
import { seededNoise } from "@/core/maths/random";
import { engineOf } from "@/core/vehicle";
import { type BoardFilter, boardPage } from "@/server/board";
import { type Db, openDb } from "@/server/db/open";
import { agent, ask, started, stopped } from "./built-app";
import { quantile } from "./quantile";

const JOBS = 20_000;
const ENTRIES = 50;
const CARS = ["Ondrell Petrel 1.6", "Ostrin Merle 2.0", "Velloram Heron 1.4", "Druskar Plover 3.0", "Ondrell Siskin 1.2"];
const COMPLAINTS = ["Hunts at idle", "Whistles under boost", "Light on after filling up", "Rough when cold", "Smells of petrol"];
const CODES = ["P0171", "P0442", "P0455", "P0299", "P0411", "P2463"];

/** A shop of many years: jobs with the columns that a fold leaves, and journals of checks with their machine's proof, codes, findings with pictures, repairs and notes. */
export function fill(at: Db, count = JOBS): void {
  const noise = seededNoise(7);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(noise.uniform() * list.length)] as T;
  const letters = () => String.fromCharCode(...Array.from({ length: 3 }, () => 65 + Math.floor(26 * noise.uniform())));
  const { $client } = at;
  $client.pragma("synchronous = OFF");
  const job = $client.prepare(
    `insert into jobs (id, number, created_at, top, folded, status, station, reason, waiting_on, vehicle, registration, complaint, codes, updated_at, person, families, recheck, proved, engine)
     values (?, ?, ?, ?, ?, ?, 'check', 'No check yet', ?, ?, ?, ?, ?, ?, 'Wren Alder', 'engine', '', ?, ?)`,
  );
  const file = $client.prepare("insert into files (job_id, sha256, name, bytes, created_at) values (?, ?, 'seal.jpg', 90000, ?)");
  const lesson = $client.prepare("insert into lessons (job_id, lessons) values (?, ?)");
  const entry = $client.prepare(
    `insert into entries (id, job_id, seq, kind, v, at, by, device, device_seq, seen_seq, body, recorded_at)
     values (?, ?, ?, ?, 1, ?, 'Wren Alder', 'bench', ?, 0, ?, ?)`,
  );
  const story = JSON.stringify({ complaint: "Hunts at idle", symptoms: [], verified: "seen" });
  const vehicle = JSON.stringify(NATURAL);
  const engine = engineOf(NATURAL);
  const proved = JSON.stringify({ engine, families: ["engine"], found: ["pcv-hose"], age: 9 });
  const proof = { pressure: { value: 12.6, unit: "inH2O", kind: "gauge" }, ballAtBottom: true, smokeSeen: true } as const;
  const runs = [0, 1.2, 3, 4.5].map((flow) => JSON.stringify({ check: "smoke", record: smokeRun(flow, { proof }) }));
  const codes = JSON.stringify({ codes: [{ code: "P0171", status: "current" }] });
  const evidence = { evidence: [], confirmed: true, confirmedBy: "seen", failed: { why: "age" } };
  const repair = JSON.stringify({
    what: "PCV hose renewed",
    places: ["pcv-hose"],
    permanence: "permanent",
    labourMinutes: 20,
    parts: [],
    otherChanges: [],
  });
  const hash = () =>
    Array.from({ length: 8 }, () =>
      Math.floor(noise.uniform() * 2 ** 32)
        .toString(16)
        .padStart(8, "0"),
    ).join("");
  for (let n = 1; n <= count; n++) {
    $client.transaction(() => {
      const id = uuid();
      const time = new Date(Date.UTC(2016, 0, 1) + n * 4 * 3600_000).toISOString();
      const open = n > count - 60;
      job.run(
        id,
        n,
        time,
        ENTRIES,
        ENTRIES,
        open ? "open" : "closed",
        pick(["me", "customer", "part", "drive"]),
        `${2005 + (n % 15)} ${pick(CARS)}`,
        `FW ${10 + (n % 90)} ${letters()}`,
        `${pick(COMPLAINTS)}, ${pick(COMPLAINTS).toLowerCase()}`,
        `${pick(CODES)} ${pick(CODES)}`,
        time,
        open ? "" : proved,
        engine,
      );
      const picture = hash();
      file.run(id, picture, time);
      if (!open)
        lesson.run(
          id,
          JSON.stringify({ families: ["engine"], at: time, said: [], repairs: [], checks: { smoke: 12 }, voids: [] }),
        );
      for (let seq = 1; seq <= ENTRIES; seq++) {
        const [kind, body] =
          seq === 1
            ? ["opened", JSON.stringify({ number: n })]
            : seq === 2
              ? ["vehicle", vehicle]
              : seq === 3
                ? ["story", story]
                : seq === 4
                  ? ["codes", codes]
                  : seq === 5
                    ? ["finding", JSON.stringify({ joint: "pcv-hose", what: "split", pictures: [picture], ...evidence })]
                    : seq === 6
                      ? ["repair", repair]
                      : seq % 4 === 0
                        ? ["check", pick(runs)]
                        : ["note", JSON.stringify({ text: `Looked at ${letters()} and ${letters()}, nothing seen there` })];
        entry.run(uuid(), id, seq, kind, JSON.stringify(time), seq, body, time);
      }
    })();
  }
  $client
    .prepare("insert into people (id, name, created_at, role, pin) values (?, 'Wren Alder', ?, 'lead', 'x')")
    .run(uuid(), "2016-01-01");
  $client.pragma("wal_checkpoint(TRUNCATE)");
}

const SEARCHES: Readonly<Record<string, BoardFilter>> = {
  "the open jobs": {},
  "all jobs": { includeClosed: true },
  "a registration": { includeClosed: true, search: "FW 34" },
  "a make, in every fifth job": { includeClosed: true, search: "merle" },
  "two words and a code": { includeClosed: true, search: "petrel idle P0171" },
  "two letters": { includeClosed: true, search: "me" },
  "a word that is nowhere": { includeClosed: true, search: "zzzz" },
};

/** A shop of 20,000 jobs and 1,000,000 entries: what the board takes, ms, and what the built app holds in memory, bytes. */
export async function scaleFigures() {
  const folder = mkdtempSync(join(tmpdir(), "pelota-scale-"));
  try {
    const at = openDb(folder);
    fill(at);
    const searches = Object.entries(SEARCHES).map(([name, filter]) => {
      const times = Array.from({ length: 20 }, () => {
        const start = performance.now();
        boardPage(filter, 1, at);
        return performance.now() - start;
      });
      return [name, quantile(times, 0.5), Math.max(...times)] as const;
    });
    const bytes = statSync(join(folder, "pelota.sqlite")).size;
    at.$client.close();
    if (!existsSync(".next/BUILD_ID")) return { searches, bytes };
    const server = await started(folder);
    const first = (await ask("GET", "/?all=1")).took;
    const pages: (readonly [string, number, number])[] = [];
    for (const path of ["/", "/?all=1&q=merle", "/?all=1&page=200", "/shop", "/what-we-know", "/?all=1&q=me"]) {
      await ask("GET", path);
      const times: number[] = [];
      for (let i = 0; i < 10; i++) times.push((await ask("GET", path)).took);
      pages.push([path, quantile(times, 0.5), Math.max(...times)]);
    }
    const memory = Number(execFileSync("ps", ["-o", "rss=", "-p", String(server.pid)], { encoding: "utf8" })) * 1024;
    await stopped(server);
    return { searches, bytes, first, pages, memory };
  } finally {
    agent.destroy();
    rmSync(folder, { recursive: true, force: true });
  }
}
