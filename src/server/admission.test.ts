import { cpSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { BadInput } from "@/core/input";
import { type Entry, type JobFile, type JournalEntry, parseJobFile, parseQueueFile, toQueueFile } from "@/core/journal";
import { proved } from "@/core/journal/journal.fixture";
import { type Role, type SignedIn, signed } from "@/core/people";
import { listJobs, refreshStale } from "./board";
import { type Db, db } from "./db/open";
import { DEVICE_COOKIE, enrol, listDevices, putOut } from "./devices";
import { takeEntries } from "./entries-door";
import { firstStart } from "./first-start";
import { exportJob, importJob } from "./job-files";
import { openJob, readEntries, readJob, takeOpening } from "./jobs";
import { whatWeKnowHere } from "./lessons";
import { changePerson, listPeople } from "./people";
import { lookThrough, takeIn } from "./queue";
import { NotSignedIn } from "./refusals";
import { readShop } from "./shop";
import { signIn } from "./sign-in";

const HOUR = 3600_000;
const DAY = 24 * HOUR;
const START = Date.parse("2026-03-02T08:00:00Z");
const PIN = "2468";

const folder = mkdtempSync(join(tmpdir(), "pelota-admission-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let at: Db;
/** Opens a data folder by the clock of the story's beginning. */
function begin(data: string): void {
  vi.stubEnv("PELOTA_DATA", data);
  vi.useFakeTimers({ toFake: ["Date"], now: START });
  at = db();
}
function end(): void {
  at.$client.close();
  vi.unstubAllEnvs();
  vi.useRealTimers();
}
/** A shop with one of each, all signed in: made once, each test has a copy of it. */
let shop: Record<Role, SignedIn>;
beforeAll(async () => {
  begin(join(folder, "shop"));
  const lead = await firstStart({
    shop: "Ferrowick Slip Garage",
    lead: { name: "Maren Oake", pin: PIN },
    people: [
      { name: "Tobin Falk", role: "technician", pin: PIN },
      { name: "Isla Renn", role: "apprentice", pin: PIN },
    ],
  });
  shop = { lead, technician: await inAs("Tobin Falk"), apprentice: await inAs("Isla Renn") };
  at.$client.pragma("wal_checkpoint(TRUNCATE)");
  end();
});
let tests = 0;
beforeEach(() => {
  const data = join(folder, String(tests++));
  cpSync(join(folder, "shop"), data, { recursive: true });
  begin(data);
});
afterEach(end);

const clock = (ms: number) => vi.setSystemTime(START + ms);
const iso = (ms: number) => new Date(START + ms).toISOString();
const idOf = (name: string) => listPeople(at).find((p) => p.name === name)?.id as string;
const inAs = (name: string, device = "") => signIn({ person: idOf(name), pin: PIN }, device);

function job(): string {
  const jobId = uuid();
  openJob({ id: uuid(), jobId, at: iso(-DAY), by: "Maren Oake", device: "desk", deviceSeq: 1 });
  return jobId;
}
let count = 10;
/** An entry as a device of today makes it. */
const made = (who: SignedIn, jobId: string, madeAt: number, more: Partial<Entry> = {}): Entry =>
  signed(
    {
      id: uuid(),
      jobId,
      kind: "note",
      v: 1,
      at: iso(madeAt),
      by: who.name,
      device: "tablet",
      deviceSeq: count++,
      seenSeq: 0,
      body: { text: "Hisses at the brake booster" },
      person: who.personId,
      madeAt: iso(madeAt),
      ...more,
    } as Entry,
    who.signIn,
    who.key,
  );
/** An entry as a device of an older build makes it. */
const old = (who: SignedIn, jobId: string, more: Partial<Entry> = {}): Entry => {
  const { person: _, madeAt: __, signed: ___, ...entry } = made(who, jobId, 0);
  return signed({ ...entry, ...more }, who.signIn, who.key);
};

/** A job's file as somebody writes it by hand: entries of a job that is not here, with whatever the server would add. */
function fileOf(entries: readonly (Entry & Partial<JournalEntry>)[]): JobFile {
  const list = entries.map((e, i): JournalEntry => ({ seq: i + 1, recordedAt: iso(0), ...e }));
  const text = JSON.stringify({
    format: "pelota-job",
    version: 1,
    exportedAt: iso(0),
    jobId: list[0]?.jobId,
    shop: readShop(at),
    entries: list,
  });
  return parseJobFile(text);
}
const openedBy = (who: SignedIn | undefined, jobId: string, number = 1): Entry => {
  const asked = { id: uuid(), jobId, at: iso(0), by: who?.name ?? "Ebba Stroud", device: "tablet", deviceSeq: 1 };
  const entry = who ? signed({ ...asked, person: who.personId, madeAt: iso(0) }, who.signIn, who.key) : asked;
  return { ...entry, kind: "opened", v: 1, seenSeq: 0, body: { number } };
};
/** A job that was proved and closed elsewhere, under another id. */
function fromElsewhere(): JobFile {
  const { job } = proved();
  job.add("handover", { decidedOn: job.state().lastSeq, conditional: false, summary: "Sound again" });
  job.add("close", { decidedOn: job.state().lastSeq });
  expect(job.state().status).toBe("closed");
  const fresh = new Map([...job.entries.map((e) => e.id), job.entries[0]?.jobId as string].map((id) => [id, uuid()]));
  let text = JSON.stringify(job.entries);
  for (const [id, other] of fresh) text = text.replaceAll(id, other);
  return fileOf(JSON.parse(text) as JournalEntry[]);
}

describe("a file of one's own making", () => {
  it("closes no job past its gates, under whatever name", async () => {
    const { technician } = shop;
    const jobId = uuid();
    const close = old(technician, jobId, { kind: "close", body: { decidedOn: 1 }, by: "Maren Oake" });
    importJob(fileOf([openedBy(technician, jobId), { ...close, role: "lead" }]));
    const [opening, kept] = readEntries(jobId);
    expect(opening).toMatchObject({ by: "Tobin Falk", role: "technician" });
    expect(kept).toMatchObject({
      by: "Tobin Falk",
      role: "technician",
      history: expect.stringMatching(/nothing is repaired yet/),
    });
    const state = readJob(jobId);
    expect(state).toMatchObject({ status: "open", history: [{ kind: "close", by: "Tobin Falk" }] });
  });

  it("gives nobody another role than their own", async () => {
    const { apprentice } = shop;
    const jobId = uuid();
    const sign = made(apprentice, jobId, 0, { kind: "signed", body: { repair: uuid() }, by: "Maren Oake" });
    importJob(fileOf([openedBy(apprentice, jobId), { ...sign, role: "lead" }]));
    expect(readEntries(jobId)[1]).toMatchObject({
      by: "Isla Renn",
      role: "apprentice",
      history: expect.stringMatching(/Only a technician or a lead signs/),
    });
  });

  it.each([
    ["a job number", (f: JobFile) => ({ ...f, entries: f.entries.map((e) => ({ ...e, body: { number: 2 ** 53 - 1 } })) })],
    ["an entry's number", (f: JobFile) => ({ ...f, entries: f.entries.map((e) => ({ ...e, seq: 2 ** 53 - 1 })) })],
    ["a count of what was seen", (f: JobFile) => ({ ...f, entries: f.entries.map((e) => ({ ...e, seenSeq: 2 ** 60 })) })],
  ])("leaves room for what comes after it, whatever %s it holds", async (_what, grown) => {
    const jobId = uuid();
    const text = JSON.stringify(grown(fileOf([openedBy(undefined, jobId)])));
    expect(() => importJob(parseJobFile(text))).toThrow(BadInput);
    const next = openJob({ id: uuid(), jobId: uuid(), at: iso(0), by: "Maren Oake", device: "desk", deviceSeq: 2 });
    expect(next.number).toBe(1);
  });

  it("takes no number far from the shop's own, and goes on from what it took", async () => {
    const far = importJob(fileOf([openedBy(undefined, uuid(), 999_999_999)]));
    expect(far.number).toBe(1);
    const { technician } = shop;
    const near = importJob(fileOf([{ ...openedBy(undefined, uuid(), 40_000), seq: 1_000_000 }]));
    expect(near.number).toBe(40_000);
    expect(job).not.toThrow();
    expect(await takeEntries(jobIdOf(40_000), made(technician, jobIdOf(40_000), 0))).toMatchObject([{ seq: 1_000_001 }]);
  });
  const jobIdOf = (number: number) =>
    (at.$client.prepare("select id from jobs where number = ?").get(number) as { id: string }).id;

  it("forges no time under a signature that holds", async () => {
    const { technician } = shop;
    const jobId = uuid();
    const note = made(technician, jobId, 0);
    importJob(
      fileOf([openedBy(technician, jobId), { ...note, at: iso(-30 * DAY), clampedFrom: note.at, recordedAt: iso(-30 * DAY) }]),
    );
    const [, kept] = readEntries(jobId);
    expect(kept).toMatchObject({ at: iso(0), recordedAt: iso(0) });
    expect(kept).not.toHaveProperty("clampedFrom");
    expect(kept).not.toHaveProperty("history");
  });

  it("puts the server's word on nothing: what it says of seq, time, role and origin is worked out anew", async () => {
    const { technician } = shop;
    const jobId = uuid();
    const note = made(technician, jobId, 0);
    const dressed = { ...note, seq: 77, role: "lead" as const, imported: { by: "Maren Oake", at: iso(-DAY) }, history: "No" };
    importJob(fileOf([openedBy(technician, jobId), dressed]));
    expect(readEntries(jobId)[1]).toEqual({ ...note, seq: 2, recordedAt: iso(0), role: "technician" });
  });

  it("brings back what was lost here as it was made, and closes what had passed its gates", async () => {
    const { lead } = shop;
    const { job: written } = proved();
    const jobId = uuid();
    const ids = new Map(written.entries.map((e) => [e.id, uuid()]));
    const own = (e: JournalEntry): Entry => {
      const { seq: _, recordedAt: __, ...entry } = e;
      let text = JSON.stringify({ ...entry, jobId });
      for (const [id, other] of ids) text = text.replaceAll(id, other);
      return JSON.parse(text) as Entry;
    };
    clock(60 * DAY);
    const now = await inAs("Maren Oake");
    const [first, ...rest] = written.entries.map(own) as [Entry, ...Entry[]];
    const { kind: _, v: __, seenSeq: ___, body: ____, ...opening } = first;
    takeOpening(signed(opening, now.signIn, now.key));
    await takeEntries(
      jobId,
      rest.map((e) => signed(e, now.signIn, now.key)),
    );
    const top = () => readEntries(jobId).length;
    const say = (kind: string, body: object) =>
      takeEntries(jobId, old(now, jobId, { kind, body, at: iso(60 * DAY), seenSeq: top() }));
    await say("handover", { decidedOn: top(), conditional: false, summary: "Sound again" });
    await say("close", { decidedOn: top() });
    expect(readJob(jobId).status).toBe("closed");
    const file = parseJobFile(JSON.stringify(exportJob(jobId)));
    at.$client.exec(`delete from entries where job_id = '${jobId}'; delete from lessons; delete from jobs where id = '${jobId}'`);
    clock(61 * DAY);
    importJob(file, at, lead.name);
    expect(readJob(jobId)).toMatchObject({ status: "closed", history: [] });
    expect(readJob(jobId)).not.toHaveProperty("imported");
    expect(importJob(file, at, lead.name).added).toBe(0);
  });
});

describe("a job from another shop", () => {
  it("is kept as imported, by whom and when, and closes nothing here", async () => {
    const { technician } = shop;
    const file = fromElsewhere();
    importJob(file, at, "Tobin Falk");
    const state = readJob(file.jobId);
    expect(state).toMatchObject({ status: "elsewhere", imported: { by: "Tobin Falk", at: iso(0) } });
    expect(readEntries(file.jobId).every((e) => e.imported?.by === "Tobin Falk")).toBe(true);
    // It lies on the board where closed jobs do, and teaches this shop nothing.
    refreshStale();
    expect(listJobs()).toEqual([]);
    expect(listJobs({ includeClosed: true })).toMatchObject([{ id: file.jobId, status: "elsewhere", proved: "" }]);
    expect(whatWeKnowHere().jobs).toBe(0);
    // Taken up here it is open, and owes its proof to this shop.
    await takeEntries(
      file.jobId,
      made(technician, file.jobId, 0, { kind: "waiting", body: { on: "me" }, seenSeq: state.lastSeq }),
    );
    const taken = readJob(file.jobId);
    expect(taken.status).toBe("open");
    expect(taken.repairs).toHaveLength(1);
    expect(taken.zones.filter((z) => z.state === "tight")).toEqual([]);
    expect(taken.blocks.close.map((b) => b.station)).toContain("prove");
    const close = made(technician, file.jobId, 0, { kind: "close", body: { decidedOn: taken.lastSeq }, seenSeq: taken.lastSeq });
    await expect(takeEntries(file.jobId, close)).rejects.toThrow(BadInput);
  });

  it("takes nothing out of what was made here", async () => {
    const { technician } = shop;
    const jobId = uuid();
    const note = made(technician, jobId, 0);
    const { signed: _, ...bare } = old(technician, jobId, { kind: "retract", corrects: note.id, body: { reason: "Never was" } });
    importJob(fileOf([openedBy(technician, jobId), note, bare]));
    expect(readJob(jobId).notes).toHaveLength(1);
    expect(readJob(jobId).history).toMatchObject([{ kind: "retract" }]);
  });
});

describe("what a device of today makes", () => {
  it("counts under its maker, made on the way or typed afterwards at a desk, at once or after days without the server", async () => {
    const { technician } = shop;
    const jobId = job();
    clock(6 * DAY);
    const list = [
      made(technician, jobId, 0),
      made(technician, jobId, 5 * DAY, { at: iso(-3 * DAY) }),
      // A clock some minutes off, either way.
      made(technician, jobId, -4 * 60_000),
      made(technician, jobId, 6 * DAY + 3 * HOUR),
    ];
    for (const entry of await takeEntries(jobId, list)) {
      expect(entry).toMatchObject({ by: "Tobin Falk", role: "technician" });
      expect(entry).not.toHaveProperty("history");
    }
  });

  it("is history where it was made before its sign-in: nobody can tell by whom", async () => {
    const { technician } = shop;
    const jobId = job();
    const [kept] = await takeEntries(jobId, made(technician, jobId, -DAY));
    expect(kept).toMatchObject({ history: "It was made before Tobin Falk had signed in" });
    expect(readJob(jobId).notes).toEqual([]);
  });

  it("names nobody else than who signed it, and stays as it was signed", async () => {
    const { technician, lead } = shop;
    const jobId = job();
    await expect(takeEntries(jobId, made(technician, jobId, 0, { person: lead.personId }))).rejects.toThrow(
      /somebody else made it/,
    );
    for (const change of [{ madeAt: iso(HOUR) }, { prior: uuid() }, { person: lead.personId }])
      await expect(takeEntries(jobId, { ...made(technician, jobId, 0), ...change })).rejects.toThrow(/not as it was signed/);
    // A name is nobody's signature: the server says it.
    expect(await takeEntries(jobId, { ...made(technician, jobId, 0), by: "Maren Oake" })).toMatchObject([{ by: "Tobin Falk" }]);
  });

  const ends: [string, (who: SignedIn) => Promise<unknown>, RegExp][] = [
    ["they were made an apprentice", (who) => changePerson(who.personId, { role: "apprentice" }), /had ended when this was made/],
    ["their PIN was changed", (who) => changePerson(who.personId, { pin: "8642" }), /had ended when this was made/],
    ["seven days were over", async () => clock(9 * DAY), /signed in more than 7 days before/],
  ];
  it.each(ends)("asks to be signed anew where it was made after %s, and in a file is history", async (_what, end, why) => {
    const { technician } = shop;
    const jobId = job();
    const other = uuid();
    const opening = openedBy(technician, other);
    clock(HOUR);
    await end(technician);
    const after = Date.now() - START + HOUR;
    clock(after);
    const late = made(technician, jobId, after);
    await expect(takeEntries(jobId, late)).rejects.toThrow(why);
    await expect(takeEntries(jobId, late)).rejects.toThrow(NotSignedIn);
    // An older form says nothing of when it was made: it was made as it came.
    await expect(takeEntries(jobId, old(technician, jobId))).rejects.toThrow(why);
    importJob(fileOf([opening, made(technician, other, after)]));
    expect(readEntries(other).map((e) => e.history)).toEqual([undefined, expect.stringMatching(why)]);
    // Signed anew by who is in again it counts.
    const again = await signIn({ person: technician.personId, pin: _what.includes("PIN") ? "8642" : PIN }, "");
    const [taken] = await takeEntries(jobId, made(again, jobId, after, { id: late.id, at: late.at }));
    expect(taken).not.toHaveProperty("history");
  });

  it("is asked again as it is committed: who was put out or made less while gates were judged closes nothing", async () => {
    const { technician } = shop;
    const file = fromElsewhere();
    importJob(file);
    const state = readJob(file.jobId);
    const handover = made(technician, file.jobId, 0, {
      kind: "handover",
      body: { decidedOn: state.lastSeq, conditional: false, summary: "Sound again" },
    });
    const shared = globalThis as { pelotaThread?: unknown };
    shared.pelotaThread = {
      ask: async (_what: string, jobId: string) => {
        clock(HOUR);
        await changePerson(technician.personId, { role: "apprentice" });
        clock(2 * HOUR);
        const { lastSeq } = readJob(jobId);
        return { lastSeq, blocks: { close: [], handOver: [] } };
      },
    };
    try {
      const late = { ...handover, madeAt: undefined, person: undefined, signed: undefined };
      const { madeAt: _, person: __, signed: ___, ...entry } = late;
      const anew = signed({ ...entry, person: technician.personId, madeAt: iso(HOUR / 2) }, technician.signIn, technician.key);
      // Made before the change it stands under the role of then; without a time of its own it was made as it came.
      await expect(takeEntries(file.jobId, signed({ ...entry, id: uuid() }, technician.signIn, technician.key))).rejects.toThrow(
        NotSignedIn,
      );
      expect(readEntries(file.jobId)).toHaveLength(state.lastSeq);
      expect(await takeEntries(file.jobId, anew)).toMatchObject([{ role: "technician" }]);
    } finally {
      delete shared.pelotaThread;
    }
  });

  it("cannot be put before the end of its sign-in where it had seen what came after it", async () => {
    const { technician, lead } = shop;
    const jobId = job();
    clock(HOUR);
    await changePerson(technician.personId, { role: "apprentice" });
    clock(2 * HOUR);
    const [seen] = await takeEntries(jobId, made(lead, jobId, 2 * HOUR, { device: "phone" }));
    clock(3 * HOUR);
    const sign = { kind: "signed", body: { repair: uuid() } };
    const backdated = made(technician, jobId, 0, { ...sign, seenSeq: seen?.seq as number });
    await expect(takeEntries(jobId, backdated)).rejects.toThrow(NotSignedIn);
    const beyond = made(technician, jobId, 0, { ...sign, seenSeq: 999 });
    await expect(takeEntries(jobId, beyond)).rejects.toThrow(NotSignedIn);
    const behind = made(technician, jobId, 0, { ...sign, prior: seen?.id as string });
    await expect(takeEntries(jobId, behind)).rejects.toThrow(NotSignedIn);
  });

  it("on a device that was removed counts as far as it was made before, once a lead has looked through it", async () => {
    vi.stubEnv("PELOTA_GATE", "abc");
    enrol("Tablet 2");
    const { id } = listDevices().at(-1) as { id: string };
    const tobin = await inAs("Tobin Falk", id);
    const jobId = job();
    clock(2 * HOUR);
    putOut(id);
    clock(4 * HOUR);
    const both = [made(tobin, jobId, HOUR), made(tobin, jobId, 3 * HOUR)];
    for (const one of both) await expect(takeEntries(jobId, one)).rejects.toThrow(/device that was removed/);
    const file = parseQueueFile(JSON.stringify(toQueueFile(both, "tablet", iso(4 * HOUR))));
    const why = "Its device had been removed when this was made";
    expect(lookThrough(file)).toMatchObject([{ state: "fits" }, { state: "fits", why }]);
    expect(lookThrough(file)[0]).not.toHaveProperty("why");
    await takeIn(
      file,
      both.map((e) => e.id),
    );
    expect(readEntries(jobId).map((e) => e.history)).toEqual([undefined, undefined, why]);
  });

  it("under another passphrase counts as far as the device was seen under its own", async () => {
    vi.stubEnv("PELOTA_GATE", "abc");
    enrol("Tablet 2");
    const { id } = listDevices().at(-1) as { id: string };
    const tobin = await inAs("Tobin Falk", id);
    const jobId = job();
    clock(HOUR);
    vi.stubEnv("PELOTA_GATE", "another");
    expect(await takeEntries(jobId, made(tobin, jobId, 0))).toHaveLength(1);
    await expect(takeEntries(jobId, made(tobin, jobId, HOUR))).rejects.toThrow(NotSignedIn);
    expect(DEVICE_COOKIE).toBe("pelota_device");
  });
});

describe("what waited on a device as an older build made it", () => {
  /** Cut from the build before: who was signed in, an opening, and entries as they were kept and as they left a device as a file. */
  const older = JSON.parse(readFileSync("src/server/fixtures/queue-first-form.json", "utf8")) as {
    people: Record<string, string | null>[];
    signIns: Record<string, string | null>[];
    opening: Entry;
    kept: { entry: Entry }[];
    queue: unknown;
  };
  const restored = () => {
    for (const [table, rows] of [
      ["people", older.people],
      ["sign_ins", older.signIns],
    ] as const)
      for (const row of rows) {
        const keys = Object.keys(row);
        at.$client
          .prepare(`insert into ${table} (${keys.join(", ")}) values (${keys.map((k) => `@${k}`).join(", ")})`)
          .run({ ...row, ...(table === "people" ? { name: `${row.name} before` } : {}) });
      }
    vi.setSystemTime(Date.parse(older.opening.at as string) + HOUR);
  };

  it("goes up as it is: nothing is refused for its form", async () => {
    restored();
    takeOpening(older.opening);
    const { jobId } = older.opening;
    for (const { entry } of older.kept) await takeEntries(jobId, entry);
    const [, ...taken] = readEntries(jobId);
    expect(taken.map((e) => [e.kind, e.role, e.history])).toEqual([
      ["story", "technician", undefined],
      ["finding", "technician", undefined],
      ["note", "technician", undefined],
    ]);
    expect(readJob(jobId).findings).toHaveLength(1);
  });

  it("comes in from its file, as a lead looks through it", async () => {
    restored();
    takeOpening(older.opening);
    const file = parseQueueFile(JSON.stringify(older.queue));
    expect(lookThrough(file).map((q) => [q.state, q.why])).toEqual(Array(3).fill(["fits", undefined]));
    await takeIn(
      file,
      file.entries.map((e) => e.id),
    );
    expect(readEntries(older.opening.jobId)).toHaveLength(4);
  });
});
