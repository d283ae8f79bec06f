import { describe, expect, it } from "vitest";
import type { AirflowRecord } from "../checks/airflow";
import { airflow, hold, vacuum, valve } from "../checks/records.fixture";
import { NATURAL } from "../core.fixture";
import { inSentence } from "../sentence";
import { layoutOf, teardownKit } from "../vehicle";
import { handoverOf } from "./handover";
import { found, proved, repairBody, Writer } from "./journal.fixture";
import { readingsCsv } from "./readings-csv";

const closing = (job: Writer) => job.state().blocks.close.map((b) => b.reason);
const pull = (maf: number, map: number): AirflowRecord => ({
  ...airflow,
  points: [
    airflow.points[0] as AirflowRecord["points"][number],
    { state: "wide-open", rpm: 4500, maf: { value: maf, unit: "g/s" }, map: { value: map, unit: "kPa", kind: "absolute" } },
  ],
});
const begun = () => {
  const job = new Writer();
  job.add("opened", { number: 3 });
  job.add("vehicle", { ...NATURAL });
  job.add("story", { complaint: "No pull", symptoms: ["low-power"], verified: "seen" });
  return job;
};

describe("commands", () => {
  it("that still stand block handing over and closing, and every check until they are released", () => {
    const { job } = proved();
    const command = job.add("displaced", {
      what: "Purge valve commanded open",
      joint: "purge-valve",
      commanded: { seconds: 30 },
    });
    expect(closing(job).join()).toMatch(/Release Purge valve commanded open/);
    expect(job.state().next[0]?.notNow).toMatch(/still stands: release it first/);
    job.add("restored", { item: command });
    expect(closing(job)).toEqual([]);
    expect(job.state().next[0]?.notNow).toBeUndefined();
  });
});

describe("proof by part", () => {
  it("is owed by the part that failed, and a new part on the bench does not pay it", () => {
    const job = begun();
    job.add("check", { check: "valve", record: { ...valve, rest: { start: 18, end: 9, seconds: 60 } } });
    const finding = job.add("finding", { joint: "purge-valve", what: "seat worn", evidence: [], confirmed: true });
    job.add("check", { check: "valve", record: { ...valve, part: "new" } });
    job.add("repair", repairBody(finding, { what: "Purge valve renewed" }));
    expect(closing(job).join()).toMatch(/Repeat the valve, two states of the purge valve/);
    job.add("check", { check: "hold", record: hold });
    job.add("check", { check: "valve", record: { ...valve, joint: "booster-check-valve" } });
    expect(closing(job).join()).toMatch(/Repeat the valve, two states of the purge valve/);
    job.add("check", { check: "valve", record: { ...valve, part: "new" } });
    expect(closing(job).join()).toMatch(/Repeat the .*of the purge valve/);
    job.add("check", { check: "valve", record: { ...valve } });
    expect(closing(job).join()).not.toMatch(/Repeat the/);
    const page = handoverOf(job.state()).comparisons.find((c) => c.key === "valve purge-valve");
    expect(page).toMatchObject({ before: { word: "Faulty" }, after: { word: "Works" } });
  });
});

describe("a cure with two changes", () => {
  const cured = () => {
    const job = begun();
    job.add("check", { check: "airflow", record: pull(42, 72) });
    const finding = job.add("finding", { joint: "filter-clogged", what: "filter grey", evidence: [], confirmed: false });
    job.add("repair", repairBody(finding, { what: "Filter renewed", otherChanges: ["duct refitted"] }));
    job.add("check", { check: "airflow", record: pull(60, 98) });
    return job;
  };

  it("is named unproved", () => {
    expect(cured().state().confounded).toEqual(["Filter renewed", "duct refitted"]);
  });

  it("is settled by swapping one back: bad again, it was the cure", () => {
    const job = cured();
    const item = job.add("displaced", { what: "old filter back in", swappedBack: "Filter renewed" });
    expect(closing(job).join()).toMatch(/the old one is fitted: Filter renewed/);
    job.add("check", { check: "airflow", record: pull(42, 72.1) });
    expect(job.state().confounded).toEqual([]);
    job.add("restored", { item });
    job.add("check", { check: "airflow", record: pull(60, 98.1) });
    expect(job.state().confounded).toEqual([]);
    expect(closing(job).join()).not.toMatch(/the old one is fitted/);
  });

  it("still good with one swapped back leaves the other", () => {
    const job = cured();
    job.add("displaced", { what: "duct loose again", swappedBack: "duct refitted" });
    job.add("check", { check: "airflow", record: pull(60, 97.9) });
    expect(job.state().confounded).toEqual([]);
  });
});

describe("after a confirmed repair", () => {
  it("what it explained is retired, what it did not explain raises a second cause", () => {
    const { job, finding } = found();
    job.add("story", { complaint: "Rough idle, hard pedal", symptoms: ["rough-idle", "brake-hard"], verified: "seen" });
    const before = job.state();
    expect(before.retired).toEqual([]);
    expect(before.suspects[0]?.cause.id).toBe("pcv-hose");
    job.add("repair", repairBody(finding));
    job.smoke();
    const after = job.state();
    expect(after.retired).toContain("smoke-at:pcv-hose");
    expect(after.retired).not.toContain("symptom:brake-hard");
    const booster = (s: typeof after) => s.suspects.find((x) => x.cause.id === "booster-diaphragm")?.odds ?? 0;
    expect(booster(after)).toBeGreaterThan(5 * booster(before));
    expect(after.suspects[0]?.because.map((b) => b.observation)).toContain("symptom:brake-hard");
  });
});

describe("the record", () => {
  it("gives every reading of every kind as a row", () => {
    const job = begun();
    job.add("check", { check: "vacuum", record: vacuum });
    job.add("check", { check: "hold", record: hold });
    const rows = readingsCsv(job.state()).split("\r\n");
    expect(rows.some((r) => r.startsWith("vacuum,") && r.includes("intake vacuum,19.5,inHg,vacuum"))).toBe(true);
    expect(rows.filter((r) => r.startsWith("hold,"))).toHaveLength(4);
  });

  it("keeps a teardown kit, the newest list counting", () => {
    const proposed = teardownKit(layoutOf(NATURAL), "manifold-gasket");
    expect(proposed.map((i) => i.kind)).toEqual(expect.arrayContaining(["seal", "fluid", "fastener", "cover", "stays"]));
    expect(teardownKit(layoutOf(NATURAL), "nowhere")).toEqual([]);
    const job = begun();
    job.add("kit", { items: proposed });
    job.add("kit", { items: proposed.map((i) => ({ ...i, ready: true })) });
    expect(job.state().kit.every((i) => i.ready)).toBe(true);
  });

  it.each([
    ["PCV hose", "PCV hose"],
    ["Manifold gasket", "manifold gasket"],
    ["EGR valve", "EGR valve"],
  ])("writes %s inside a sentence as %s", (name, said) => {
    expect(inSentence(name)).toBe(said);
  });
});
