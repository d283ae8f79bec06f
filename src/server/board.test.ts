import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v5 as namedUuid } from "uuid";
import { afterAll, describe, expect, it } from "vitest";
import { NATURAL } from "@/core/core.fixture";
import type { Bodies, EntryKind } from "@/core/journal";
import { boardPage, PAGE, refreshStale } from "./board";
import { carsLike, carsOfVin, knownCar, visitsOf } from "./cars";
import { openDb } from "./db/open";
import { appendEntries, openJob } from "./jobs";
import { addPerson } from "./people";

const folder = mkdtempSync(join(tmpdir(), "pelota-board-"));
const db = openDb(folder);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const SPACE = "6ba7b811-9dad-11d1-80b4-00c04fd430c8";
const NOW = Date.parse("2026-06-10T12:00:00Z");
const daysAgo = (days: number) => new Date(NOW - days * 24 * 3600_000).toISOString();
let made = 0;
const entry = (jobId: string, i: number, by = "Maren Oake", at = daysAgo(0)) => ({
  id: namedUuid(`${jobId} ${i}`, SPACE),
  jobId,
  at,
  by,
  device: "tablet",
  deviceSeq: i,
});
function job(by: string, days: number, ...bodies: { [K in EntryKind]?: Bodies[K] }[]): string {
  const n = ++made;
  const jobId = namedUuid(`job ${n}`, SPACE);
  const at = daysAgo(days);
  const line = (i: number) => ({ id: namedUuid(`job ${n} ${i}`, SPACE), jobId, at, by, device: `tablet ${n}`, deviceSeq: i });
  openJob(line(0), db);
  const all = [{ vehicle: NATURAL }, ...bodies].flatMap((body) => Object.entries(body));
  appendEntries(
    jobId,
    all.map(([kind, body], i) => ({ ...line(i + 1), kind, v: kind === "repair" ? 2 : 1, seenSeq: 1, body })),
    db,
  );
  return jobId;
}
for (const name of ["Maren Oake", "Tobin Falk"]) await addPerson({ name }, db);
const code = (name: string): { codes: Bodies["codes"] } => ({ codes: { codes: [{ code: name, status: "stored" }] } });
const many = Array.from({ length: 205 }, (_, i) => job("Maren Oake", 1 + i / 1000));
const cooling = job("Tobin Falk", 9, code("P0442"), { waiting: { on: "cold-soak" } });
const taped = job("Tobin Falk", 40, {
  repair: {
    what: "taped",
    permanence: "temporary",
    recheck: "2099-06-09",
    limit: "a week",
    labourMinutes: 5,
    parts: [],
    otherChanges: [],
    places: ["manifold-gasket"],
  },
});
refreshStale(db);
const page = (filter: Parameters<typeof boardPage>[0], n = 1) => boardPage(filter, n, db, NOW);
const ids = (filter: Parameters<typeof boardPage>[0]) => page(filter).jobs.map((j) => j.id);

describe("the board", () => {
  it("shows every job on some page, once, lane after lane, and counts them all on each", () => {
    const pages = Array.from({ length: page({}).pages }, (_, i) => page({}, i + 1));
    const all = pages.flatMap((p) => p.jobs.map((j) => j.id));
    expect(all.toSorted()).toEqual([...many, cooling, taped].toSorted());
    expect(pages.every((p) => p.total === 207 && p.counts.me === 206 && p.counts["cold-soak"] === 1)).toBe(true);
    expect(pages.map((p) => p.jobs.length)).toEqual([PAGE, PAGE, PAGE, PAGE, 7]);
    expect(all.at(-1)).toBe(cooling);
  });

  it("answers a page that is none with one that is", () => {
    expect(page({}, 99).page).toBe(5);
    for (const none of [0, -3, Number.NaN, 1.7]) expect(page({}, none).page).toBe(1);
    expect(page({ search: "nothing like it" })).toMatchObject({ total: 0, page: 1, pages: 1, jobs: [] });
  });

  it("finds by what is waited for, who wrote last, the kind of fault, quiet days and what is due", () => {
    expect(ids({ waitingOn: "cold-soak" })).toEqual([cooling]);
    expect(ids({ person: "Tobin Falk" })).toEqual([taped, cooling]);
    expect(ids({ family: "evap" })).toEqual([cooling]);
    expect(ids({ quietDays: 7 })).toEqual([taped, cooling]);
    expect(ids({ quietDays: 30 })).toEqual([taped]);
    expect(ids({ recheckBy: "2099-06-10" })).toEqual([taped]);
    expect(ids({ recheckBy: "2099-06-08" })).toEqual([]);
    expect(ids({ waitingOn: "' or 1=1 --", family: "%" })).toEqual([]);
  });

  it("finds every word, however short, wherever it stands and however it is written, also once it has changed", () => {
    const odd = job(
      "Maren Oake",
      2,
      code("P0171"),
      { vehicle: { ...NATURAL, make: "Ondrell", model: 'Petrel "GT" 50%', registration: "ÆF 77-Q_R" } },
      { story: { complaint: "Pfeift, ruckelt: Öl und Über­druck? (100%)", symptoms: [], verified: "seen" } },
    );
    refreshStale(db);
    const number = String(page({ search: "77-Q_R" }).jobs[0]?.number);
    for (const search of [
      "petrel 77-q",
      "PETREL ruck",
      '"GT"',
      '"gt',
      "æf 77",
      "öl",
      "über",
      "kelt: öl",
      "(100%)",
      "0%)",
      "P017",
      "p0171 feift",
      number,
      `${number} petrel`,
      "  petrel\n77-Q_R  ",
    ])
      expect([search, ids({ search })]).toEqual([search, expect.arrayContaining([odd])]);
    for (const search of [
      "petrel nothing",
      "GT*",
      "vehicle:petrel",
      "petrel OR nothing",
      "NOT nothing",
      "{vehicle}: petrel",
      "^petrel",
      "%%%",
      "___",
      "77_Q",
      '"""',
      "a AND b NEAR(c)",
      "' or 1=1 --",
      "howl\u0000",
    ])
      expect([search, ids({ search })]).toEqual([search, []]);
    // What it no longer says is no longer found.
    appendEntries(
      odd,
      { ...entry(odd, 9), kind: "story", v: 1, seenSeq: 4, body: { complaint: "Howls", symptoms: [], verified: "seen" } },
      db,
    );
    refreshStale(db);
    expect(ids({ search: "ruckelt" })).toEqual([]);
    expect(ids({ search: "howls" })).toEqual([odd]);
    db.$client.prepare("insert into job_search(job_search, rank) values ('integrity-check', 1)").run();
    db.$client.prepare("update jobs set practice = 'x' where id = ?").run(odd);
  });

  it("knows a car that was here before however its registration is typed, and none by a stump or in practice", () => {
    const here = job(
      "Maren Oake",
      3,
      { vehicle: { ...NATURAL, registration: "FW 88-MOR" } },
      { story: { complaint: "Hiss", symptoms: [], verified: "seen" } },
    );
    const again = job("Tobin Falk", 1, { vehicle: { ...NATURAL, registration: "fw88mor" } });
    refreshStale(db);
    for (const typed of ["FW 88 MOR", "fw88mor", " FW-88.MOR "])
      expect(visitsOf(typed, db).map((v) => v.id)).toEqual([again, here]);
    expect(visitsOf("FW 88 MOR", db)[1]).toMatchObject({ complaint: "Hiss", status: "open" });
    for (const typed of ["FW", "", "--- .", "FW 88 MO", "%", "FW 88 MOR1", "' or 1=1"]) expect(visitsOf(typed, db)).toEqual([]);
    db.$client.prepare("update jobs set practice = 'x' where id = ?").run(again);
    expect(visitsOf("FW 88 MOR", db).map((v) => v.id)).toEqual([here]);
    for (const id of [here, again]) db.$client.prepare("update jobs set registration = '', practice = 'x' where id = ?").run(id);
  });

  it("hands on what a car is, and nothing that was its own or is read anew", () => {
    const limits = { idleAir: { value: 0.004, source: "maker's figure, entered by Maren Oake" } };
    const own = {
      registration: "FW 17 OWN",
      vin: "4ZZPT2B00E1000123",
      odometer: { value: 84200, unit: "km" as const },
      tapped: ["manifold" as const],
    };
    const kind = { ...NATURAL, make: "Ondrell", model: "Lärk_1.4", year: 2016, limits };
    const older = job("Maren Oake", 9, { vehicle: { ...kind, fitted: ["evap"] } });
    const newer = job("Maren Oake", 2, { vehicle: { ...kind, ...own, fitted: ["evap", "pcv"] } });
    refreshStale(db);
    expect(knownCar("fw17own", db)).toMatchObject({
      visits: [{ id: newer }],
      facts: { vin: own.vin, tapped: ["manifold"], limits },
    });
    expect(knownCar("fw17own", db).facts).not.toHaveProperty("odometer");
    const [found, ...others] = carsLike("rk_1", db);
    expect(others).toEqual([]);
    expect(found).toMatchObject({ job: newer, facts: { fitted: ["evap", "pcv"], limits, year: 2016 } });
    for (const name of Object.keys(own)) expect(found?.facts).not.toHaveProperty(name);
    // The VIN is the car, whatever its registration; cars alike in maker and kind are offered, without what is their own.
    const byVin = carsOfVin(" 4zzpt2b00e1000123", db);
    expect(byVin.car).toMatchObject({ visits: [{ id: newer }], facts: { registration: own.registration } });
    expect(byVin.car?.facts).not.toHaveProperty("odometer");
    const alike = carsOfVin("4ZZPT2B05G1000777", db);
    expect(alike.car).toBeUndefined();
    expect(alike.like).toMatchObject([{ job: newer, facts: { limits } }]);
    for (const name of Object.keys(own)) expect(alike.like[0]?.facts).not.toHaveProperty(name);
    for (const typed of ["4ZZPT2B0", "4ZZPT2B__00000000", "4ZZPT2C00E1000123", "", "%%%%%%%%%%%%%%%%%"])
      expect(carsOfVin(typed, db)).toEqual({ like: [] });
    // A VIN that was typed wrong and corrected since is the car's no more.
    const corrected = job(
      "Maren Oake",
      1,
      { vehicle: { ...kind, vin: "XZMXSTAK0GZ000999" } },
      { vehicle: { ...kind, vin: "XZBTHERX0GZ000999" } },
    );
    refreshStale(db);
    expect(carsOfVin("XZMXSTAK0GZ000999", db)).toEqual({ like: [] });
    expect(carsOfVin("XZBTHERX0GZ000999", db).car?.visits).toMatchObject([{ id: corrected }]);
    db.$client.prepare("update jobs set practice = 'x' where id = ?").run(corrected);
    for (const typed of ["L", "", " ", "%%", "__", "rk%1"]) expect(carsLike(typed, db)).toEqual([]);
    db.$client.prepare("update jobs set registration = '', practice = 'x' where id in (?, ?)").run(older, newer);
    expect(carsLike("rk_1", db)).toEqual([]);
    expect(carsOfVin("XZBTHERX0GZ000999", db)).toEqual({ like: [] });
    expect(carsOfVin(own.vin, db)).toEqual({ like: [] });
  });
});
