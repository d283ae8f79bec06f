import { describe, expect, it } from "vitest";
import { smokeRun } from "../core.fixture";
import { type Bodies, type JournalEntry, provedOf } from "../journal";
import { found, minute, proved, repairBody, SHOP, type Writer } from "../journal/journal.fixture";
import { seededNoise } from "../maths/random";
import { DEFAULT_HOUSE } from "../shop/settings";
import { type Lessons, lessonsOf, type RepairLesson, whatWeKnow } from ".";

const of = ({ entries }: { entries: readonly JournalEntry[] }, state: ReturnType<Writer["state"]>) =>
  lessonsOf(entries, state, { families: ["engine"], shop: SHOP, houseOn: () => DEFAULT_HOUSE });
const taught = (job: Writer) => of(job, job.state()) as Lessons;
function closed(change: Partial<Bodies["repair"]> = {}) {
  const { job, repair } = proved(change);
  job.add("handover", { decidedOn: job.state().lastSeq, conditional: false, summary: "Sound again" });
  return { job, repair };
}

describe("what one job teaches", () => {
  it("is what was said of each place before it was found, and how long that took", () => {
    const { job } = closed();
    expect(provedOf(job.state(), ["engine"])).toBeDefined();
    const { said, search } = taught(job);
    expect(said.filter((s) => s.found)).toHaveLength(1);
    expect(said.reduce((sum, s) => sum + s.odds, 0)).toBeCloseTo(1, 9);
    // Eight entries, a minute apart: the first seven minutes and what the runs themselves took.
    expect(search).toEqual({ minutes: 7, house: DEFAULT_HOUSE });
  });

  it("rests on nothing that was recorded after the finding, however early it says it happened", () => {
    const { job } = closed();
    const state = job.state();
    const before = taught(job).said;
    job.smoke({ seen: [{ joint: "manifold-gasket", at: 40 }], noSmokeOutside: false }, 9, { at: minute(2), seenSeq: 1 });
    expect(of(job, state)?.said).toEqual(before);
  });

  it("is no prediction and no time where nothing is proved, nor once it came back; and nothing at all in a practice bay", () => {
    const { job: open, finding } = found();
    open.add("repair", repairBody(finding));
    expect(taught(open)).toMatchObject({ said: [], repairs: [{ since: "not-heard" }] });
    expect(taught(open).search).toBeUndefined();
    const { job } = closed();
    job.add("outcome", { result: "came-back" });
    expect(taught(job).search).toBeUndefined();
    expect(taught(job).repairs).toEqual([{ permanence: "permanent", since: "came-back" }]);
    job.entries[0] = { ...(job.entries[0] as JournalEntry), body: { number: 7, practice: "3008-BFY0-0000-006" } };
    expect(of(job, job.state())).toBeUndefined();
  });

  it("does not count a night as work", () => {
    const { job } = found();
    const night = job.entries.map((e, i) =>
      i < 6 ? e : { ...e, at: new Date(Date.parse(e.at as string) + 14 * 3600_000).toISOString() },
    );
    const state = closed().job.state();
    expect(of({ entries: night }, state)?.search?.minutes).toBe(6);
  });

  it("tells of each lasting repair how it held: what came back stays so, and only until the next repair", () => {
    const { job, repair } = closed({ method: "cleaned" });
    const since = () => taught(job).repairs.map((r) => r.since);
    expect(since()).toEqual(["not-heard"]);
    job.add("outcome", { result: "not-seen-again" });
    expect(since()).toEqual(["not-heard"]);
    job.add("outcome", { result: "held" });
    expect(since()).toEqual(["held"]);
    job.add("outcome", { result: "came-back" });
    job.add("outcome", { result: "came-back" });
    expect(since()).toEqual(["came-back"]);
    job.add("repair", repairBody(job.entries.find((e) => e.kind === "finding")?.id as string, { method: "renewed" }));
    job.add("outcome", { result: "held" });
    expect(taught(job).repairs).toEqual([
      { permanence: "permanent", method: "cleaned", since: "came-back" },
      { permanence: "permanent", method: "renewed", since: "held" },
    ]);
    job.add("undone", { repair });
    expect(since()).toEqual(["held"]);
  });

  it("counts no bypass, and nothing that an apprentice proposed and nobody signed", () => {
    const { job, finding } = found();
    job.add("repair", repairBody(finding, { permanence: "bypass" }));
    expect(taught(job).repairs).toEqual([]);
    job.add("repair", repairBody(finding), { role: "apprentice" });
    expect(taught(job).repairs).toEqual([]);
  });

  it("names every check that proved nothing with its reason, and none that was taken out", () => {
    const { job } = found();
    const id = job.smoke({ endedAt: 400, machine: { ...smokeRun().machine, autoOff: 60 } });
    const { voids, checks } = taught(job);
    expect(voids).toEqual([{ check: "smoke", why: expect.stringMatching(/./) }]);
    expect(checks).toEqual({ trims: 1, smoke: 2 });
    job.add("retract", { reason: "Wrong car" }, { corrects: id });
    expect(taught(job)).toMatchObject({ voids: [], checks: { trims: 1, smoke: 1 } });
  });
});

const lesson = (over: Partial<Lessons> = {}): Lessons => ({
  families: ["engine"],
  at: minute(1),
  said: [],
  repairs: [],
  checks: {},
  voids: [],
  ...over,
});
const times = <T>(n: number, one: T): T[] => Array.from({ length: n }, () => one);

describe("what a shop knows of itself", () => {
  it("is nothing where nothing was done, and never more than was counted", () => {
    expect(whatWeKnow([])).toEqual({
      jobs: 0,
      proved: 0,
      tenths: [],
      searched: [],
      held: { lasting: [], part: [], cause: [] },
      voided: [],
    });
  });

  it("holds odds against what was found: honest ones are as said 95 times in 100, and such as promise too much are found out", () => {
    const noise = seededNoise(11);
    const shop = (true_: (odds: number) => number) =>
      whatWeKnow(
        Array.from({ length: 400 }, () => {
          const odds = noise.uniform();
          return lesson({ said: [{ odds, found: noise.uniform() < true_(odds) }] });
        }),
      ).tenths;
    const honest = Array.from({ length: 60 }, () => shop((p) => p)).flat();
    expect(honest.filter((t) => t.verdict === "as-said").length / honest.length).toBeGreaterThan(0.93);
    const boasting = shop((p) => p / 2);
    expect(boasting.filter((t) => t.from >= 0.6).every((t) => t.verdict === "rarer")).toBe(true);
    expect(honest.every((t) => t.said >= t.from && t.said < t.from + 0.1)).toBe(true);
  });

  it("says of nine that they are too few, and puts certainty into the last tenth", () => {
    const [tenth] = whatWeKnow(times(9, lesson({ said: [{ odds: 1, found: false }] }))).tenths;
    expect(tenth).toMatchObject({ from: 0.9, of: 9, found: 0, verdict: "too-few" });
  });

  it("counts a repair nobody heard of neither as held nor as come back", () => {
    const repair = (since: RepairLesson["since"]): RepairLesson => ({
      permanence: "permanent",
      method: "cleaned",
      failed: "oil",
      since,
    });
    const held = (n: number) =>
      whatWeKnow([lesson({ repairs: [...times(n, repair("held")), repair("came-back"), ...times(30, repair("not-heard"))] })])
        .held;
    expect(held(3).part).toEqual([{ name: "Cleaned", cameBack: 1, heard: 4, made: 34 }]);
    expect(held(4).part[0]?.share).toMatchObject({ share: 0.2 });
    expect(held(4).part[0]?.share?.high).toBeGreaterThan(0.6);
    expect(held(4).lasting[0]?.name).toBe("Permanent");
    expect(held(4).cause[0]?.name).toBe("Oil or fuel");
  });

  it("tells schools apart only where more than one was followed, and gives a time from six jobs on", () => {
    const search = (minutes: number, firstLocator: "smoke" | "gas") =>
      lesson({ search: { minutes, house: { ...DEFAULT_HOUSE, firstLocator } } });
    const smoke = times(6, 0).map((_, i) => search(20 + i, "smoke"));
    expect(whatWeKnow(smoke).searched).toEqual([{ family: "engine", jobs: 6, minutes: { middle: 22.5, low: 20, high: 25 } }]);
    const both = whatWeKnow([...smoke, search(90, "gas")]).searched;
    expect(both.map((s) => [s.school?.name ?? "all", s.jobs, s.minutes !== undefined])).toEqual([
      ["all", 7, true],
      ["Smoke", 6, true],
      ["Enrichment gas", 1, false],
    ]);
  });

  it("gathers reasons that differ in their figures alone", () => {
    const why = (s: number) => ({ check: "decay" as const, why: `Held for ${s} s: 60 s are needed` });
    const [decay] = whatWeKnow([
      lesson({ checks: { decay: 5 }, voids: [why(20), why(31.5), { check: "decay", why: "It rises" }] }),
    ]).voided;
    expect(decay).toMatchObject({ check: "decay", voids: 3, of: 5 });
    expect(decay?.whys).toEqual([
      { why: "Held for 20 s: 60 s are needed", times: 2 },
      { why: "It rises", times: 1 },
    ]);
  });
});
