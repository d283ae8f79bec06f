import { describe, expect, it } from "vitest";
import { NATURAL } from "../core.fixture";
import { type Draft, toRecord } from "../form";
import { driveForm, judgeColdStarts, judgeComeback, storyForm } from ".";
import { Writer } from "./journal.fixture";

const km = (value: number) => ({ value, unit: "km" }) as const;

/** A car whose fault comes and goes, repaired; what is driven since is added. */
function job(comeback: { kind: "random" | "sets-in"; after: readonly { value: number; unit: "km" | "mi" }[] } | undefined) {
  const journal = new Writer();
  journal.add("opened", { number: 1 });
  journal.add("vehicle", NATURAL);
  journal.add("story", { complaint: "Light now and then", symptoms: [], verified: "seen", ...(comeback ? { comeback } : {}) });
  const finding = journal.add("finding", { joint: "pcv-hose", what: "split", confirmed: true, evidence: [] });
  return { journal, finding };
}
const repair = ({ journal, finding }: ReturnType<typeof job>) =>
  journal.add("repair", {
    finding,
    what: "hose",
    permanence: "permanent",
    places: ["pcv-hose"],
    labourMinutes: 1,
    parts: [],
    otherChanges: [],
  });
const why = (journal: Writer) =>
  journal
    .state()
    .blocks.close.map((b) => b.reason)
    .join("; ");

describe("a fault that comes and goes", () => {
  it("is not gone before it stayed away long enough: all that was driven counts for a random one", () => {
    const one = job({ kind: "random", after: [km(20), km(40)] });
    one.journal.add("drive", { minutes: 20, distance: km(15) });
    one.journal.add("drive", { minutes: 20, distance: km(30), cameBackAfter: km(25) });
    expect(one.journal.state().comeback).toBeUndefined();
    repair(one);
    // 20 + 40 + 25 km in three comebacks, and 15 km without one before it was repaired.
    const { needed } = judgeComeback({ kind: "random", recorded: [20, 40, 25], unfinished: 15, clean: 0 });
    expect(one.journal.state().comeback).toMatchObject({ kind: "random", needed, counted: 0, enough: false, again: false });
    expect(why(one.journal)).toMatch(/Watch it longer.* 0 km of 171 km/);
    for (const distance of [km(100), { value: 45, unit: "mi" } as const]) one.journal.add("drive", { minutes: 60, distance });
    expect(one.journal.state().comeback?.counted).toBeCloseTo(172.42, 1);
    expect(why(one.journal)).not.toMatch(/Not watched/);
  });

  it("that sets in after so far counts whole runs past its longest onset, and adds none up", () => {
    const one = job({ kind: "sets-in", after: [km(20), km(30), km(25)] });
    repair(one);
    for (let i = 0; i < 9; i++) one.journal.add("drive", { minutes: 20, distance: km(29) });
    expect(why(one.journal)).toMatch(/0 of 3 runs past its longest onset/);
    for (let i = 0; i < 3; i++) one.journal.add("drive", { minutes: 40, distance: km(35) });
    expect(one.journal.state().comeback?.enough).toBe(true);
    expect(why(one.journal)).not.toMatch(/Not watched/);
  });

  it("keeps every onset and run to be drawn, and says of each what it says", () => {
    const one = job({ kind: "sets-in", after: [km(20)] });
    one.journal.add("drive", { minutes: 30, distance: km(40), cameBackAfter: km(26), load: "hills" });
    one.journal.add("drive", { minutes: 30, distance: km(31) });
    repair(one);
    one.journal.add("drive", { minutes: 30, distance: km(30), load: "hills" });
    one.journal.add("drive", { minutes: 30, distance: km(80), load: "town" });
    one.journal.add("drive", { minutes: 30, distance: km(25), load: "hills" });
    one.journal.add("drive", { minutes: 30 });
    const runs = () => one.journal.state().comeback?.runs.map((r) => `${r.when} ${r.distance} ${r.says}`);
    expect(runs()).toEqual([
      "before 20 came",
      "before 26 came",
      "before 31 nothing",
      "since 30 clean",
      "since 80 nothing",
      "since 25 nothing",
    ]);
    expect(one.journal.state().comeback?.past).toBe(26);
    one.journal.add("drive", { minutes: 30, distance: km(50), cameBackAfter: km(45), load: "hills" });
    expect(runs()?.at(-1)).toBe("since 45 came");
    // Counted are those that are drawn as such.
    const { counted, runs: drawn } = one.journal.state().comeback as { counted: number; runs: readonly { says: string }[] };
    expect(drawn.filter((r) => r.says === "clean")).toHaveLength(counted);
  });

  it("that came back since is not gone, whatever else is said or taken out", () => {
    const one = job({ kind: "random", after: [km(20), km(40), km(30)] });
    repair(one);
    const drive = one.journal.add("drive", { minutes: 60, distance: km(2000), cameBackAfter: km(1900) });
    one.journal.add("drive", { minutes: 60, distance: km(9000) });
    expect(one.journal.state().comeback?.again).toBe(true);
    expect(why(one.journal)).toMatch(/came back on a drive since the last repair/);
    // Said to be gone before that drive, it was not.
    const gone = job(undefined);
    repair(gone);
    gone.journal.add("complaint-tried", { how: "drove it", result: "gone" });
    expect(why(gone.journal)).not.toMatch(/complaint (has not|remains|still)/i);
    gone.journal.add("drive", { minutes: 60, distance: km(20), cameBackAfter: km(5) });
    expect(gone.journal.state().proof.complaint).toBe("remains");
    one.journal.add("retract", { reason: "wrong car" }, { corrects: drive });
    expect(one.journal.state().comeback?.again).toBe(false);
    one.journal.add("complaint-tried", { how: "drove it", result: "gone" });
    expect(one.journal.state().proof.complaint).toBe("gone");
  });

  it("owes nothing more once it was seen to hold weeks later, nor where it is always there", () => {
    const one = job({ kind: "random", after: [km(20)] });
    repair(one);
    expect(one.journal.state().comeback?.reasons.join()).toMatch(/hand over conditionally/);
    one.journal.add("outcome", { result: "held" });
    expect(one.journal.state().comeback).toBeUndefined();
    const always = job(undefined);
    repair(always);
    expect(always.journal.state().comeback).toBeUndefined();
  });

  it("is told in the story, a distance a line, and refused where it says nothing", () => {
    const known = { story: undefined };
    const read = (comeback: Draft) => toRecord(storyForm, { complaint: "x", comeback }, known);
    expect(read({ kind: "random", after: "12\n25 mi" }).record?.comeback).toEqual({
      kind: "random",
      after: [km(12), { value: 25, unit: "mi" }],
    });
    expect(read({}).record).not.toHaveProperty("comeback");
    expect(read({ kind: "sets-in", after: "" }).errors?.[0]).toMatchObject({ field: "comeback.after" });
    expect(read({ kind: "sets-in", after: "a while" }).errors?.[0]?.message).toContain('"a while"');
    const story = { complaint: "x", symptoms: [], verified: "seen", comeback: { kind: "sets-in", after: [km(7)] } } as const;
    expect(toRecord(storyForm, {}, { story }).record).toEqual(story);
  });

  it("cannot come back later than the drive was long", () => {
    const { errors } = toRecord(driveForm, { minutes: "20", distance: "10", cameBackAfter: "12" }, undefined);
    expect(errors?.[0]?.message).toMatch(/no later than its distance/);
  });
});

describe("a fault of cold starts", () => {
  const at = (hours: number) => new Date(Date.parse("2026-03-04T06:00:00Z") + hours * 3600_000).toISOString();
  const celsius = (value: number) => ({ value, unit: "°C" }) as const;
  const start = { coolant: celsius(9), air: celsius(8) };
  const cold = { minutes: 20, coldStart: true, start, pending: "none" } as const;
  const told = (comeback?: { kind: "cold-starts"; came: number; of: number }) => {
    const one = job(comeback as never);
    one.journal.add("codes", { codes: [{ code: "P0491", status: "stored" }] });
    repair(one);
    return one.journal;
  };
  const drive = (journal: Writer, hours: number, body: object = cold) =>
    journal.add("drive", body as never, { at: { from: at(hours), to: at(hours + 0.5) } });

  it("is asked for by the code itself, with the number that its own share asks for", () => {
    const journal = told();
    expect(journal.state().comeback).toMatchObject({ kind: "cold-starts", counted: 0, needed: 5 });
    expect(why(journal)).toMatch(/0 of 5 cold starts/);
    const shared = told({ kind: "cold-starts", came: 2, of: 6 });
    expect(shared.state().comeback?.needed).toBe(judgeColdStarts({ came: 2, of: 6 }, 0).needed);
    for (let i = 0; i < 5; i++) drive(journal, 24 * i);
    expect(journal.state().comeback).toMatchObject({ counted: 5, enough: true });
    expect(why(journal)).not.toMatch(/cold starts/);
  });

  it("counts no warm restart, no short soak, none after which nothing was read, and none that was no cold start", () => {
    const journal = told();
    drive(journal, 0);
    drive(journal, 2);
    drive(journal, 24, { ...cold, pending: undefined });
    drive(journal, 48, { ...cold, coldStart: false });
    expect(journal.state().comeback?.counted).toBe(1);
    expect(journal.state().comeback?.reasons.join("; ")).toMatch(/stood for 1\.5 h only/);
    // An engine that ran for a check has not stood either.
    journal.add("check", { check: "crankcase", record: {} }, { at: at(70) });
    drive(journal, 72);
    expect(journal.state().comeback?.counted).toBe(1);
  });

  it("is not gone once it came back on one", () => {
    const journal = told();
    for (let i = 0; i < 6; i++) drive(journal, 24 * i, i === 3 ? { ...cold, pending: "came" } : cold);
    expect(why(journal)).toMatch(/came back on a drive since/);
  });

  it("cannot be recorded on a warm engine", () => {
    const { errors } = toRecord(driveForm, { minutes: "5", coldStart: true, start: { coolant: "70", air: "9" } }, undefined);
    expect(errors?.[0]?.message).toMatch(/a warm restart is no cold start/);
  });

  it("is told as how often of how many, and refused where that cannot be", () => {
    const read = (comeback: Draft) => toRecord(storyForm, { complaint: "x", comeback }, { story: undefined });
    expect(read({ kind: "cold-starts", came: "4", of: "5" }).record?.comeback).toEqual({ kind: "cold-starts", came: 4, of: 5 });
    expect(read({ kind: "cold-starts", came: "6", of: "5" }).errors?.[0]?.message).toMatch(/no more starts than there were/);
    expect(read({ kind: "cold-starts" }).errors?.length).toBeGreaterThan(0);
  });
});

describe("runs under less load than it set in under", () => {
  it("say nothing", () => {
    const one = job({ kind: "sets-in", after: [km(20), km(30), km(25), km(22)] });
    one.journal.add("drive", { minutes: 30, distance: km(28), cameBackAfter: km(21), load: "hills" });
    repair(one);
    for (let i = 0; i < 4; i++) one.journal.add("drive", { minutes: 40, distance: km(40), load: "town" });
    expect(one.journal.state().comeback).toMatchObject({ counted: 0, enough: false });
    expect(one.journal.state().comeback?.reasons.join()).toMatch(/4 under less load/);
    for (let i = 0; i < 2; i++) one.journal.add("drive", { minutes: 40, distance: km(40), load: "hills" });
    expect(one.journal.state().comeback?.enough).toBe(true);
  });
});
