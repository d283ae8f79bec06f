import { type ChildProcess, spawn } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import { expect, test } from "./test";

const PORT = 4331;
const folders: string[] = [];
const fresh = () => {
  const folder = mkdtempSync(join(tmpdir(), "pelota-start-"));
  folders.push(folder);
  return folder;
};
const started: ChildProcess[] = [];
test.afterAll(() => {
  // What a test that failed has left running would hold the port against the next run.
  for (const app of started) app.kill("SIGKILL");
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

/** Starts the app; what it says, and with which code it ends. */
function start(data: string, args: string[] = ["--port", String(PORT)], env: Record<string, string> = {}) {
  const app: ChildProcess = spawn("node", ["scripts/start.mjs", ...args], { env: { ...process.env, PELOTA_DATA: data, ...env } });
  started.push(app);
  let said = "";
  app.stdout?.on("data", (part) => {
    said += part;
  });
  app.stderr?.on("data", (part) => {
    said += part;
  });
  const ended = new Promise<number | null>((done) => app.on("exit", (code) => done(code)));
  const ready = async () => {
    for (let i = 0; i < 300 && !said.includes("Ready on"); i++) await new Promise((next) => setTimeout(next, 100));
    expect(said).toContain("Ready on");
  };
  return { app, ended, ready, said: () => said };
}
const refused = async (...given: Parameters<typeof start>) => {
  const { ended, said } = start(...given);
  expect(await ended).toBe(2);
  expect(said()).not.toContain("Ready");
  return said();
};

test("what cannot be served stops the start with a sentence, before it is ready", async () => {
  const folder = fresh();
  const file = join(folder, "a-file");
  writeFileSync(file, "x");
  expect(await refused(file)).toMatch(/is a file, and the data needs a folder.*Nothing was started/);
  expect(await refused(fresh(), ["--port", "99999"])).toMatch(/The port "99999" is none/);
  expect(await refused(fresh(), ["--port", "door"])).toMatch(/The port "door" is none/);
  expect(await refused(fresh(), ["--host", "0.0.0.0"], { PELOTA_PASSPHRASE: "short" })).toMatch(/at least 8 characters/);

  const damaged = fresh();
  writeFileSync(join(damaged, "pelota.sqlite"), "this is no database, whatever its name says ".repeat(100));
  expect(await refused(damaged)).toMatch(/is damaged .*put a backup in its place/);

  const newer = fresh();
  const database = new Database(join(newer, "pelota.sqlite"));
  database.exec("create table __drizzle_migrations (id integer primary key, hash text, created_at numeric)");
  database.prepare("insert into __drizzle_migrations (hash, created_at) values ('x', ?)").run(Date.now() + 1e12);
  database.close();
  expect(await refused(newer)).toMatch(/written by a newer Pelota/);

  const taken = createServer();
  await new Promise<void>((done) => taken.listen(PORT, "127.0.0.1", done));
  expect(await refused(fresh())).toMatch(new RegExp(`Port ${PORT} on 127.0.0.1 is taken`));
  await new Promise((done) => taken.close(done));
});

test("one app serves a folder at a time; a signal stops it whatever is still open, and the next one starts", async () => {
  const folder = fresh();
  // What an earlier one had half received when it was killed is not kept.
  mkdirSync(join(folder, "incoming"));
  writeFileSync(join(folder, "incoming", "stump"), "Time,R");
  for (const signal of ["SIGTERM", "SIGINT"] as const) {
    const { app, ended, ready, said } = start(folder);
    await ready();
    expect(said()).toMatch(/Data: .*, 0 jobs/);
    expect(existsSync(join(folder, "incoming", "stump"))).toBe(false);
    expect((await fetch(`http://127.0.0.1:${PORT}/`)).ok).toBe(true);
    expect(await refused(folder, ["--port", String(PORT + 1)])).toMatch(/Another Pelota serves .* already/);
    // A tablet that keeps its connection open does not hold it up.
    app.kill(signal);
    expect(await ended).toBe(0);
  }
});
