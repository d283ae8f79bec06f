import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { endsAboveDivision } from "@/core/form";
import { BadInput, validate } from "@/core/input";
import { firstStartSchema } from "@/core/people";
import { shopSchema } from "@/core/shop/settings";
import { openData } from "../../scripts/data-folder.mjs";
import { answerPlain } from "../../scripts/plain-page.mjs";
import { allow } from "./allowance";
import { writeArchive } from "./archive";
import { backup, restore } from "./backup";
import { backupsFolder } from "./backups-folder";
import { changeStream } from "./changes";
import { eraseCustomer, readCustomer, writeCustomer } from "./customers";
import { dailyBackup } from "./daily-backup";
import { type Db, db, openDb } from "./db/open";
import { files } from "./db/schema";
import { enrol, listDevices, putOut } from "./devices";
import { givenName, storeFile } from "./files";
import { jsonBody } from "./http";
import { openJob } from "./jobs";
import { newCode, takeCode } from "./live";
import { readPicture } from "./pictures";
import { Forbidden, NotFound, TooSoon } from "./refusals";
import { readSecurityLog } from "./security-log";

let root: string;
let data: string;
let at: Db;
beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), "pelota-doors-"));
  data = join(root, "data");
  vi.stubEnv("PELOTA_DATA", data);
  at = db();
});
afterEach(() => {
  at.$client.close();
  vi.unstubAllEnvs();
  vi.useRealTimers();
  for (const key of ["pelotaAllowances", "pelotaLive"]) Reflect.deleteProperty(globalThis, key);
  rmSync(root, { recursive: true, force: true });
});
const job = () => {
  const jobId = uuid();
  openJob({ id: uuid(), jobId, at: "2026-03-02T08:00:00Z", by: "Maren Oake", device: "tablet", deviceSeq: 1 });
  return jobId;
};

describe("a name from outside", () => {
  it("is kept so that it can be exported, whatever stands in it", async () => {
    const jobId = job();
    expect(givenName("drive\u0000\u0007.csv")).toBe("drive .csv");
    expect(givenName("\u0000")).toBe("file");
    // One that an older version kept as it came.
    const { sha256 } = storeFile(jobId, "x.csv", Buffer.from("Time\n"));
    at.update(files).set({ name: "a\u0000b.csv" }).run();
    const parts: Buffer[] = [];
    for await (const part of writeArchive({ customers: false })) parts.push(part as Buffer);
    expect(Buffer.concat(parts).length).toBeGreaterThan(100);
    expect(sha256).toMatch(/^[0-9a-f]{64}$/);
    const { takeArchive } = await import("./archive");
    const path = join(root, "shop.zip");
    const { writeFileSync } = await import("node:fs");
    writeFileSync(path, Buffer.concat(parts));
    at.$client.close();
    vi.stubEnv("PELOTA_DATA", join(root, "other"));
    at = db();
    const came = [];
    for await (const one of takeArchive(path)) if ("state" in one) came.push(one.state);
    expect(came).toEqual(["new"]);
  });

  it("stands for no picture's thumbnail", () => {
    const jobId = job();
    const { sha256 } = storeFile(jobId, givenName(`Thumbnail of ${"a".repeat(64)}`), Buffer.from("<script>"));
    expect(sha256).toMatch(/^[0-9a-f]{64}$/);
    expect(() => readPicture(jobId, "a".repeat(64), true)).toThrow(NotFound);
    expect(givenName(`thumbnail of ${"a".repeat(64)}`)).not.toMatch(/^thumbnail of /);
  });
});

it("a customer's line is blanked by nobody who may not erase, and changed by everybody", () => {
  const jobId = job();
  writeCustomer(jobId, { name: "Ines Fell", contact: "555 0142" }, at, "apprentice");
  writeCustomer(jobId, { name: "Ines Fell", contact: "555 0143" }, at, "apprentice");
  for (const blank of [
    { name: "", contact: "" },
    { name: " ", contact: "555 0143" },
    { name: "Ines Fell", contact: "" },
  ])
    for (const role of ["apprentice", "technician"] as const)
      expect(() => writeCustomer(jobId, blank, at, role)).toThrow(Forbidden);
  expect(readCustomer(jobId)).toEqual({ name: "Ines Fell", contact: "555 0143" });
  writeCustomer(jobId, { name: "", contact: "" }, at, "lead");
});

it("codes that are open at once are bounded: the oldest goes", () => {
  const codes = Array.from({ length: 30 }, () => newCode().code);
  expect(codes.filter(takeCode)).toEqual(codes.slice(-10));
});

describe("a backup", () => {
  it("restored revives no device that was removed since, and no customer who was erased, and says so", async () => {
    vi.stubEnv("PELOTA_GATE", "abc");
    const [erased, stays] = [job(), job()];
    for (const id of [erased, stays]) writeCustomer(id, { name: "Ines Fell", contact: "555 0142" });
    for (const name of ["Tablet 1", "Tablet 2"]) enrol(name);
    const kept = join(backupsFolder(), "monday");
    await backup(kept, data);
    putOut(listDevices()[0]?.id as string);
    eraseCustomer(erased);
    expect(statSync(join(backupsFolder(), "revocations.jsonl")).mode & 0o077).toBe(0);
    const back = join(root, "back");
    expect((await restore(kept, back)).again).toEqual({ devices: 1, customers: 1 });
    const there = openDb(back);
    expect(listDevices(there).map((d) => d.out)).toEqual([true, false]);
    expect([readCustomer(erased, there), readCustomer(stays, there)?.name]).toEqual([undefined, "Ines Fell"]);
    expect(readSecurityLog(there)[0]).toMatchObject({
      what: "restored",
      detail: "1 devices removed and 1 customers erased again",
    });
    there.$client.close();
  });

  it("keeps a customer who came again before it was taken, though they were erased once, and none who was blanked since", async () => {
    const [again, blanked] = [job(), job()];
    const ines = { name: "Ines Fell", contact: "555 0142" };
    for (const id of [again, blanked]) writeCustomer(id, ines);
    vi.useFakeTimers({ toFake: ["Date"], now: Date.now() + 1000 });
    eraseCustomer(again);
    vi.setSystemTime(Date.now() + 1000);
    writeCustomer(again, ines);
    const kept = join(backupsFolder(), "tuesday");
    await backup(kept, data);
    vi.setSystemTime(Date.now() + 1000);
    writeCustomer(blanked, { name: "", contact: "" }, at, "lead");
    const back = join(root, "again");
    expect((await restore(kept, back)).again).toEqual({ devices: 0, customers: 1 });
    const there = openDb(back);
    expect([readCustomer(again, there), readCustomer(blanked, there)]).toEqual([ines, undefined]);
    there.$client.close();
  });

  it("and what is served are read by nobody else on the machine", async () => {
    const jobId = job();
    storeFile(jobId, "x.csv", Buffer.from("Time\n"));
    const kept = join(backupsFolder(), "monday");
    await backup(kept, data);
    const back = join(root, "back");
    await restore(kept, back);
    const open: string[] = [];
    const look = (path: string) => {
      const { mode } = statSync(path);
      if ((mode & 0o077) !== 0) open.push(`${path} ${(mode & 0o777).toString(8)}`);
      if (statSync(path).isDirectory()) for (const name of readdirSync(path)) look(join(path, name));
    };
    for (const folder of [data, kept, back]) look(folder);
    expect(open).toEqual([]);
  });

  it("leaves nothing of an erased customer in the file", () => {
    const jobId = job();
    writeCustomer(jobId, { name: "Zephyrine Quillon", contact: "555 0142" });
    eraseCustomer(jobId);
    at.$client.pragma("wal_checkpoint(TRUNCATE)");
    expect(readFileSync(join(data, "pelota.sqlite")).includes("Zephyrine")).toBe(false);
  });

  it("is taken daily though the clock was once decades ahead, and those are the first to go", async () => {
    job();
    const day = (year: number, d: number) => Date.UTC(year, 2, d, 3);
    const folder = backupsFolder();
    for (const d of [1, 2]) await dailyBackup(folder, 3, data, day(2026, d));
    expect(await dailyBackup(folder, 3, data, day(2066, 1))).toBeDefined();
    for (const d of [3, 4]) expect(await dailyBackup(folder, 3, data, day(2026, d))).toBeDefined();
    expect(readdirSync(folder).filter((name) => /^\d{4}-/.test(name))).toEqual([
      "2026-03-02T03-00-00Z",
      "2026-03-03T03-00-00Z",
      "2026-03-04T03-00-00Z",
    ]);
  });
});

describe("a request", () => {
  const streamed = (bytes: number) => {
    let sent = 0;
    const body = new ReadableStream<Uint8Array>({
      pull(stream) {
        if (sent >= bytes) return stream.close();
        sent += 65536;
        stream.enqueue(new Uint8Array(65536).fill(32));
      },
    });
    const request = new Request("http://127.0.0.1/", { method: "POST", body, duplex: "half" } as RequestInit);
    return { request, sent: () => sent };
  };

  it("is counted as it comes, and no more of it is read than a door takes", async () => {
    const { request, sent } = streamed(300e6);
    await expect(jsonBody(request, 4096)).rejects.toThrow(/too large \(over 4 kB\)/);
    expect(sent()).toBeLessThan(1e6);
    const announced = new Request("http://127.0.0.1/", { method: "POST", body: "{}", headers: { "content-length": "9999999" } });
    await expect(jsonBody(announced, 4096)).rejects.toThrow(/too large/);
    expect(await jsonBody(new Request("http://127.0.0.1/", { method: "POST", body: '{"a":"\u00e9"}' }), 4096)).toEqual({
      a: "\u00e9",
    });
  });

  it("of very many entries waits, and is never refused for good; a device's own come in at once", () => {
    vi.useFakeTimers({ toFake: ["Date"] });
    for (let i = 0; i < 1000; i++) allow("tablet", 20);
    expect(() => allow("van", 25_000)).toThrow(TooSoon);
    for (let i = 0; i < 4; i++) allow("van", 500);
    let said: unknown;
    try {
      allow("van", 500);
    } catch (error) {
      said = error;
    }
    expect(said).toBeInstanceOf(TooSoon);
    allow("desk", 500);
    allow("van", 3);
    vi.setSystemTime(Date.now() + 1000 * (said as TooSoon).wait);
    allow("van", 500);
  });

  it.each([
    ["people that are no list", { shop: "x", lead: { name: "y", pin: "2468" }, people: { length: 1 } }, firstStartSchema],
    [
      "a scale in no unit",
      { instruments: [{ end: { value: 1, unit: "constructor" }, division: { value: 1, unit: "moon" } }] },
      shopSchema,
    ],
  ])("with %s is refused, and breaks nothing", (_what, value, schema) => {
    expect(() => validate(schema, value)).toThrow(BadInput);
  });

  it("about a scale of no known unit is none of a test's business", () => {
    expect(endsAboveDivision({ end: { value: 1, unit: "x" }, division: { value: 1, unit: "Pa" } } as never)).toBe(true);
  });
});

describe("the plain port", () => {
  const asked = async (url: string, host: string) => {
    let status = 0;
    const response = { writeHead: (code: number) => (status = code), end: () => {} };
    await answerPlain({ method: "GET", url, headers: { host } }, response, {
      secureAt: (name: string) => `https://${name}`,
      authority: "x",
      fingerprint: "AA",
    });
    return status;
  };
  it.each([
    ["//[", "192.168.1.2:4310"],
    ["http://[", "192.168.1.2"],
    ["/", "x".repeat(3000)],
    ["/", ""],
    ["/", "<b>.local"],
    ["/\\\\[", "a b"],
  ])("survives %s of %s", async (url, host) => expect([200, 400]).toContain(await asked(url, host)));
  it("shows the way on to whoever asks for a page", async () => {
    for (const host of ["192.168.1.2:4310", "bay.local", "[fe80::1]:4310"]) expect(await asked("/jobs/x?q=1", host)).toBe(200);
  });
});

describe("a served folder", () => {
  it("whose mark was taken away is held anew, or let go of where another has begun", () => {
    const folder = join(root, "served");
    const one = openData(folder);
    expect(() => openData(folder)).toThrow(/serves .* already/);
    rmSync(join(folder, "served.lock"));
    expect(one.isHeld()).toBe(true);
    expect(() => openData(folder)).toThrow(/serves .* already/);
    rmSync(join(folder, "served.lock"));
    const two = openData(folder);
    expect([one.isHeld(), two.isHeld()]).toEqual([false, true]);
    one.release();
    two.release();
    expect(existsSync(folder)).toBe(true);
  });
});

describe("a stream of changes", () => {
  it("asks nothing of the database as things are written, and who may hear as somebody is put out", async () => {
    let asked = 0;
    let may = true;
    const mayHear = () => {
      asked++;
      return may;
    };
    const readers = Array.from({ length: 5 }, (_, i) =>
      changeStream(new AbortController().signal, `tablet ${i}`, mayHear).getReader(),
    );
    for (const reader of readers) await reader.read();
    const before = asked;
    job();
    expect(asked).toBe(before);
    for (const reader of readers) expect(new TextDecoder().decode((await reader.read()).value)).toMatch(/jobId/);
    may = false;
    vi.stubEnv("PELOTA_GATE", "abc");
    enrol("Tablet 9");
    putOut(listDevices()[0]?.id as string);
    for (const reader of readers) expect((await reader.read()).done).toBe(true);
  });

  it("is bounded for each device: the oldest ends", async () => {
    const open = () => changeStream(new AbortController().signal, "tablet").getReader();
    const readers = Array.from({ length: 40 }, open);
    const other = changeStream(new AbortController().signal, "desk").getReader();
    for (const reader of [...readers, other]) await reader.read();
    const ended = [];
    for (const reader of readers.slice(0, 16)) ended.push((await reader.read()).done);
    expect(ended).toEqual(Array(16).fill(true));
    job();
    expect((await other.read()).done).toBe(false);
    expect((await (readers[39] as typeof other).read()).done).toBe(false);
  });
});
