import { describe, expect, it } from "vitest";
import { judgeCheck } from "../checks";
import { valve as valveRecord } from "../checks/records.fixture";
import type { Family } from "../faults";
import { SHOP, Writer } from "../journal/journal.fixture";
import { seededNoise } from "../maths/random";
import { ANSWERS } from "./answers";
import { bayAhead, hintStands, inBayTime } from "./bay-entries";
import { arrivalCodes, caseOf, type PracticeCase, playableCauses } from "./case";
import { debriefOf } from "./debrief";
import { READERS } from "./readers";
import { vehicleFor } from "./vehicles";
import { stillThere, worldOf } from "./world";

/** A case of a family with this fault, composed. */
function caseWith(family: Family, id: string): PracticeCase {
  for (let vehicle = 0; vehicle < 60; vehicle++) {
    const cause = playableCauses(vehicleFor(family, seededNoise(vehicle)), family).findIndex((c) => c.id === id);
    if (cause >= 0) return caseOf({ family, vehicle, faults: [{ cause, size: 5 / 7 }], symptoms: 0, misleads: false });
  }
  throw new Error(`No car of ${family} has ${id}`);
}

/** A bay with its case, written line by line. */
function bay(family: Family, id: string) {
  const given = caseWith(family, id);
  const job = new Writer();
  job.add("opened", { number: 1, practice: given.code });
  job.add("vehicle", given.facts);
  job.add("story", given.story);
  job.add("codes", { codes: arrivalCodes(given) });
  return {
    given,
    job,
    now: () => worldOf(given, job.entries),
    read(check: keyof typeof READERS, setup = {}) {
      const world = worldOf(given, job.entries);
      const record = READERS[check]?.({ car: world.car, noise: seededNoise(job.entries.length) }, setup) as object;
      job.add("check", { check, record });
      return judgeCheck(check, record, world.car.context);
    },
    repair(place: string, more = {}) {
      job.add("repair", {
        what: `Renewed at ${place}`,
        permanence: "permanent",
        places: [place],
        labourMinutes: 10,
        parts: [],
        otherChanges: [],
        ...more,
      });
    },
    drive(minutes = 30) {
      job.add("drive", { ...ANSWERS.drive(worldOf(given, job.entries)), minutes });
    },
    codes: () => ANSWERS.codes(worldOf(given, job.entries), given).codes.map((c) => `${c.code} ${c.status}`),
    debrief: () => debriefOf(given, job.entries, SHOP),
  };
}

describe("a practice bay", () => {
  it("is cured by work at the place that is at fault, and by no other", () => {
    const b = bay("evap", "tank-line");
    b.repair("canister-joint");
    expect(stillThere(b.now()).map((f) => f.cause.id)).toEqual(["tank-line"]);
    const wasted = b.now();
    expect(wasted.steps.at(-1)?.mishap).toMatch(/sound/);
    b.repair("tank-line", { permanence: "bypass" });
    expect(stillThere(b.now())).toHaveLength(1);
    b.repair("tank-line");
    expect(stillThere(b.now())).toEqual([]);
    expect(b.now().money).toBeGreaterThan(wasted.money);
    expect(b.debrief()).toMatchObject({ won: true, comeback: false });
    const [last] = b.job.entries.slice(-1);
    b.job.add("undone", { repair: last?.id as string });
    expect(stillThere(b.now())).toHaveLength(1);
  });

  it("keeps a dead wire dead when the valve on it is renewed", () => {
    const b = bay("evap", "purge-circuit");
    b.repair("purge-valve");
    expect(stillThere(b.now())).toHaveLength(1);
    b.repair("purge-circuit");
    expect(stillThere(b.now())).toEqual([]);
  });

  it("goes quiet when a cap is tightened first, reads tight, is driven clean, and comes back within the week", () => {
    const b = bay("evap", "filler-cap");
    expect(b.read("cap").outcome).toBe("fail");
    b.job.add("bay", { act: "tighten", joint: "filler-cap" });
    expect(b.read("cap").outcome).toBe("pass");
    b.job.add("codes-cleared", {});
    b.drive();
    b.drive();
    expect(b.codes()).toEqual([]);
    b.job.add("bay", { act: "end" });
    expect(b.debrief()).toMatchObject({ won: false, comeback: true, better: expect.stringMatching(/tightened first/) });
  });

  it("does not quieten what no hand can tighten", () => {
    const b = bay("evap", "tank-line");
    b.job.add("bay", { act: "tighten", joint: "tank-line" });
    expect(b.now().car.faults).toHaveLength(1);
  });

  it("stores codes as an ECU does: pending on one drive, stored on the next, none once it is cured", () => {
    const b = bay("evap", "tank-line");
    expect(b.codes()).toEqual(["P0442 stored"]);
    b.job.add("codes-cleared", {});
    // What was stored is permanent until its monitor has run and found nothing.
    expect(b.codes()).toEqual(["P0442 permanent"]);
    b.drive(5);
    expect(b.codes()).toEqual(["P0442 permanent"]);
    b.drive();
    expect(b.codes()).toEqual(["P0442 pending"]);
    b.drive();
    expect(b.codes()).toEqual(["P0442 stored"]);
    b.repair("tank-line");
    b.job.add("codes-cleared", {});
    b.drive();
    b.drive();
    expect(b.codes()).toEqual([]);
    expect(ANSWERS["complaint-tried"](b.now()).result).toBe("gone");
    expect(ANSWERS.monitor(b.now()).result).toBe("passed");
  });

  it("answers wrong moves: 12 V into a plugged ECU, more pressure than parts bear", () => {
    const b = bay("evap", "purge-stuck");
    b.job.add("check", { check: "valve", record: { ...valveRecord, joint: "purge-valve", power: "12v", unplugged: false } });
    expect(b.now().steps.at(-1)).toMatchObject({ mishap: expect.stringMatching(/12 V/) });
    expect(b.now().money).toBeGreaterThan(380);
    expect(b.now().car.faults.map((f) => f.cause.id)).toContain("purge-circuit");

    const boost = bay("boost", "hot-pipe-clamp");
    const record = READERS["pressure-test"]?.({ car: boost.given.car, noise: seededNoise(1) }, { entry: "cooler-inlet" }) as {
      steps: object[];
    };
    const bar = (value: number) => ({ value, unit: "bar", kind: "gauge" });
    boost.job.add("check", {
      check: "pressure-test",
      record: {
        ...record,
        maxBoost: bar(0.8),
        ratings: { tool: bar(4) },
        steps: [{ pressure: bar(0.5) }, { pressure: bar(2.4) }],
      },
    });
    expect(boost.now().broken.map((f) => f.cause.id)).toEqual(["cooler-tank"]);
    expect(boost.debrief().mishaps).toHaveLength(1);
    // What was broken is part of what has to be mended.
    boost.repair("hot-pipe-clamp");
    expect(boost.debrief().won).toBe(false);
    boost.repair("cooler-tank");
    expect(boost.debrief().won).toBe(true);
  });

  it("cools down over a wait that is paid for, and its clock runs ahead by it", () => {
    const b = bay("secondary-air", "air-hose-joint");
    b.drive();
    expect(b.now().engine).toBe("warm");
    expect(ANSWERS.drive(b.now()).coldStart).toBeUndefined();
    b.job.add("bay", { act: "wait", minutes: 720 });
    expect(b.now().engine).toBe("cold");
    expect(ANSWERS.drive(b.now()).coldStart).toBe(true);
    // Written as lasting: what comes next comes after it, whatever the wall's clock says.
    const written = b.job.entries.map((e, i, all) =>
      i === all.length - 1
        ? { ...e, at: { from: e.at as string, to: new Date(Date.parse(e.at as string) + 720 * 60_000).toISOString() } }
        : e,
    );
    const wall = Date.parse(written.at(-1)?.recordedAt as string);
    expect(bayAhead(written, wall)).toBeGreaterThanOrEqual(720 * 60_000);
    expect(bayAhead(written, wall + 2 * 24 * 3600_000)).toBe(0);
    expect(b.now().steps.at(-1)?.money).toBeGreaterThan(0);
  });

  it("opens a hint until something is read, at its price", () => {
    const b = bay("egr", "egr-blocked");
    expect(hintStands(b.job.entries)).toBe(false);
    const before = b.now().money;
    b.job.add("bay", { act: "hint" });
    expect(b.now().hints).toBe(1);
    expect(hintStands(b.job.entries)).toBe(true);
    expect(b.now().money).toBeGreaterThan(before);
    b.read("egr", { joint: "egr-valve" });
    expect(hintStands(b.job.entries)).toBe(false);
  });

  it("tells the path against the best: bits, minutes, what was void, which cautions were skipped", () => {
    const b = bay("egr", "egr-blocked");
    b.read("look");
    b.read("egr", { joint: "egr-valve" });
    const { path, cautionsSkipped, faults } = b.debrief();
    expect(path.map((p) => p.check)).toEqual(["look", "egr"]);
    expect(path[1]?.bits).toBeGreaterThan(0.5);
    expect(path.every((p) => p.best && p.minutes > 0)).toBe(true);
    // What each check could have told then, and would have told of this very car.
    const [first] = path;
    expect(first?.could.length).toBeGreaterThan(2);
    expect(first?.could.every((c) => c.expected > 0 && c.minutes > 0)).toBe(true);
    expect(Math.max(...(first?.could ?? []).map((c) => c.inHindsight))).toBeGreaterThan(0.3);
    expect(cautionsSkipped).toContain("EGR valve");
    expect(faults).toMatchObject([{ name: expect.stringMatching(/EGR/), cured: false }]);
    for (const caution of ["running-engine", "hot-exhaust", "smoke-vapour", "emission-devices"] as const)
      b.job.add("caution", { caution });
    const cold = READERS.egr?.({ car: b.given.car, noise: seededNoise(3) }, { joint: "egr-valve" }) as object;
    b.job.add("check", { check: "egr", record: { ...cold, warm: false, shut: undefined, open: undefined } });
    expect(b.debrief().path).toHaveLength(3);
  });

  it("puts an instrument right that is looked over, and says what it was; light and door stay as they were set", () => {
    const given = { ...caseWith("engine", "duct-clamp"), instruments: { gauge: "unit-wrong" as const } };
    const job = new Writer();
    expect(worldOf(given, job.entries).instruments).toEqual({ gauge: "unit-wrong" });
    job.add("bay", { act: "look-over", instrument: "smoke-machine" });
    expect(worldOf(given, job.entries).steps.at(-1)?.name).toMatch(/nothing wrong there/);
    expect(worldOf(given, job.entries).instruments).toEqual({ gauge: "unit-wrong" });
    job.add("bay", { act: "look-over", instrument: "gauge" });
    job.add("bay", { act: "light", light: { lamp: "laser", door: "open" } });
    const now = worldOf(given, job.entries);
    expect(now.instruments).toEqual({});
    expect(now.steps.map((s) => s.name).join()).toMatch(/set to another unit/);
    expect(now.light).toEqual({ lamp: "laser", door: "open" });
    expect(now.minutes).toBe(9);
    job.add("bay", { act: "end", minutes: 12 });
    expect(worldOf(given, job.entries).minutes).toBe(21);
  });

  it("counts what came before its case was known as nothing, and the same journal as the same bay", () => {
    const b = bay("filter", "filter-loaded");
    b.read("filter");
    expect(b.now()).toEqual(worldOf(b.given, [...b.job.entries]));
    expect(worldOf(b.given, []).minutes).toBe(0);
  });
});

describe("the bay's clock", () => {
  const T = Date.parse("2026-03-02T10:00:00Z");
  const iso = (seconds: number) => new Date(T + 1000 * seconds).toISOString();
  const ms = (at: string) => (Date.parse(at) - T) / 1000;

  it("lets what took its time begin after all that was done before it, and what was begun before a repair before it", () => {
    // A night was skipped: the bay is hours ahead from second 10 on.
    const known = [
      [0, T - 60_000],
      [T + 10_000, T + 40_000_000],
    ] as const;
    const after = inBayTime("check", { from: iso(12), to: iso(52) }, known) as { from: string; to: string };
    expect(ms(after.from)).toBe(40_001);
    expect(ms(after.to)).toBe(40_041);
    const before = inBayTime("check", { from: iso(5), to: iso(52) }, known) as { from: string; to: string };
    expect(ms(before.from)).toBe(5);
    expect(inBayTime("repair", iso(60), known)).toBe(iso(40_001));
    // A drive is told once it is over, and begins where everything before it ended.
    const drive = inBayTime("drive", { from: iso(60 - 2100), to: iso(60) }, [[0, T + 40_000_000]]) as {
      from: string;
      to: string;
    };
    expect(ms(drive.from)).toBe(40_001);
    expect(ms(drive.to)).toBe(42_101);
    // It is told at its end: what was repaired meanwhile was repaired before it.
    const told = inBayTime("drive", { from: iso(60 - 2100), to: iso(60) }, [
      [0, T - 9e6],
      [T + 50_000, T + 50_000],
    ]) as { from: string };
    expect(ms(told.from)).toBe(60);
    expect(inBayTime("check", iso(3), [[0, T - 60_000]])).toBe(iso(3));
  });
});
