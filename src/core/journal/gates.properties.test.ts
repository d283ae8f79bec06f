import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NATURAL } from "../core.fixture";
import { foldJob } from "./fold";
import { GOOD, LEAN, minute, NOW, repairBody, SHOP, Writer } from "./journal.fixture";

/** Something a technician may do; every journal of these must fold, and none may close half proven. */
type Step =
  | "lean survey"
  | "good survey"
  | "smoke at the hose"
  | "tight smoke"
  | "void smoke"
  | "finding"
  | "repair"
  | "temporary repair"
  | "bypass"
  | "plug in"
  | "plug out"
  | "complaint gone"
  | "complaint remains"
  | "codes cleared"
  | "blind survey"
  | "drive"
  | "codes quiet"
  | "codes again";

const STEPS: readonly Step[] = [
  "lean survey",
  "good survey",
  "smoke at the hose",
  "tight smoke",
  "void smoke",
  "finding",
  "repair",
  "temporary repair",
  "bypass",
  "plug in",
  "plug out",
  "complaint gone",
  "complaint remains",
  "codes cleared",
  "blind survey",
  "drive",
  "codes quiet",
  "codes again",
];

function play(steps: readonly Step[]): Writer {
  const job = new Writer();
  job.add("opened", { number: 1 });
  job.add("vehicle", NATURAL);
  job.add("story", { complaint: "Rough idle", symptoms: [], verified: "seen" });
  job.add("codes", { codes: [{ code: "P0171", status: "current" }] });
  let finding = "";
  let plug = "";
  for (const step of steps) {
    switch (step) {
      case "lean survey":
        job.trims(LEAN);
        break;
      case "good survey":
        job.trims(GOOD);
        break;
      case "blind survey":
        // On another device that has seen nothing since the job was opened.
        job.trims(GOOD, { device: "phone", seenSeq: 1 });
        break;
      case "smoke at the hose":
        job.smoke({ seen: [{ joint: "pcv-hose", at: 40 }], noSmokeOutside: false }, 9);
        break;
      case "tight smoke":
        job.smoke();
        break;
      case "void smoke":
        job.smoke({ heaterOnAt: -290 });
        break;
      case "finding":
        finding = job.add("finding", { joint: "pcv-hose", what: "PCV hose split", evidence: [], confirmed: true });
        break;
      case "repair":
        job.add("repair", repairBody(finding));
        break;
      case "temporary repair":
        job.add("repair", repairBody(finding, { permanence: "temporary", recheck: "2026-09-01" }));
        break;
      case "bypass":
        job.add("repair", repairBody(finding, { permanence: "bypass" }));
        break;
      case "plug in":
        plug = job.add("displaced", { what: "plug at Tailpipe" });
        break;
      case "plug out":
        if (plug) job.add("restored", { item: plug });
        break;
      case "complaint gone":
      case "complaint remains":
        job.add("complaint-tried", { how: "Idle", result: step === "complaint gone" ? "gone" : "remains" });
        break;
      case "drive":
        job.add("drive", { minutes: 25 });
        break;
      case "codes quiet":
      case "codes again":
        job.add("codes", { codes: step === "codes quiet" ? [] : [{ code: "P0171", status: "pending" }] });
        break;
      case "codes cleared":
        job.add("codes-cleared", {});
        break;
    }
  }
  return job;
}

/** Steps after the last repair of any kind. */
const after = (steps: readonly Step[]) =>
  steps.slice(1 + steps.findLastIndex((s) => s === "repair" || s === "temporary repair" || s === "bypass"));
const lastOf = (steps: readonly Step[], ...kinds: Step[]) => steps.findLast((s) => kinds.includes(s));

const journeys = fc.array(fc.constantFrom(...STEPS), { maxLength: 22 });

describe("no journal closes half proven (properties)", () => {
  it("whatever was done, in whatever order", () => {
    let closable = 0;
    const soundly = (steps: readonly Step[]) => {
      const state = play(steps).state();
      if (state.blocks.close.length > 0) return;
      closable++;
      const since = after(steps);
      const before = steps.slice(0, steps.length - since.length);
      expect(before.some((s) => s === "repair" || s === "temporary repair")).toBe(true);
      expect(steps).not.toContain("bypass");
      expect(lastOf(since, "codes quiet", "codes again")).toBe("codes quiet");
      expect(since.indexOf("codes cleared")).toBeLessThan(since.lastIndexOf("drive"));
      expect(since.lastIndexOf("codes quiet")).toBeGreaterThan(since.indexOf("drive"));
      expect(state.offCar.every((i) => !i.open)).toBe(true);
      expect(lastOf(since, "complaint gone", "complaint remains")).toBe("complaint gone");
      expect(since).toContain("codes cleared");
      expect(before.some((s) => s === "lean survey" || s === "smoke at the hose")).toBe(true);
      if (before.includes("lean survey")) expect(lastOf(since, "lean survey", "good survey")).toBe("good survey");
      if (before.includes("smoke at the hose")) expect(lastOf(since, "smoke at the hose", "tight smoke")).toBe("tight smoke");
      expect(since).not.toContain("finding");
    };
    fc.assert(fc.property(journeys, soundly), { numRuns: 80 });
    // Journeys that end as a good job does, so that the closing ones are met as well.
    const ending: Step[] = [
      "lean survey",
      "finding",
      "repair",
      "good survey",
      "tight smoke",
      "complaint gone",
      "codes cleared",
      "drive",
      "codes quiet",
    ];
    fc.assert(
      fc.property(journeys, (steps) => soundly([...steps, ...ending])),
      { numRuns: 80 },
    );
    expect(closable).toBeGreaterThan(20);
  }, 120_000);

  it("and handing over needs everything back on the car", () => {
    fc.assert(
      fc.property(journeys, (steps) => {
        const state = play(steps).state();
        const open = state.offCar.filter((i) => i.open);
        const bypassed = state.repairs.filter((r) => r.body.permanence === "bypass");
        expect(state.blocks.handOver.length).toBe(open.length + bypassed.length);
      }),
      { numRuns: 60 },
    );
  });

  it("and a later entry that happened earlier changes nothing that it did not see", () => {
    const ending: Step[] = [
      "lean survey",
      "finding",
      "repair",
      "good survey",
      "complaint gone",
      "codes cleared",
      "drive",
      "codes quiet",
    ];
    const job = play(ending);
    expect(job.state().blocks.close).toEqual([]);
    const late = new Writer();
    late.trims(LEAN, { at: minute(2), device: "phone", seenSeq: 1 });
    const entry = { ...(late.entries[0] as (typeof late.entries)[number]), seq: job.entries.length + 1 };
    const state = foldJob([...job.entries, entry], SHOP, NOW);
    expect(state.checks.find((c) => c.entry === entry.id)?.afterRepair).toBe("before");
    // Nobody who proved the repair knew of it: it counts against, until the technician says that it came before.
    expect(state.blocks.close.map((b) => b.reason)).toEqual([expect.stringMatching(/say that it was taken before/)]);
    const told = new Writer();
    const repair = job.entries.find((e) => e.kind === "repair")?.id as string;
    told.add("order", { entry: entry.id, before: repair }, { at: minute(60) });
    const order = { ...(told.entries[0] as (typeof told.entries)[number]), seq: job.entries.length + 2 };
    expect(foldJob([...job.entries, entry, order], SHOP, NOW).blocks.close).toEqual([]);
    // The same word never moves a pass behind the repair.
    const early = play([
      "lean survey",
      "good survey",
      "finding",
      "repair",
      "complaint gone",
      "codes cleared",
      "drive",
      "codes quiet",
    ]);
    const good = early.entries.filter((e) => e.kind === "check")[1]?.id as string;
    early.add("order", { entry: good, before: early.entries.find((e) => e.kind === "repair")?.id as string });
    expect(early.state().blocks.close).not.toEqual([]);
  });
});
