import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { canonicalJson, contentHash } from "../canonical";
import { NATURAL } from "../core.fixture";
import type { JournalEntry } from "./envelope";
import { foldJob } from "./fold";
import { handoverOf } from "./handover";
import { driven, found, GOOD, LEAN, minute, NOW, proved, repairBody, SHOP, Writer } from "./journal.fixture";
import { entryWords } from "./words";

const reasons = (job: Writer) => job.state().blocks.close.map((b) => b.reason);
const states = (job: Writer) => job.state().stations;

describe("fold", () => {
  it("does not depend on the order entries arrive in (property)", () => {
    const { job } = proved();
    const reference = canonicalJson(job.state());
    fc.assert(
      fc.property(fc.shuffledSubarray(job.entries, { minLength: job.entries.length }), (shuffled) => {
        expect(canonicalJson(foldJob(shuffled, SHOP, NOW))).toBe(reference);
      }),
      { numRuns: 20 },
    );
  });

  it("is plain JSON and total: no subset of a journal throws (property)", () => {
    const { job } = proved();
    fc.assert(
      fc.property(fc.subarray(job.entries), (some) => {
        const state = foldJob(some, SHOP, NOW);
        expect(JSON.parse(JSON.stringify(state))).toEqual(state);
      }),
      { numRuns: 30 },
    );
  });

  it("keeps an unknown kind, shown as inert", () => {
    const { job } = found();
    const strange = { ...(job.entries[0] as JournalEntry), id: "x", kind: "hologram", seq: 99, body: { a: 1 } };
    const state = foldJob([...job.entries, strange], SHOP, NOW);
    expect(state.unknown).toEqual([{ entry: "x", kind: "hologram" }]);
    const { unknown: _, lastSeq: __, ...rest } = state;
    const { unknown: ___, lastSeq: ____, ...before } = job.state();
    expect(rest).toEqual(before);
    expect(entryWords(strange, state)).toMatch(/does not know: hologram/);
  });

  it("lets the newest correction win by seq, both staying in the journal", () => {
    const { job } = found();
    const root = job.entries.find((e) => e.kind === "story")?.id as string;
    job.add("story", { complaint: "First wording", symptoms: [], verified: "seen" }, { corrects: root });
    job.add("story", { complaint: "Second wording", symptoms: [], verified: "seen" }, { corrects: root, at: minute(1) });
    expect(job.state().story?.complaint).toBe("Second wording");
    expect(job.entries.filter((e) => e.kind === "story")).toHaveLength(3);
  });

  it("takes a retracted line out, and only that", () => {
    const { job, finding } = found();
    const before = job.state();
    job.add("retract", { reason: "wrong car" }, { corrects: finding });
    expect(job.state().findings).toEqual([]);
    expect(job.state().checks).toEqual(before.checks);
  });

  it("voids a record that names what this vehicle has not, and goes on", () => {
    const { job } = found();
    job.smoke({ entry: "cooler-inlet-of-another-car" });
    const last = job.state().checks.at(-1);
    expect(last?.verdict).toMatchObject({ outcome: "void", headline: "This record cannot be judged" });
  });

  it("says when today's rules would read a check otherwise than was shown", () => {
    const job = new Writer();
    job.add("vehicle", NATURAL);
    const entry = job.trims(GOOD);
    job.add("judged", { entry, inputsHash: "x", rulesVersion: 0, outcome: "fail", headline: "Lean" });
    expect(job.state().checks[0]?.wasShown).toEqual({ outcome: "fail", headline: "Lean" });
  });

  it("weighs nothing of a void check", () => {
    const { job } = found();
    const before = job.state().suspects;
    job.smoke({ heaterOnAt: -280 });
    expect(job.state().checks.at(-1)?.verdict.outcome).toBe("void");
    expect(job.state().suspects).toEqual(before);
    expect(job.state().zones.find((z) => z.zone === "manifold")?.state).toBe("leaking");
  });

  it("retires the repaired cause's evidence once a check has answered", () => {
    const { job } = proved();
    expect(job.state().suspects).toEqual([]);
    const { job: second, finding } = found();
    second.add("repair", repairBody(finding));
    second.trims(LEAN);
    const [first] = second.state().suspects;
    expect(first?.cause.joint).not.toBe("pcv-hose");
    expect(first?.cause.trait).toMatch(/leak/);
  });

  it("knows of a second bank by what only a second bank can set, where nobody said how many there are", () => {
    const job = new Writer();
    job.add("vehicle", { fuel: "petrol", displacement: { value: 2.8, unit: "L" } });
    expect(job.state().vehicle).toMatchObject({ banks: 1, unknown: expect.arrayContaining(["banks"]) });
    job.add("codes", { codes: [{ code: "P0174", status: "stored" }] });
    expect(job.state().vehicle?.banks).toBe(2);
    expect(job.state().vehicle?.unknown).not.toContain("banks");
    const said = new Writer();
    said.add("vehicle", NATURAL);
    said.add("codes", { codes: [{ code: "P0174", status: "stored" }] });
    expect(said.state().vehicle?.banks).toBe(1);
  });

  it("takes a leak found before the repair as repaired, not as proved tight", () => {
    const { job, finding } = found();
    expect(job.state().zones.find((z) => z.zone === "manifold")?.state).toBe("leaking");
    job.add("repair", repairBody(finding));
    expect(job.state().zones.find((z) => z.zone === "manifold")).toMatchObject({ state: "not-reached" });
    job.smoke();
    expect(job.state().zones.find((z) => z.zone === "manifold")?.state).toBe("tight");
  });
});

describe("after the last repair", () => {
  const repairedJob = () => {
    const { job, finding } = found();
    const repair = job.add("repair", repairBody(finding), { at: { from: minute(10), to: minute(40) } });
    return { job, repair };
  };
  it("counts only what began after it ended", () => {
    const { job } = repairedJob();
    job.trims(GOOD, { at: { from: minute(39), to: minute(45) } });
    expect(job.state().checks.at(-1)?.afterRepair).toBe("before");
    job.trims(GOOD, { at: { from: minute(41), to: minute(45) } });
    expect(job.state().checks.at(-1)?.afterRepair).toBe("after");
  });

  it("asks when the device had not seen the repair", () => {
    const { job } = repairedJob();
    job.trims(GOOD, { at: minute(50), device: "phone", seenSeq: 3 });
    expect(job.state().checks.at(-1)?.afterRepair).toBe("unknown");
    expect(reasons(job).join()).toMatch(/Repeat the fuel-trim survey .*may have been taken before the repair/);
  });

  it("starts anew with every further repair", () => {
    const { job } = proved();
    expect(job.state().blocks.close).toEqual([]);
    job.add("repair", repairBody("", { what: "Oil cap renewed" }));
    expect(reasons(job)).toEqual([
      // The survey takes nothing off: it comes last, and stands.
      expect.stringMatching(/^Re-check PCV hose.*\(Oil cap renewed\)/),
      expect.stringMatching(/^Re-check trim at idle.*\(Oil cap renewed\)/),
      "Try the complaint again: not tried since the last repair",
      expect.stringMatching(/^Clear the codes/),
    ]);
  });
});

describe("gates", () => {
  it("closes what is proved", () => {
    const { job } = proved();
    expect(job.state().blocks).toEqual({ close: [], handOver: [] });
    expect(job.state().nextStation.station).toBe("handover");
    job.add("handover", { decidedOn: job.state().lastSeq, conditional: false, summary: "Sound again" });
    job.add("close", { decidedOn: job.state().lastSeq });
    expect(job.state().status).toBe("closed");
  });

  it("refuses a repair without proof, reason by reason", () => {
    const { job, finding } = found();
    expect(reasons(job)).toEqual([
      "Repair what was found, or set it aside: PCV hose split",
      "Repair it, show that nothing is wrong, or hand over conditionally: nothing is repaired yet",
    ]);
    job.add("repair", repairBody(finding));
    expect(reasons(job)).toHaveLength(4);
    job.trims(GOOD);
    job.smoke({ heaterOnAt: -280 });
    expect(reasons(job).join()).toMatch(/Repeat the smoke run: the one after the last repair is void \(.+\)/);
    job.smoke({ noSmokeOutside: false });
    expect(reasons(job).join()).toMatch(/smoke run, not sure yet of/);
    job.smoke({ seen: [{ joint: "oil-cap", at: 30 }], noSmokeOutside: false }, 9);
    expect(reasons(job)).toContain("Go on from what the smoke run shows after the repair: Smoke at Oil cap");
    job.smoke();
    job.add("complaint-tried", { how: "Idle", result: "remains" });
    expect(reasons(job)).toContain("Go on looking: the complaint remains, whatever the readings say");
    job.add("complaint-tried", { how: "Idle and hill", result: "gone" });
    job.add("codes-cleared", {});
    expect(reasons(job)).toEqual([expect.stringMatching(/^Drive 10 min or more, then read the codes/)]);
    job.add("drive", { minutes: 25 });
    expect(reasons(job)).toEqual(["Read again after the drive: P0171"]);
    job.add("codes", { codes: [] });
    expect(reasons(job)).toEqual([]);
  });

  it("takes no smoke run as proof that did not put the repaired place to the test", () => {
    const { job, finding } = found();
    job.add("repair", repairBody(finding));
    job.trims(GOOD);
    job.add("complaint-tried", { how: "Idle", result: "gone" });
    job.add("codes-cleared", {});
    job.smoke({ arrivals: [] });
    expect(job.state().checks.at(-1)?.verdict.outcome).toBe("pass");
    driven(job);
    expect(reasons(job)).toEqual([expect.stringMatching(/^(Repeat|Finish) the smoke run/)]);
    job.smoke();
    expect(reasons(job)).toEqual([]);
  });

  it("lets no check of before the repair prove it", () => {
    const { job, finding } = found();
    job.trims(GOOD);
    job.smoke();
    job.add("repair", repairBody(finding));
    expect(reasons(job).join()).toMatch(/Re-check .*trim at idle.*touched since \(PCV hose renewed\)/);
  });

  it("is shut while anything is off the car or bypassed, for closing and for handing over", () => {
    const { job } = proved({ permanence: "bypass" });
    const item = job.add("displaced", { what: "plug at Tailpipe", joint: "tailpipe" });
    expect(job.state().blocks.handOver.map((b) => b.reason)).toEqual([
      "Put back to normal: plug at Tailpipe",
      "Undo the bypass, which is no repair: PCV hose renewed",
    ]);
    expect(job.state().offCar).toMatchObject([{ what: "plug at Tailpipe", open: true }]);
    job.add("restored", { item });
    expect(job.state().offCar[0]?.open).toBe(false);
  });

  it("does not close when nothing ever showed the fault", () => {
    const job = new Writer();
    job.add("vehicle", NATURAL);
    job.add("story", { complaint: "Light on", symptoms: [], verified: "not-seen" });
    job.add("repair", repairBody("", { what: "Filter renewed" }));
    job.add("complaint-tried", { how: "Drive", result: "gone" });
    expect(reasons(job)).toEqual([
      "Hand it over conditionally: no check showed the fault before the repair, so none can show that it is gone",
    ]);
  });

  it("needs no code cleared that was set aside with a reason", () => {
    const { job } = proved();
    job.add("codes", { codes: [{ code: "B1325", status: "history", asideReason: "seat heater" }] });
    expect(reasons(job)).toEqual([]);
  });

  it("flags a closed job for review when a late entry breaks its gates", () => {
    const { job } = proved();
    job.add("handover", { decidedOn: job.state().lastSeq, conditional: false, summary: "Sound" });
    job.add("close", { decidedOn: job.state().lastSeq });
    expect(job.state().status).toBe("closed");
    job.add("displaced", { what: "engine cover" }, { at: minute(9), device: "phone" });
    expect(job.state()).toMatchObject({ status: "review", stations: { handover: "needs-you" } });
  });

  it("hands over conditionally, then takes what happened weeks later", () => {
    const { job, finding } = found();
    job.add("repair", repairBody(finding));
    expect(job.state().blocks.handOver).toEqual([]);
    job.add("handover", { decidedOn: 9, conditional: true, summary: "Drive it" });
    job.add("outcome", { result: "came-back", note: "after the pass" });
    const page = handoverOf(job.state());
    expect(job.state()).toMatchObject({ status: "handed-over", outcomes: [{ result: "came-back" }] });
    expect(page.unproved.join()).toMatch(/Repeat the smoke run: PCV hose/);
  });
});

describe("confounded changes", () => {
  it("names them when more than one thing changed between bad and good", () => {
    expect(proved().job.state().confounded).toEqual([]);
    const { job } = proved({ otherChanges: ["air filter renewed"] });
    expect(job.state().confounded).toEqual(["PCV hose renewed", "air filter renewed"]);
    expect(handoverOf(job.state()).unproved.join()).toMatch(
      /Cured, cause unproved: changed together were PCV hose renewed; air filter/,
    );
  });
});

describe("two faults, each found, repaired and measured again", () => {
  /** A second fault beside the first: its own finding, its own reading, its own repair. */
  const second = (confirmed: boolean) => {
    const { job, finding } = found();
    const vacuum = (vacuum: number) => ({
      vacuum: { value: vacuum, unit: "inHg", kind: "vacuum" as const },
      rpm: 760,
      needle: "steady",
      snap: "not-tried",
      portSound: true,
      warm: true,
      instrument: { name: "Gauge", division: { value: 0.1, unit: "inHg" }, zero: { value: 0, unit: "inHg" } },
      ambient: { value: 1006, unit: "hPa", kind: "absolute" as const },
    });
    job.add("check", { check: "vacuum", record: vacuum(13) });
    const other = job.add("finding", { joint: "oil-cap", what: "Oil cap seal gone", evidence: [], confirmed });
    job.add("repair", repairBody(finding));
    job.add("repair", repairBody(other, { what: "Oil cap renewed", parts: [{ name: "oil cap", count: 1 }] }));
    job.trims(GOOD);
    job.smoke();
    job.add("check", { check: "vacuum", record: vacuum(19.5) });
    return job.state().confounded;
  };
  it("is no cure whose cause is not proved; one that was not confirmed is", () => {
    expect(second(true)).toEqual([]);
    expect(second(false)).toEqual(["PCV hose renewed", "Oil cap renewed"]);
  });
});

describe("residue inside a seal only", () => {
  it("says that the seal works, and is nothing to repair", () => {
    const { job } = proved();
    job.add("finding", { joint: "oil-cap", what: "Dye inside the seal", evidence: [], confirmed: false, residue: "inside" });
    expect(
      job
        .state()
        .blocks.close.map((b) => b.reason)
        .join(),
    ).not.toMatch(/Repair what was found/);
  });
});

describe("stations", () => {
  it("go from untouched to settled, with one marked as next", () => {
    const job = new Writer();
    expect(states(job)).toMatchObject({ story: "needs-you", scan: "untouched", handover: "untouched" });
    const { job: later } = found();
    expect(states(later)).toMatchObject({
      story: "settled",
      scan: "settled",
      check: "settled",
      find: "settled",
      look: "untouched",
    });
    // Passed over, the look never stands in the way.
    expect(later.state().nextStation).toEqual({
      station: "fix",
      reason: "Repair what was found, or set it aside: PCV hose split",
    });
  });
});

describe("handover", () => {
  it("sets each check's last word before beside the last after, void ones left out", () => {
    const { job } = proved();
    const [trims, smoke] = handoverOf(job.state()).comparisons;
    expect(trims).toMatchObject({ check: "trims", before: { word: "Faulty" }, after: { word: "Works" } });
    expect(smoke).toMatchObject({ check: "smoke", before: { word: "Leaking" }, after: { word: "Tight" } });
    const { job: temporary } = proved({ permanence: "temporary", recheck: "2026-06-01" });
    expect(handoverOf(temporary.state()).temporary).toMatchObject([{ what: "PCV hose renewed", recheck: "2026-06-01" }]);
  });
});

describe("smoke seen at two places in one run", () => {
  it("raises both, whichever was marked first", () => {
    for (const places of [
      ["pcv-hose", "vacuum-branch"],
      ["vacuum-branch", "pcv-hose"],
    ]) {
      const { job } = found();
      job.smoke({ seen: places.map((joint, i) => ({ joint, at: 40 + i })), noSmokeOutside: false }, 9);
      const top = job.state().suspects.slice(0, 2);
      expect(new Set(top.map((s) => s.cause.joint))).toEqual(new Set(places));
      expect(top[1]?.odds).toBeGreaterThan(0.02);
    }
  });
});

describe("canonical JSON", () => {
  it("is one text for equal values, whatever their key order", () => {
    expect(canonicalJson({ b: 1, a: [1, { d: 2, c: undefined }] })).toBe('{"a":[1,{"d":2}],"b":1}');
    expect(contentHash({ a: 1, b: 2 })).toBe(contentHash({ b: 2, a: 1 }));
    expect(contentHash({ a: 1 })).not.toBe(contentHash({ a: 2 }));
  });
});

describe("journal in words", () => {
  it("has a line for every kind written so far", () => {
    const { job } = proved();
    const off = job.add("displaced", { what: "engine cover" });
    job.add("restored", { item: off });
    job.add("note", { text: "ferry at six" });
    job.add("waiting", { on: "cold-soak" });
    job.add("caution", { caution: "smoke-vapour" });
    const state = job.state();
    const lines = job.entries.map((e) => entryWords(e, state));
    expect(lines).toEqual(
      expect.arrayContaining(["Job 7 opened", "Refitted: engine cover", "Note: ferry at six", "Waiting for: cold soak"]),
    );
    for (const words of lines) expect(words).not.toMatch(/undefined|object Object/);
  });
});
