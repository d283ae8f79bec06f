import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import type { TrimSurvey } from "../../checks/trims";
import { contextOf, NATURAL, smokeRun } from "../../core.fixture";
import { usualSetup } from "../../vehicle";
import type { Bodies } from "../entries";
import type { JournalEntry } from "../envelope";
import { foldJob } from "../fold";
import { handoverOf } from "../handover";
import { parseJobFile } from "../job-file";
import { driven, found, GOOD, LEAN, minute, NOW, proved, repairBody, SHOP, trimSurvey, Writer } from "../journal.fixture";

const closing = (job: Writer) => job.state().blocks.close.map((b) => b.reason);
/** Blocks beside the drive and the reading of codes that every proof ends with. */
const rest = (reasons: readonly string[]) => reasons.filter((r) => !/^(Drive \d+ min|Read again after the drive)/.test(r));

describe("journals that prove nothing", () => {
  const folder = join(__dirname, "../../adversarial/journals");
  it.each(readdirSync(folder))("%s", (name) => {
    const { expect: wanted, reason, job } = JSON.parse(readFileSync(join(folder, name), "utf8"));
    const file = parseJobFile(JSON.stringify(job));
    const reasons = foldJob(file.entries, file.shop, NOW).blocks.close.map((b) => b.reason);
    // A reason that is named is the one that must stand there; what every proof ends with is none beside it.
    const pattern = /^\/(.*)\/(\w*)$/.exec(reason ?? "");
    if (pattern) expect(reasons.join("\n")).toMatch(new RegExp(pattern[1] as string, pattern[2]));
    else if (wanted === "blocked") expect(rest(reasons)).not.toEqual([]);
    else expect(rest(reasons)).toEqual([]);
  });
});

describe("one proof of the machine for a session", () => {
  const verdictOf = (hours: number) => {
    const { job } = found();
    const proof = smokeRun().proof as NonNullable<ReturnType<typeof smokeRun>["proof"]>;
    const at = Date.parse(minute(job.entries.length + 1));
    job.smoke({ proof: { ...proof, takenAt: new Date(at + hours * 3600_000).toISOString() } });
    return job.state().checks.at(-1)?.verdict;
  };
  it.each([-2, -0.5, 0.2])("counts %f h from the run", (hours) => {
    expect(verdictOf(hours)).toMatchObject({ outcome: "pass" });
  });
  it.each([-24, -24 * 365, 48])("does not count %f h from the run", (hours) => {
    expect(verdictOf(hours)).toMatchObject({ outcome: "void", reasons: [expect.stringMatching(/proved in another session/)] });
  });
});

describe("a touch", () => {
  it("un-proves what it bears on: a repair at a named place leaves the rest proved", () => {
    const { job } = proved();
    job.add("repair", repairBody("", { what: "Oil cap renewed", places: ["oil-cap"] }));
    const reasons = closing(job).join("\n");
    expect(reasons).toMatch(/Re-check .*trim at idle.*touched since \(Oil cap renewed\)/);
    expect(reasons).toMatch(/Re-check .*oil cap.*touched since \(Oil cap renewed\)/);
    expect(reasons).not.toMatch(/PCV hose tight/);
  });

  it("of a repair that is undone takes its proof with it", () => {
    const { job, repair } = proved();
    expect(closing(job)).toEqual([]);
    job.add("undone", { repair });
    expect(closing(job).join()).toMatch(/Repair what was found, or set it aside: PCV hose split/);
    // Repaired otherwise since: what was shown before counts no more.
    job.add("repair", repairBody(job.entries.find((e) => e.kind === "finding")?.id as string, { what: "PCV hose taped" }));
    expect(closing(job).join("\n")).toMatch(/Re-check .*PCV hose[\s\S]*Re-check .*trim at idle/);
  });

  it("by hand on one place after the proof asks for what rests on it and for its seat", () => {
    const { job } = proved();
    const item = job.add("displaced", { what: "oil cap off", joint: "oil-cap" });
    job.add("restored", { item });
    const reasons = closing(job).join("\n");
    expect(reasons).toMatch(/Re-check .*trim at idle.*touched since \(oil cap off\)/);
    expect(reasons).toMatch(/oil cap/);
    expect(reasons).not.toMatch(/PCV hose tight/);
    job.trims(GOOD);
    job.smoke();
    expect(closing(job)).toEqual([]);
  });

  it("by tapping a port asks for it plugged: what was smoked before it was there says nothing of it", () => {
    const { job } = proved();
    job.add("vehicle", { ...NATURAL, tapped: ["manifold"] });
    const reasons = closing(job).join("\n");
    expect(reasons).toMatch(/Re-check .*trim at idle.*touched since \(port tapped into the manifold\)/);
    expect(reasons).toMatch(/Re-check .*tapped port, manifold.*touched since \(port tapped into the manifold\)/);
    expect(reasons).toMatch(/Check that it is seated: tapped port, manifold/);
    expect(reasons).not.toMatch(/PCV hose/);
    expect(handoverOf(job.state()).modified).toEqual(["A port is tapped into the manifold for good, and plugged"]);
    job.trims(GOOD);
    job.smoke();
    expect(closing(job)).toEqual([]);
  });

  it("by tapping a port does not go away by describing the car without it", () => {
    const { job } = proved();
    job.add("vehicle", { ...NATURAL, tapped: ["manifold"] });
    job.add("vehicle", NATURAL);
    expect(job.state().vehicle?.tapped).toEqual(["manifold"]);
    expect(closing(job).join()).toMatch(/tapped port, manifold/);
    expect(handoverOf(job.state()).modified).toHaveLength(1);
    job.trims(GOOD);
    job.smoke();
    expect(closing(job)).toEqual([]);
  });

  it("by a port that was never tapped goes with the line that said so, taken out with a reason", () => {
    const { job } = proved();
    const wrong = job.add("vehicle", { ...NATURAL, tapped: ["manifold"] });
    job.add("retract", { reason: "another car's" }, { corrects: wrong });
    expect(job.state().vehicle?.tapped).toBeUndefined();
    expect(closing(job)).toEqual([]);
  });

  it("by tapping a port is told from one that the car came with, also where the first description is corrected", () => {
    const came = proved().job;
    const described = came.entries.findIndex((e) => e.kind === "vehicle");
    const [first] = came.entries.splice(described, 1) as [JournalEntry];
    came.entries.splice(described, 0, { ...first, body: { ...NATURAL, tapped: ["manifold"] } });
    expect(closing(came)).toEqual([]);
    const { job } = proved();
    const root = job.entries.find((e) => e.kind === "vehicle") as JournalEntry;
    job.add("vehicle", { ...NATURAL, tapped: ["manifold"] }, { corrects: root.id });
    expect(closing(job).join()).toMatch(/tapped port, manifold/i);
  });

  it("that no gas path knows of asks nothing", () => {
    const { job } = proved();
    const item = job.add("displaced", { what: "undertray off", elsewhere: true });
    expect(closing(job)).toEqual(["Put back to normal: undertray off"]);
    job.add("restored", { item });
    expect(closing(job)).toEqual([]);
  });

  it("of a check's own setup un-proves its own place only, and a seated look or live data ends it", () => {
    const { job, finding } = found();
    job.add("repair", repairBody(finding));
    job.trims(GOOD);
    const item = job.add("displaced", { what: "duct off where it leaves the filter box", joint: "air-meter" });
    job.smoke();
    job.add("restored", { item });
    job.add("codes-cleared", {});
    job.add("complaint-tried", { how: "Idle", result: "gone" });
    driven(job);
    expect(closing(job)).toEqual([expect.stringMatching(/^Check that it is seated: MAF/)]);
    const looked = new Writer();
    looked.entries.push(...job.entries);
    looked.add("check", { check: "look", record: { items: [{ id: "air-meter", state: "fine" }] } });
    expect(closing(looked)).toEqual([]);
    job.trims(GOOD);
    expect(closing(job)).toEqual([]);
  });

  it("is none where the place was seen seated as it went back on", () => {
    const { job, finding } = found();
    job.add("repair", repairBody(finding));
    const item = job.add("displaced", { what: "duct off where it leaves the filter box", joint: "air-meter" });
    job.smoke();
    job.add("restored", { item, seated: true });
    job.trims(GOOD);
    job.add("codes-cleared", {});
    job.add("complaint-tried", { how: "Idle", result: "gone" });
    driven(job);
    expect(closing(job)).toEqual([]);
  });

  it("that stood while a reading was taken spoils it, though it went in before and came out after", () => {
    const { job, finding } = found();
    job.add("repair", repairBody(finding));
    const item = job.add("displaced", { what: "tailpipe plugged", joint: "tailpipe" });
    job.trims(GOOD);
    job.smoke();
    job.add("restored", { item, seated: true });
    job.add("codes-cleared", {});
    job.add("complaint-tried", { how: "Idle", result: "gone" });
    driven(job);
    // The plug is the smoke run's own setup and no survey's.
    expect(closing(job)).toEqual([expect.stringMatching(/Re-check .*trim at idle.*touched since \(tailpipe plugged\)/)]);
  });

  it("by swapping the old part back is diagnosis: what fails then is not owed, what passed before is", () => {
    const { job } = proved();
    const item = job.add("displaced", { what: "old hose back in", swappedBack: "PCV hose renewed" });
    job.trims(LEAN);
    job.add("restored", { item });
    const reasons = closing(job);
    expect(reasons.join("\n")).not.toMatch(/shows after the repair/);
    expect(reasons.join("\n")).toMatch(/Re-check .*trim at idle.*touched since \(old hose back in\)/);
    job.trims(GOOD);
    job.smoke();
    job.add("codes-cleared", {});
    job.add("complaint-tried", { how: "Idle", result: "gone" });
    driven(job);
    expect(closing(job)).toEqual([]);
  });
});

describe("what the failure asked", () => {
  const twoBanks = { ...NATURAL, banks: 2 as const };
  const survey = (banks: readonly (readonly [number, number])[]): TrimSurvey => ({
    ...trimSurvey(banks.map(() => 0)),
    points: trimSurvey(banks.map(() => 0)).points.map((p, i) => ({
      ...p,
      banks: (banks[i] as readonly [number, number]).map((long) => ({ short: 0, long })),
    })),
  });
  const one = (which: 0 | 1, totals: readonly number[]) => survey(totals.map((t) => (which === 0 ? [t, 0.5] : [0.5, t])));

  it("is met by two records together, bank by bank, and by neither alone", () => {
    const job = new Writer();
    job.add("opened", { number: 8 });
    job.add("vehicle", twoBanks);
    job.add("story", { complaint: "Rough idle", symptoms: [], verified: "seen" });
    job.add("check", { check: "trims", record: one(0, LEAN) });
    job.add("check", { check: "trims", record: one(1, LEAN) });
    job.add("repair", repairBody("", { what: "Manifold off and on" }));
    expect(closing(job).join()).toMatch(/trim at idle of bank 1.*trim at idle of bank 2/);
    job.add("check", { check: "trims", record: one(0, GOOD) });
    expect(closing(job).join()).not.toMatch(/trim at idle of bank/);
  });

  it("is asked by a record that was taken out, and by a vehicle that was described otherwise", () => {
    const taken = new Writer();
    taken.entries.push(...proved().job.entries);
    const lean = taken.trims(LEAN);
    taken.add("retract", { reason: "typed wrong" }, { corrects: lean });
    expect(closing(taken).join()).toMatch(/trim at idle/);

    const { job, finding } = found();
    job.add("repair", repairBody(finding));
    job.smoke();
    job.add("vehicle", { ...NATURAL, metering: "map" });
    job.add("codes-cleared", {});
    job.add("complaint-tried", { how: "Idle", result: "gone" });
    driven(job);
    expect(closing(job).join()).toMatch(/trim at idle/);
  });

  it("does not take a correction that makes a failing record good", () => {
    const { job } = proved();
    const lean = job.trims(LEAN);
    job.add("check", { check: "trims", record: trimSurvey(GOOD) }, { corrects: lean });
    expect(closing(job).join()).toMatch(/trim at idle/);
    job.trims(GOOD);
    expect(closing(job)).toEqual([]);
  });

  it("does not take a time that was corrected across the repair", () => {
    const { job, finding } = found();
    const early = job.trims(GOOD);
    job.add("repair", repairBody(finding));
    job.add("check", { check: "trims", record: trimSurvey(GOOD) }, { corrects: early, at: minute(50) });
    job.smoke();
    job.add("codes-cleared", {});
    job.add("complaint-tried", { how: "Idle", result: "gone" });
    driven(job);
    expect(closing(job)).toEqual([expect.stringMatching(/trim at idle/)]);
  });

  it("does not trust a clock of another device over what that device had seen", () => {
    const { job, finding } = found();
    job.add("repair", repairBody(finding), { device: "phone", at: minute(3) });
    // Typed late on the tablet, about a moment before the repair really happened: the phone's clock is behind.
    job.trims(GOOD, { at: minute(5) });
    expect(closing(job).join()).toMatch(/may have been taken before the repair/);
  });
});

describe("locators", () => {
  it("count when they point, and prove nothing when they are quiet", () => {
    const { job } = proved();
    job.add("check", {
      check: "look",
      record: {
        items: [
          { id: "cover-gasket", state: "found" },
          { id: "oil-cap", state: "found" },
        ],
      },
    });
    expect(closing(job).join()).toMatch(/Re-check .*oil cap.*: the look and feel pointed there/);
    job.add("check", { check: "look", record: { items: [{ id: "oil-cap", state: "fine" }] } });
    expect(closing(job).join()).toMatch(/oil cap/);
    job.smoke();
    expect(closing(job)).toEqual([]);
  });

  it("a pinch points at all that lies behind it", () => {
    const { job } = proved();
    job.add("check", {
      check: "pinch",
      record: { joint: "booster-hose", how: "pinch", blankProved: true, reads: "trim", before: 12, shut: 2, released: 12 },
    });
    expect(closing(job).join()).toMatch(/re-check .*booster hose.*booster diaphragm.*pinch.*pointed there/i);
  });
});

describe("codes", () => {
  const since = (...entries: readonly (readonly ["codes" | "codes-cleared" | "drive", object])[]) => {
    const { job } = proved();
    job.add("repair", repairBody("", { what: "Clip renewed", places: ["snorkel"] }));
    job.add("complaint-tried", { how: "Idle", result: "gone" });
    job.smoke();
    job.trims(GOOD);
    for (const [kind, body] of entries) job.add(kind, body as Bodies["codes"]);
    return closing(job);
  };
  it("are owed though they were cleared, and want a drive of some length before they are read", () => {
    expect(since()).toEqual([expect.stringMatching(/^Clear the codes, drive .*read/)]);
    expect(since(["codes-cleared", {}], ["codes", { codes: [] }])).toEqual([expect.stringMatching(/^Drive 10 min/)]);
    expect(since(["codes-cleared", {}], ["drive", { minutes: 2 }], ["codes", { codes: [] }])).not.toEqual([]);
    expect(since(["drive", { minutes: 40 }], ["codes-cleared", {}], ["codes", { codes: [] }])).not.toEqual([]);
    expect(since(["codes-cleared", {}], ["drive", { minutes: 40 }], ["codes", { codes: [] }])).toEqual([]);
  });
  it("re-open when they are back as pending, and stay owed when the next reading is quiet without a drive", () => {
    const pending = { codes: [{ code: "P0171", status: "pending" }] };
    expect(since(["codes-cleared", {}], ["drive", { minutes: 40 }], ["codes", pending])).toEqual([
      "Find what is left: P0171 is back, pending, after it was cleared",
    ]);
  });
  it("are owed in the modules they were read in", () => {
    const { job } = found();
    job.add("codes", { codes: [{ code: "P0171", status: "current", module: "Engine" }], modules: ["Engine", "Gearbox"] });
    job.add("repair", repairBody(job.entries.find((e) => e.kind === "finding")?.id as string));
    job.trims(GOOD);
    job.smoke();
    job.add("complaint-tried", { how: "Idle", result: "gone" });
    job.add("codes-cleared", {});
    job.add("drive", { minutes: 25 });
    job.add("codes", { codes: [], modules: ["Gearbox"] });
    expect(closing(job)).toEqual(["Read Engine again: P0171 was read there"]);
    job.add("codes", { codes: [], modules: ["Engine"] });
    expect(closing(job)).toEqual([]);
  });
  it("that stand as permanent are said apart and block nothing", () => {
    const { job } = proved();
    job.add("codes", { codes: [{ code: "P0171", status: "permanent" }] });
    expect(closing(job)).toEqual([]);
    expect(job.state().proof.codes).toMatchObject([{ code: "P0171", quiet: true, permanent: true }]);
  });
});

describe("what is left", () => {
  const left = (of: "finding" | "check" | "code", id: string): Bodies["set-aside"] => ({
    of,
    id,
    reason: "customer sells it",
    risk: "may go lean again",
    decision: "leaves it",
    date: "2026-09-01",
  });
  it("is set aside with its reason, shown, and never called fully proved", () => {
    const { job } = proved();
    const lean = job.trims(LEAN);
    const second = job.add("finding", { joint: "oil-cap", what: "Cap hard", evidence: [], confirmed: false });
    expect(closing(job)).toHaveLength(2);
    job.add("set-aside", left("check", lean));
    job.add("set-aside", left("finding", second));
    expect(closing(job)).toEqual([]);
    expect(job.state()).toMatchObject({ standing: "something-left", setAside: [{ of: "check" }, { of: "finding" }] });
    const page = handoverOf(job.state());
    expect(page.setAside).toMatchObject([
      { reason: left("check", lean).reason, risk: left("check", lean).risk, date: "2026-09-01" },
      { what: "Cap hard", decision: left("finding", second).decision },
    ]);
    expect(page.proved).not.toMatch(/^Fully proved/);
    // The next failing reading is another matter.
    job.trims(LEAN);
    expect(closing(job)).toHaveLength(1);
  });
  it("nor is a job of which a code was left when it was read", () => {
    const { job } = proved();
    job.add("codes", { codes: [{ code: "U0100", status: "history", asideReason: "battery change" }] });
    expect(closing(job)).toEqual([]);
    expect(job.state().standing).toBe("something-left");
    expect(handoverOf(job.state()).proved).not.toMatch(/^Fully proved/);
  });
  it("a temporary repair closes as temporary", () => {
    const { job } = proved({ permanence: "temporary", recheck: "2026-09-01" });
    expect(job.state()).toMatchObject({ standing: "temporary", blocks: { close: [] } });
    expect(handoverOf(job.state()).proved).toMatch(/temporary/);
  });
});

describe("after it came back", () => {
  it("closing needs a repair since", () => {
    const { job } = proved();
    job.add("outcome", { result: "came-back" });
    expect(closing(job)).toEqual([expect.stringMatching(/: it came back$/)]);
  });
});

describe("a job closed under older rules", () => {
  const old = () => {
    const { job, finding } = found();
    job.add("repair", repairBody(finding));
    job.trims(GOOD);
    job.smoke();
    job.add("codes-cleared", {});
    job.add("complaint-tried", { how: "Idle", result: "gone" });
    job.add("close", { decidedOn: 13 });
    return job;
  };
  it("stays closed and says what would be asked now", () => {
    expect(old().state()).toMatchObject({
      status: "closed",
      wouldAsk: [{ reason: expect.stringMatching(/^Drive 10 min or more, then read the codes/) }],
    });
  });
  it("is opened for review by what came since", () => {
    const job = old();
    job.trims(LEAN);
    expect(job.state()).toMatchObject({ status: "review", wouldAsk: [] });
  });
});

describe("two devices", () => {
  it("a place that was displaced on one while the other proved it", () => {
    const { job } = proved();
    const line = new Writer();
    line.add("displaced", { what: "oil cap off", joint: "oil-cap" }, { device: "phone", seenSeq: 2, at: minute(9) });
    line.add("restored", { item: line.entries[0]?.id as string, seated: true }, { device: "phone", seenSeq: 2, at: minute(9) });
    const late = line.entries.map((e, i): JournalEntry => ({ ...e, seq: 100 + i, deviceSeq: i + 1 }));
    const reasons = foldJob([...job.entries, ...late], SHOP, NOW).blocks.close.map((b) => b.reason);
    expect(reasons.join()).toMatch(/trim at idle/);
  });
});

it("a smoke run's own fixture shows arrival everywhere its setup reaches", () => {
  const { layout } = contextOf(NATURAL);
  expect(usualSetup(layout, smokeRun(4).entry).blocked).toContain("tailpipe");
});
