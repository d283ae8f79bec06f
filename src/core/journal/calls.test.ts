import { describe, expect, it } from "vitest";
import { callsOf, isDueAtCar, lapsed } from "./calls";
import type { Bodies } from "./entries";
import type { JournalEntry } from "./envelope";
import { found, minute, proved, repairBody, type Writer } from "./journal.fixture";

const handOver = (job: Writer, more: Partial<Bodies["handover"]> = {}, at = minute(600)) =>
  job.add("handover", { decidedOn: job.state().lastSeq, conditional: false, summary: "Sound again", ...more }, { at });
const calls = (job: Writer) => callsOf(job.state());
const days = (n: number) => minute(600 + n * 24 * 60);

describe("whom to call", () => {
  it("is nobody before the car leaves, nor in a practice bay", () => {
    const { job } = proved();
    expect(calls(job)).toEqual([]);
    handOver(job);
    expect(calls(job)).toHaveLength(1);
    job.entries[0] = { ...(job.entries[0] as JournalEntry), body: { number: 7, practice: "3008-BFY0-0000-006" } };
    expect(calls(job)).toEqual([]);
  });

  it("asks how it held four weeks on, a week on where the proof is not complete, or on the day that was said", () => {
    const { job } = proved();
    handOver(job);
    expect(calls(job)).toEqual([{ on: "2026-03-30", about: "how-it-held", what: "Sound again" }]);
    const early = found();
    early.job.add("repair", repairBody(early.finding));
    handOver(early.job, { conditional: true });
    expect(calls(early.job)).toEqual([{ on: "2026-03-09", about: "conditional", what: "Sound again" }]);
    const said = proved().job;
    handOver(said, { call: "2026-04-17" });
    expect(calls(said)[0]?.on).toBe("2026-04-17");
  });

  it("is answered by what was heard after the handover, and asked again once more was done", () => {
    const { job } = proved();
    job.add("outcome", { result: "held" }, { at: minute(500) });
    handOver(job);
    expect(calls(job)).toHaveLength(1);
    job.add("outcome", { result: "held" }, { at: days(10) });
    expect(calls(job)).toEqual([]);
    job.add("repair", repairBody(job.entries.find((e) => e.kind === "finding")?.id as string), { at: days(20) });
    expect(calls(job)).toEqual([]);
    handOver(job, {}, days(21));
    expect(calls(job)).toHaveLength(1);
  });

  it("names what is temporary and what was left with their days, until something was heard on that day or after", () => {
    const { job, finding } = found();
    job.add("repair", repairBody(finding, { permanence: "temporary", limit: "a month", recheck: "2026-04-01", what: "Taped" }));
    job.add("set-aside", {
      of: "finding",
      id: finding,
      reason: "Cap weeps",
      risk: "smell",
      decision: "later",
      date: "2026-05-02",
    });
    expect(calls(job)).toEqual([
      { on: "2026-04-01", about: "recheck", what: "Taped" },
      { on: "2026-05-02", about: "set-aside", what: "Cap weeps" },
    ]);
    expect(calls(job).every(isDueAtCar)).toBe(true);
    job.add("outcome", { result: "held" }, { at: "2026-03-31T10:00:00.000Z" });
    expect(calls(job)).toHaveLength(2);
    job.add("outcome", { result: "held" }, { at: "2026-04-01T10:00:00.000Z" });
    expect(calls(job).map((c) => c.about)).toEqual(["set-aside"]);
  });

  it("is not about a repair that was undone, nor about a bypass", () => {
    const { job, finding } = found();
    const repair = job.add("repair", repairBody(finding, { permanence: "temporary", limit: "a month", recheck: "2026-04-01" }));
    job.add("undone", { repair });
    expect(calls(job)).toEqual([]);
  });

  it("lapses months later where it only asked how it held; what is due stays due", () => {
    const call = { on: "2026-03-30", what: "x" };
    expect(lapsed({ ...call, about: "how-it-held" }, "2026-07-01")).toBe(false);
    expect(lapsed({ ...call, about: "how-it-held" }, "2026-08-01")).toBe(true);
    expect(lapsed({ ...call, about: "conditional" }, "2026-08-01")).toBe(true);
    expect(lapsed({ ...call, about: "recheck" }, "2027-08-01")).toBe(false);
    expect(lapsed({ ...call, about: "set-aside" }, "2027-08-01")).toBe(false);
  });
});
