import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import { Writer } from "../../journal/journal.fixture";
import { CHECKS } from "..";
import { benchPart as sound } from "../records.fixture";
import { type BenchPart, judgeBenchPart } from ".";

const context = contextOf(NATURAL);
const judge = (change: Partial<BenchPart>) => judgeBenchPart({ ...sound, ...change }, context);

describe("a part on the bench", () => {
  it.each<[string, Partial<BenchPart>, string, RegExp]>([
    ["lets nothing out", {}, "pass", /is tight at 0\.8/],
    ["lets air out", { leaksAt: "its crimp" }, "fail", /at its crimp/],
    ["was watched too briefly", { seconds: 10 }, "unsure", /not sure yet/],
    ["had an opening left", { plugged: false }, "unsure", /not sure yet/],
    ["stood above its rating", { pressure: { value: 2, unit: "bar" } }, "void", /proves nothing/],
  ])("%s", (_, change, outcome, headline) => {
    expect(judge(change).outcome).toBe(outcome);
    expect(judge(change).headline).toMatch(headline);
  });

  it("says nothing of the car, good or bad", () => {
    expect(CHECKS["bench-part"].claims({ ...sound, leaksAt: "x" }, judge({ leaksAt: "x" }), context)).toEqual([]);
    const job = new Writer();
    job.add("vehicle", NATURAL);
    job.add("check", { check: "bench-part", record: { ...sound, leaksAt: "its crimp" } });
    expect(job.state().proof.owed).toEqual([]);
    expect(job.state().checks[0]?.onBench).toBe(true);
    expect(judge({ leaksAt: "x" })).not.toHaveProperty("observation");
  });
});
