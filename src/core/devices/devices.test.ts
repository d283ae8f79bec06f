import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { CARS } from "../../../demo/cars";
import { recordDrive, writeLog } from "../../../demo/drive";
import { CHECKS, judgeCheck } from "../checks";
import { typedBeside } from "../checks/fields";
import { survey } from "../checks/records.fixture";
import { contextOf, NATURAL, smokeRun } from "../core.fixture";
import { type BadInput, validate } from "../input";
import { Writer } from "../journal/journal.fixture";
import { findSteadyWindows, readScanLog, surveyPoints } from "../scan-log";
import { DEFAULT_LIMITS } from "../shop/settings";
import type { Every, LiveRow } from "./device";
import { LiveLog } from "./live-log";
import { replayed } from "./replay";

/** A clock that is wound on by hand. */
function clock() {
  const ticks = new Set<() => void>();
  const every: Every = (_, tick) => {
    ticks.add(tick);
    return () => ticks.delete(tick);
  };
  return {
    every,
    wind: (times: number) => {
      for (let i = 0; i < times; i++) for (const tick of [...ticks]) tick();
    },
    running: () => ticks.size,
  };
}
const bytes = (text: string) => new TextEncoder().encode(text);
const LOG = readScanLog(bytes("Time (s),RPM,MAF (g/s)\n0,700,2.5\n0.5,710,\n1,705,2.6\n1.5,720,2.7\n"));

describe("a recorded log, played as a live scan tool", () => {
  it("gives its rows when they are due, leaves out what was not polled, and says when it is over", () => {
    const { every, wind, running } = clock();
    const tool = replayed(LOG, "idle.csv", every);
    expect([tool.name, tool.simulated, tool.channels]).toEqual(["Replay of idle.csv", true, ["rpm", "maf"]]);
    const rows: LiveRow[] = [];
    const ends: string[] = [];
    tool.start({ row: (r) => rows.push(r), ended: (why) => ends.push(why) });
    wind(3);
    expect(rows.map((r) => r.at)).toEqual([0, 0.5]);
    expect(rows[1]?.values).toEqual({ rpm: 710 });
    expect(ends).toEqual([]);
    wind(20);
    expect(rows).toHaveLength(4);
    expect(rows[3]?.values.maf).toBeCloseTo(2.7e-3, 9);
    expect(ends).toEqual(["The log is played to its end"]);
    expect(running()).toBe(0);
  });

  it("calls nobody once it is unplugged, plays faster where asked, and from the start each time", () => {
    const { every, wind, running } = clock();
    const tool = replayed(LOG, "idle.csv", every, 10);
    let rows = 0;
    const listener = { row: () => rows++, ended: () => rows++ };
    const stop = tool.start(listener);
    stop();
    wind(10);
    expect([rows, running()]).toEqual([0, 0]);
    tool.start(listener);
    wind(1);
    expect(rows).toBe(5);
  });

  it("is refused without a clock, or at a pace that is none", () => {
    const { every } = clock();
    expect(() => replayed(readScanLog(bytes("RPM,MAF (g/s)\n700,2.5\n")), "x", every)).toThrow(/no clock/);
    for (const pace of [0, -1, 1e3, Number.NaN]) expect(() => replayed(LOG, "x", every, pace)).toThrow(/pace/);
  });
});

describe("what comes live", () => {
  it("finds the very windows and points that the log had when it was recorded, as it comes", () => {
    const log = readScanLog(writeLog(recordDrive(CARS.petrel.engine, 77), "comma", false));
    const { every, wind } = clock();
    const tool = replayed(log, "drive.csv", every, 20);
    const live = new LiveLog(tool.channels);
    const found: number[] = [];
    let over = false;
    tool.start({
      row: (row) => void live.push(row),
      ended: () => {
        over = true;
      },
    });
    for (let i = 0; i < 2000 && !over; i++) {
      wind(1);
      if (i % 4 === 0) found.push(surveyPoints(findSteadyWindows(live.log, DEFAULT_LIMITS)).length);
    }
    expect(over).toBe(true);
    const points = (of: Parameters<typeof findSteadyWindows>[0]) => surveyPoints(findSteadyWindows(of, DEFAULT_LIMITS));
    expect(points(live.log)).toEqual(points(log));
    expect(points(log).length).toBeGreaterThan(2);
    // They came one after the other.
    expect(new Set(found).size).toBeGreaterThan(2);
  });

  it("takes no row twice, none from the past, none of a channel it does not know, and no more than an hour", () => {
    const live = new LiveLog(["rpm"]);
    expect(live.push({ at: 0, values: { rpm: 700, maf: 1 } })).toBe(true);
    for (const at of [0, -1, Number.NaN]) expect(live.push({ at, values: { rpm: 1 } })).toBe(false);
    expect(live.log.columns.map((c) => c.channel)).toEqual(["time", "rpm"]);
    for (let i = 1; i < 20_000; i++) live.push({ at: i / 5, values: { rpm: 700 } });
    expect(live.log.rows).toBe(18_000);
    expect(live.log.notes.join()).toMatch(/an hour is kept/);
  });
});

const sound = survey({});

describe("what is read from a simulated device", () => {
  const simulated = { kind: "device", device: "Replay of drive.csv", simulated: true } as const;
  it("proves nothing of a car, whatever it says, and is told what it would have said", () => {
    const context = contextOf(NATURAL);
    const verdict = judgeCheck("trims", { ...sound, source: simulated }, context);
    expect(verdict).toMatchObject({ outcome: "void", headline: expect.stringMatching(/simulated device.*nothing of this car/) });
    expect(verdict.reasons.join()).toContain(judgeCheck("trims", sound, context).headline);
    expect(verdict).not.toHaveProperty("observation");
    expect(judgeCheck("trims", { ...sound, source: { ...simulated, simulated: false } }, context).outcome).not.toBe("void");
  });

  it("owes nothing and accuses nobody on a real car, whatever was seen at the stand-in", () => {
    const stateWith = (source: object | undefined) => {
      const journal = new Writer();
      journal.add("opened", { number: 1 });
      journal.add("vehicle", NATURAL);
      const record = {
        ...smokeRun(9),
        seen: [{ joint: "pcv-hose", at: 60 }],
        noSmokeOutside: false,
        ...(source ? { source } : {}),
      };
      journal.add("check", { check: "smoke", record });
      return journal.state();
    };
    const real = stateWith(undefined);
    expect(real.proof.owed.map((o) => o.atom).join()).toContain("pcv-hose");
    expect(real.zones.some((z) => z.state === "leaking")).toBe(true);
    const stood = stateWith(simulated);
    expect(stood.proof.owed).toEqual([]);
    expect(stood.zones).toEqual([]);
    const odds = (state: typeof real) => state.suspects.map((x) => `${x.cause.id} ${x.odds.toFixed(6)}`);
    const nothing = new Writer();
    nothing.add("opened", { number: 1 });
    nothing.add("vehicle", NATURAL);
    expect(odds(stood)).toEqual(odds(nothing.state()));
  });

  it("stays simulated while any of it is left, whatever is typed beside it", () => {
    expect(typedBeside(simulated, 2)).toEqual(simulated);
    expect(typedBeside(simulated, 0)).toEqual({ kind: "typed" });
    expect(typedBeside({ ...simulated, simulated: false }, 2)).toEqual({ kind: "typed" });
    expect(typedBeside(undefined, 2)).toEqual({ kind: "typed" });
  });

  it("is refused at the door without a name, or without a word on whether it is simulated", () => {
    const refused = (source: object) => {
      try {
        validate(CHECKS.trims.fields.schema, { ...sound, source });
        return "taken";
      } catch (error) {
        return (error as BadInput).message;
      }
    };
    expect(refused(simulated)).toBe("taken");
    expect(refused({ kind: "device", simulated: true })).toMatch(/name it/);
    expect(refused({ kind: "device", device: "Tool" })).toMatch(/whether it is simulated/);
  });
});

it("is told in docs/devices.md as it stands", () => {
  const [, block] = /```ts\n([\s\S]*?)```/.exec(readFileSync("docs/devices.md", "utf8")) ?? [];
  expect(block).toBe(readFileSync("src/core/devices/replay.ts", "utf8"));
});
