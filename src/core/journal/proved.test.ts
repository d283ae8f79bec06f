import { describe, expect, it } from "vitest";
import { NATURAL } from "../core.fixture";
import { engineOf } from "../vehicle";
import type { Bodies } from "./entries";
import { found, GOOD, proved, repairBody, type Writer } from "./journal.fixture";
import { provedOf } from "./proved";

const handOver = (job: Writer, conditional = false) =>
  job.add("handover", { decidedOn: job.state().lastSeq, conditional, summary: "Sound again" });
const adds = (job: Writer) => provedOf(job.state(), ["engine"]);
const closed = (change: Partial<Bodies["repair"]> = {}) => {
  const { job, repair } = proved(change);
  handOver(job);
  return { job, repair };
};

describe("what a job adds to the shop's own experience", () => {
  it("is what was found, repaired and proved on a real car", () => {
    const { job } = closed();
    expect(adds(job)).toMatchObject({ engine: engineOf(NATURAL), families: ["engine"], found: ["pcv-hose"] });
  });

  it("is nothing before it is handed over, nor where the proof is not complete", () => {
    expect(adds(proved().job)).toBeUndefined();
    const { job, finding } = found();
    job.add("repair", repairBody(finding));
    handOver(job, true);
    expect(adds(job)).toBeUndefined();
  });

  it("is nothing in a practice bay, whatever was cured there", () => {
    const { job } = closed();
    job.entries[0] = { ...(job.entries[0] as (typeof job.entries)[number]), body: { number: 7, practice: "3008-BFY0-0000-006" } };
    expect(adds(job)).toBeUndefined();
  });

  it("is nothing once it came back, until something else is proved to have been it", () => {
    const { job } = closed();
    job.add("outcome", { result: "held" });
    expect(adds(job)).toBeDefined();
    job.add("outcome", { result: "came-back" });
    expect(adds(job)).toBeUndefined();
  });

  it("is nothing where more than one thing changed, so that the cause is not proved to be it", () => {
    expect(adds(closed({ otherChanges: ["air filter renewed"] }).job)).toBeUndefined();
  });

  it("is nothing of a repair that was undone, of a finding that nobody confirmed, or that was taken out", () => {
    const undone = closed();
    undone.job.add("undone", { repair: undone.repair });
    expect(adds(undone.job)).toBeUndefined();
    const { job } = closed();
    const at = job.entries.findIndex((e) => e.kind === "finding");
    const finding = job.entries[at] as (typeof job.entries)[number];
    job.entries[at] = { ...finding, body: { ...(finding.body as object), confirmed: false } };
    expect(adds(job)).toBeUndefined();
    const out = closed().job;
    out.add("retract", { reason: "Wrong car" }, { corrects: finding.id });
    expect(adds(out)).toBeUndefined();
  });

  it("is nothing where an apprentice's repair was never signed", () => {
    const { job, repair } = closed();
    const at = job.entries.findIndex((e) => e.id === repair);
    job.entries[at] = { ...(job.entries[at] as (typeof job.entries)[number]), role: "apprentice" };
    expect(adds(job)).toBeUndefined();
  });

  it("is nothing where a failing reading came in after the proof", () => {
    const { job } = closed();
    job.trims(GOOD.map((t) => t + 15));
    expect(adds(job)).toBeUndefined();
  });
});
