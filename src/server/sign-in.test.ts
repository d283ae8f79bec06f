import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { BadInput } from "@/core/input";
import type { Bodies, Entry } from "@/core/journal";
import { parseQueueFile, toQueueFile } from "@/core/journal";
import { doorProof, type Role, SIGN_IN_HEADER, type SignedIn, signed } from "@/core/people";
import { DEFAULT_SHOP } from "@/core/shop/settings";
import { type Db, db } from "./db/open";
import { DEVICE_COOKIE, enrol, listDevices, putOut } from "./devices";
import { takeEntries } from "./entries-door";
import { firstStart } from "./first-start";
import { exportJob, importJob } from "./job-files";
import { openJob, readEntries, takeOpening } from "./jobs";
import { addPerson, changePerson, listPeople } from "./people";
import { playedBy } from "./practice";
import { lookThrough, takeIn } from "./queue";
import { Conflict, NotSignedIn, TooSoon } from "./refusals";
import { readSecurityLog } from "./security-log";
import { readShopVersion, writeShop } from "./shop";
import { allowed, changeOwnPin, signIn } from "./sign-in";

let folder: string;
let at: Db;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "pelota-people-"));
  vi.stubEnv("PELOTA_DATA", folder);
  at = db();
});
afterEach(() => {
  at.$client.close();
  vi.unstubAllEnvs();
  vi.useRealTimers();
  Reflect.deleteProperty(globalThis, "pelotaGuesses");
  rmSync(folder, { recursive: true, force: true });
});

const PIN = "2468";
const START = { shop: "Ferrowick Slip Garage", lead: { name: "Maren Oake", pin: PIN }, people: [] };
const idOf = (name: string) => listPeople(at).find((p) => p.name === name)?.id as string;

/** A shop with one of each, all signed in. */
async function shop(): Promise<Record<Role, SignedIn>> {
  const lead = await firstStart({
    ...START,
    people: [
      { name: "Tobin Falk", role: "technician", pin: PIN },
      { name: "Isla Renn", role: "apprentice", pin: PIN },
    ],
  });
  return {
    lead,
    technician: await signIn({ person: idOf("Tobin Falk"), pin: PIN }, ""),
    apprentice: await signIn({ person: idOf("Isla Renn"), pin: PIN }, ""),
  };
}

const proof = (who: SignedIn) => ({ headers: new Headers({ [SIGN_IN_HEADER]: doorProof(who.signIn, who.key) }) });
/** An entry as a device of an older build makes it, under a sign-in from then; what today's make is tried in admission.test. */
const by = (who: SignedIn, jobId: string, more: Partial<Entry> = {}): Entry => {
  at.$client.prepare("update sign_ins set form = 1 where id = ?").run(who.signIn);
  return signed(
    {
      id: uuid(),
      jobId,
      kind: "note",
      v: 1,
      at: new Date().toISOString(),
      by: who.name,
      device: "tablet",
      deviceSeq: 2,
      seenSeq: 0,
      body: { text: "Hisses at the brake booster" },
      ...more,
    } as Entry,
    who.signIn,
    who.key,
  );
};
function job(): string {
  const jobId = uuid();
  openJob({ id: uuid(), jobId, at: new Date().toISOString(), by: "Maren Oake", device: "tablet", deviceSeq: 1 });
  return jobId;
}

describe("a shop that has no lead yet", () => {
  it("takes names as they are given, and everybody may everything", async () => {
    const jobId = job();
    const { key: _, ...unsigned } = {
      ...by({ name: "Wren Alder", signIn: uuid(), key: "00".repeat(32) } as SignedIn, jobId),
      key: 1,
    };
    const [entry] = await takeEntries(jobId, unsigned);
    expect(entry).toMatchObject({ by: "Wren Alder" });
    expect(entry).not.toHaveProperty("role");
    expect(entry).not.toHaveProperty("signed");
    expect(allowed({ headers: new Headers() }, "manage-people")).toBeUndefined();
  });

  it("is described once, however many describe it at once, and keeps who was there by name", async () => {
    await addPerson({ name: "Maren Oake" });
    const before = idOf("Maren Oake");
    const both = await Promise.allSettled([firstStart(START), firstStart({ ...START, lead: { name: "Ivo Reed", pin: PIN } })]);
    expect(both.map((b) => b.status)).toEqual(["fulfilled", "rejected"]);
    expect(listPeople().map((p) => [p.name, p.role, p.hasPin])).toEqual([["Maren Oake", "lead", true]]);
    expect(idOf("Maren Oake")).toBe(before);
    expect(readShopVersion()).toMatchObject({ by: "Maren Oake", shop: { name: "Ferrowick Slip Garage" } });
  });

  it.each([
    ["no PIN", { ...START, lead: { name: "Maren Oake" } }],
    ["a PIN that is tried first", { ...START, lead: { name: "Maren Oake", pin: "1234" } }],
    ["no name", { ...START, lead: { name: " ", pin: PIN } }],
    ["no shop", { ...START, shop: "" }],
    ["a name twice", { ...START, people: [{ name: "maren oake ", role: "technician", pin: PIN }] }],
    ["a role that is none", { ...START, people: [{ name: "Ivo Reed", role: "boss", pin: PIN }] }],
    ["more than is asked", { ...START, admin: true }],
  ])("refuses %s, and nobody is there afterwards", async (_what, start) => {
    expect(() => firstStart(start)).toThrow(BadInput);
    expect(listPeople()).toEqual([]);
  });
});

describe("a PIN at the door", () => {
  it("lets in the person whose it is, and nobody else", async () => {
    const { lead } = await shop();
    expect(lead).toMatchObject({ name: "Maren Oake", role: "lead" });
    expect(allowed(proof(lead), "manage-people")).toMatchObject({ name: "Maren Oake", role: "lead" });
    await expect(signIn({ person: idOf("Tobin Falk"), pin: "1357" }, "")).rejects.toThrow(/not the PIN of Tobin Falk/);
    await expect(signIn({ person: uuid(), pin: PIN }, "")).rejects.toThrow(/Nobody of that name works here/);
    await expect(signIn({ person: idOf("Tobin Falk"), pin: "' or 1=1" }, "")).rejects.toThrow(/4 to 8 digits/);
    await addPerson({ name: "Ivo Reed" });
    await expect(signIn({ person: idOf("Ivo Reed"), pin: PIN }, "")).rejects.toThrow(/has no PIN yet/);
  });

  it("is guessed with waits that grow, and nobody's guesses keep its owner out where they were in before", async () => {
    vi.useFakeTimers({ toFake: ["Date"] });
    await shop();
    const tobin = idOf("Tobin Falk");
    const guess = (device: string) => signIn({ person: tobin, pin: "1357" }, device).catch((e: Error) => e);
    const waits: number[] = [];
    // On devices that he never used, however many: they wait together.
    for (let wrong = 0; wrong < 12; ) {
      const said = await guess(uuid());
      if (said instanceof TooSoon) {
        waits.push(said.wait);
        // A right one before the wait is over is not looked at either.
        await expect(signIn({ person: tobin, pin: PIN }, uuid())).rejects.toThrow(TooSoon);
        vi.setSystemTime(Date.now() + 1000 * said.wait);
      } else wrong++;
    }
    expect(waits).toEqual(waits.toSorted((a, b) => a - b));
    expect(waits.at(-1)).toBeGreaterThan(200);
    expect(await guess(uuid())).toBeInstanceOf(TooSoon);
    expect(await signIn({ person: tobin, pin: PIN }, "")).toMatchObject({ name: "Tobin Falk" });
    await signIn({ person: idOf("Isla Renn"), pin: PIN }, "");
    // Every wrong one that was looked at is in the log, which nobody writes over.
    const log = readSecurityLog().filter((l) => l.what === "wrong-pin");
    expect(log).toHaveLength(12);
    expect(log[0]).toMatchObject({ who: "Tobin Falk" });
    for (const change of ["update security_log set who = ''", "delete from security_log"])
      expect(() => at.$client.exec(change)).toThrow(/only ever appended to/);
  });

  it("made by a clock that ran wild opens no door once it is set right", async () => {
    vi.useFakeTimers({ toFake: ["Date"], now: Date.parse("2026-03-02T08:00:00Z") });
    const { lead } = await shop();
    expect(allowed(proof(lead), "record")).toMatchObject({ name: "Maren Oake" });
    vi.setSystemTime(Date.parse("2066-03-02T08:00:00Z"));
    const wild = await signIn({ person: lead.personId, pin: PIN }, "");
    vi.setSystemTime(Date.parse("2026-03-02T09:00:00Z"));
    expect(() => allowed(proof(wild), "record")).toThrow(NotSignedIn);
    expect(allowed(proof(lead), "record")).toMatchObject({ name: "Maren Oake" });
  });

  it("is changed by whoever knows the old one; what was open under it opens no door any more", async () => {
    const { technician } = await shop();
    await expect(changeOwnPin({ person: technician.personId, pin: "1357", newPin: "8642" }, "")).rejects.toThrow(/not the PIN/);
    await expect(changeOwnPin({ person: technician.personId, pin: PIN, newPin: "1111" }, "")).rejects.toThrow(
      /first that anybody tries/,
    );
    await changeOwnPin({ person: technician.personId, pin: PIN, newPin: "8642" }, "");
    expect(() => allowed(proof(technician), "record")).toThrow(NotSignedIn);
    expect(await signIn({ person: technician.personId, pin: "8642" }, "")).toMatchObject({ name: "Tobin Falk" });
  });

  it("leaves the shop with a lead, whatever is changed", async () => {
    const { lead } = await shop();
    for (const change of [{ role: "technician" }, { left: true }])
      await expect(changePerson(lead.personId, change)).rejects.toThrow(/keeps one lead/);
    await changePerson(idOf("Tobin Falk"), { role: "lead" });
    expect(await changePerson(lead.personId, { role: "technician" })).toMatchObject({ role: "technician" });
    await expect(changePerson(idOf("Tobin Falk"), { left: true })).rejects.toThrow(/keeps one lead/);
  });
});

describe("a door for what not everybody may", () => {
  it("knows who stands there by the proof alone", async () => {
    const { lead, apprentice } = await shop();
    expect(() => allowed({ headers: new Headers() }, "record")).toThrow(NotSignedIn);
    expect(() => allowed(proof({ ...lead, key: apprentice.key }), "record")).toThrow(NotSignedIn);
    expect(() => allowed(proof({ ...lead, signIn: uuid() }), "record")).toThrow(NotSignedIn);
    expect(() => allowed(proof(apprentice), "erase-customer")).toThrow(/Only a lead erases a customer/);
    vi.useFakeTimers({ toFake: ["Date"], now: Date.now() + 8 * 24 * 3600_000 });
    expect(() => allowed(proof(lead), "record")).toThrow(NotSignedIn);
  });

  it("takes limits, methods and calibration from a lead alone, gauges from a technician too", async () => {
    const { lead, technician, apprentice } = await shop();
    const { version, shop: before } = readShopVersion();
    const limits = { ...before.limits, trimAct: { value: 0.2, source: "Maren Oake" } };
    const instruments = [{ id: "g", name: "Gauge", division: { value: 1, unit: "inHg" } }];
    const save = (who: SignedIn, change: object, base = version) =>
      writeShop({ base, by: "Somebody", shop: { ...before, ...change } }, at, allowed(proof(who), "record"));
    for (const who of [technician, apprentice]) expect(() => save(who, { limits })).toThrow(/Only a lead changes limits/);
    expect(() => save(apprentice, { instruments })).toThrow(/Only a technician or a lead/);
    expect(save(technician, { instruments })).toMatchObject({ by: "Tobin Falk" });
    expect(save(lead, { limits, instruments }, version + 1)).toMatchObject({ by: "Maren Oake" });
    expect(readShopVersion().shop.limits.trimAct.value).toBe(0.2);
    expect(DEFAULT_SHOP.limits.trimAct.value).not.toBe(0.2);
  });
});

describe("what somebody made", () => {
  it("carries the name and role of the sign-in, whatever name was written on it", async () => {
    const { technician, apprentice } = await shop();
    const jobId = job();
    const forged = by(apprentice, jobId, { by: "Maren Oake" });
    const [entry] = await takeEntries(jobId, forged);
    expect(entry).toMatchObject({ by: "Isla Renn", role: "apprentice", signed: { signIn: apprentice.signIn } });
    const opening = { id: uuid(), jobId: uuid(), at: new Date().toISOString(), by: "Maren Oake", device: "tablet", deviceSeq: 9 };
    takeOpening(signed(opening, technician.signIn, technician.key));
    expect(readEntries(opening.jobId)[0]).toMatchObject({ by: "Tobin Falk", role: "technician", kind: "opened" });
    expect(() => takeOpening({ ...opening, jobId: uuid() })).toThrow(NotSignedIn);
  });

  it("stays whose it is when it comes late and another is signed in", async () => {
    const { technician, apprentice } = await shop();
    const jobId = job();
    const [his, hers] = [by(technician, jobId), by(apprentice, jobId)];
    const recorded = await takeEntries(jobId, [hers, his]);
    expect(recorded.map((e) => e.by)).toEqual(["Isla Renn", "Tobin Falk"]);
    // Sent once more, even after its author has left: recorded already, so nothing is asked of it.
    await changePerson(technician.personId, { left: true });
    expect(await takeEntries(jobId, [hers, his])).toEqual(recorded);
  });

  it("is not taken unsigned, under a sign-in that is not known, changed on its way, or under another's", async () => {
    const { lead, apprentice } = await shop();
    const jobId = job();
    const good = by(apprentice, jobId);
    const { signed: mine, ...unsigned } = good;
    const refused = (entry: object) => expect(takeEntries(jobId, entry)).rejects;
    await refused(unsigned).toThrow(NotSignedIn);
    await refused({ ...good, signed: { ...mine, signIn: uuid() } }).toThrow(NotSignedIn);
    await refused({ ...good, signed: { ...mine, signIn: lead.signIn } }).toThrow(BadInput);
    await refused({ ...good, body: { text: "Does not hiss" } }).toThrow(/changed it on its way/);
    await refused({ ...good, at: "2026-01-01T00:00:00Z" }).toThrow(BadInput);
    await refused({ ...good, id: uuid() }).toThrow(BadInput);
    await refused({ ...good, role: "lead" }).toThrow(BadInput);
    await refused([good, unsigned]).toThrow(NotSignedIn);
    expect(readEntries(jobId)).toHaveLength(1);
  });

  it("is refused where its author's role may not make it", async () => {
    const { lead, technician, apprentice } = await shop();
    const jobId = job();
    const signature = (who: SignedIn) => by(who, jobId, { kind: "signed", body: { repair: uuid() } });
    const countersign = (who: SignedIn) =>
      by(who, jobId, { kind: "countersigned", body: { close: uuid(), decidedOn: 1, sentBack: "Not yet" } });
    const handover = { decidedOn: 1, conditional: true, summary: "Drive it" } satisfies Bodies["handover"];
    await expect(takeEntries(jobId, signature(apprentice))).rejects.toThrow(/Only a technician or a lead signs a repair/);
    for (const who of [apprentice, technician]) {
      await expect(takeEntries(jobId, countersign(who))).rejects.toThrow(/Only a lead countersigns/);
      await expect(takeEntries(jobId, by(who, jobId, { kind: "handover", body: handover }))).rejects.toThrow(
        /Only a lead signs a conditional handover/,
      );
    }
    await takeEntries(jobId, signature(technician));
    await takeEntries(jobId, countersign(lead));
    expect(readEntries(jobId)).toHaveLength(3);
  });

  it("is taken under the role it was made under; what was made after that ended, under the one that holds since", async () => {
    const { technician } = await shop();
    const jobId = job();
    const before = by(technician, jobId);
    await new Promise((done) => setTimeout(done, 5));
    await changePerson(technician.personId, { role: "apprentice" });
    await new Promise((done) => setTimeout(done, 5));
    const after = by(technician, jobId);
    const recorded = await takeEntries(jobId, [before, after]);
    expect(recorded.map((e) => e.role)).toEqual(["technician", "apprentice"]);
    await expect(takeEntries(jobId, by(technician, jobId, { kind: "signed", body: { repair: uuid() } }))).rejects.toThrow(
      BadInput,
    );
    await changePerson(technician.personId, { left: true });
    await new Promise((done) => setTimeout(done, 5));
    await expect(takeEntries(jobId, by(technician, jobId))).rejects.toThrow(/has left the shop/);
  });

  it("asks for a new signature where the sign-in is older than a device may let anybody in by itself", async () => {
    const { technician } = await shop();
    const jobId = job();
    const late = by(technician, jobId, { at: new Date(Date.now() + 9 * 24 * 3600_000).toISOString() });
    await expect(takeEntries(jobId, late)).rejects.toThrow(/signed in more than 7 days before this/);
  });

  it("countersigns only what is asked and holds", async () => {
    const { lead } = await shop();
    const jobId = job();
    const countersign = (decidedOn: number) => by(lead, jobId, { kind: "countersigned", body: { close: uuid(), decidedOn } });
    await expect(takeEntries(jobId, countersign(0))).rejects.toThrow(Conflict);
    await expect(takeEntries(jobId, countersign(1))).rejects.toThrow(/Nobody asks to close this job/);
  });

  it("comes in with a file only as it was signed", async () => {
    const { technician } = await shop();
    const jobId = job();
    await takeEntries(jobId, by(technician, jobId));
    const file = exportJob(jobId);
    expect(importJob(file)).toMatchObject({ added: 0 });
    const [, mine] = file.entries;
    const slipped = { ...(mine as (typeof file.entries)[number]), id: uuid(), seq: 3 };
    const withOne = (entry: object) => ({ ...file, entries: [...file.entries, entry as (typeof file.entries)[number]] });
    expect(() => importJob(withOne(slipped))).toThrow(/is not as Tobin Falk signed it/);
    const { signed: _, ...bare } = slipped;
    expect(() => importJob(withOne({ ...bare, by: "Maren Oake", role: "lead" }))).toThrow(/Nobody can tell that entry number 3/);
    expect(readEntries(jobId)).toHaveLength(2);
  });
});

describe("practice", () => {
  it("is seen by who played it, and by a lead", async () => {
    const { lead, technician, apprentice } = await shop();
    const play = (who: SignedIn) => {
      const jobId = uuid();
      const opening = { id: uuid(), jobId, at: new Date().toISOString(), by: who.name, device: "tablet", deviceSeq: 1 };
      takeOpening(signed({ ...opening, practice: "3008-BFY0-0000-006" }, who.signIn, who.key));
    };
    for (const who of [technician, apprentice]) play(who);
    const seen = (who: SignedIn) => playedBy(allowed(proof(who), "record")).map((p) => p.by);
    expect(seen(apprentice)).toEqual(["Isla Renn"]);
    expect(seen(technician)).toEqual(["Tobin Falk"]);
    expect(seen(lead).toSorted()).toEqual(["Isla Renn", "Tobin Falk"]);
  });
});

describe("a device that is put out", () => {
  /** Somebody signed in on a tablet that was let in; what they made while it lay in a van. */
  async function away() {
    vi.stubEnv("PELOTA_GATE", "abc");
    const { lead } = await shop();
    const cookie = `${DEVICE_COOKIE}=${enrol("Tablet 2")}`;
    const { id } = listDevices().at(-1) as { id: string };
    const tobin = await signIn({ person: idOf("Tobin Falk"), pin: PIN }, id);
    const jobId = job();
    return {
      cookie,
      lead,
      id,
      tobin,
      jobId,
      made: [by(tobin, jobId), by(tobin, jobId, { deviceSeq: 3, body: { text: "And whistles" } })],
    };
  }
  const fileOf = (entries: readonly Entry[]) =>
    parseQueueFile(JSON.stringify(toQueueFile(entries, "tablet", new Date().toISOString())));

  it("opens no door, and nothing made on it goes up by itself, by whatever device it is carried", async () => {
    const { id, cookie, tobin, jobId, made } = await away();
    const there = { headers: new Headers({ ...Object.fromEntries(proof(tobin).headers), cookie }) };
    expect(allowed(there, "record")).toMatchObject({ name: "Tobin Falk" });
    // A proof opens doors on its own device alone: on no other of the shop, nor on the shop's own machine.
    const other = `${DEVICE_COOKIE}=${enrol("Tablet 3")}`;
    for (const elsewhere of [{}, { cookie: other }] as Record<string, string>[])
      expect(() =>
        allowed({ headers: new Headers({ ...Object.fromEntries(proof(tobin).headers), ...elsewhere }) }, "record"),
      ).toThrow(NotSignedIn);
    putOut(id);
    expect(() => allowed(there, "record")).toThrow(NotSignedIn);
    await expect(takeEntries(jobId, made[0])).rejects.toThrow(/made on a device that was removed/);
    expect(listDevices()).toMatchObject([
      { name: "Tablet 2", out: true },
      { name: "Tablet 3", out: false },
    ]);
    expect(() => putOut(uuid())).toThrow(/no such device/i);
  });

  it("leaves what waited as a file that a lead looks through and takes in, each entry once and under its author", async () => {
    const { id, jobId, made } = await away();
    putOut(id);
    const file = fileOf(made.toReversed());
    expect(lookThrough(file)).toMatchObject([
      { by: "Tobin Falk", state: "fits", kind: "note" },
      { by: "Tobin Falk", state: "fits" },
    ]);
    expect(readEntries(jobId)).toHaveLength(1);
    await takeIn(file, [made[0]?.id as string]);
    expect(
      await takeIn(
        file,
        made.map((e) => e.id),
      ),
    ).toMatchObject([{ state: "here-already" }, { state: "here-already" }]);
    const [, ...taken] = readEntries(jobId);
    expect(taken.map((e) => [e.by, e.role, (e.body as { text: string }).text])).toEqual([
      ["Tobin Falk", "technician", "Hisses at the brake booster"],
      ["Tobin Falk", "technician", "And whistles"],
    ]);
  });

  it("cannot have its file changed on the way, nor bring what is nobody's", async () => {
    const { id, lead, jobId, made } = await away();
    putOut(id);
    const [first, second] = made as [Entry, Entry];
    const { signed: _, ...bare } = second;
    const file = fileOf([{ ...first, body: { text: "Does not hiss" } }, { ...bare, by: lead.name }, by(lead, uuid())]);
    const seen = lookThrough(file);
    expect(seen.map((q) => q.state)).toEqual(["refused", "refused", "refused"]);
    expect(seen.map((q) => q.why).join()).toMatch(/changed it on its way.*[Nn]o such job.*not signed this in/);
    expect(
      (
        await takeIn(
          file,
          file.entries.map((e) => e.id),
        )
      ).map((q) => q.state),
    ).toEqual(["refused", "refused", "refused"]);
    expect(readEntries(jobId)).toHaveLength(1);
  });

  it.each([
    ["cut off", (text: string) => text.slice(0, 80)],
    ["another format", () => '{"format":"pelota-job"}'],
    ["a newer version", (text: string) => text.replace('"version":1', '"version":2')],
    ["an entry twice", (text: string) => text.replace(/"entries":\[(.*)\]}$/, '"entries":[$1,$1]}')],
    ["a broken entry", (text: string) => text.replace('"kind":"note"', '"kind":"hologram"')],
    ["nothing in it", (text: string) => text.replace(/"entries":\[.*\]}$/, '"entries":[]}')],
  ])("refuses a file with %s", async (_what, broken) => {
    const { tobin, jobId } = await away();
    const text = JSON.stringify(toQueueFile([by(tobin, jobId)], "tablet", new Date().toISOString()));
    expect(() => parseQueueFile(text)).not.toThrow();
    expect(() => parseQueueFile(broken(text))).toThrow(BadInput);
  });

  it("is out too under another passphrase, and when nobody has seen it for a quarter; what waits then goes up once it is in again", async () => {
    const { tobin, jobId, made } = await away();
    vi.stubEnv("PELOTA_GATE", "another");
    expect(listDevices()).toMatchObject([{ out: true }]);
    expect(await takeEntries(jobId, made)).toHaveLength(2);
    expect(tobin.name).toBe("Tobin Falk");
    vi.stubEnv("PELOTA_GATE", "abc");
    vi.useFakeTimers({ toFake: ["Date"], now: Date.now() + 91 * 24 * 3600_000 });
    expect(listDevices()).toMatchObject([{ out: true }]);
  });
});
