import { describe, expect, it } from "vitest";
import { capRecord, decayRecord, evapSmokeRun, pulldownTrace } from "../checks/evap.fixture";
import { valve } from "../checks/records.fixture";
import { contextOf, SEALED_NECK, VAPOUR } from "../core.fixture";
import type { VehicleFacts } from "../vehicle";
import type { Bodies } from "./entries";
import { driven, minute, repairBody, Writer } from "./journal.fixture";
import { planReadiness } from "./readiness";

const closing = (job: Writer) => job.state().blocks.close.map((b) => b.reason);
const begun = (code = "P0442", facts: VehicleFacts = VAPOUR) => {
  const job = new Writer();
  job.add("opened", { number: 5 });
  job.add("vehicle", facts);
  job.add("story", { complaint: "Engine light on", symptoms: [], verified: "seen" });
  job.add("codes", { codes: [{ code, status: "stored", criteria: { leak: { value: 0.5, unit: "mm" } } }] });
  return job;
};
const leaking = (facts?: VehicleFacts) => {
  const job = begun("P0442", facts);
  job.add("check", {
    check: "evap-smoke",
    record: evapSmokeRun(1.9, { seen: [{ joint: "canister-joint", at: 80 }], noSmokeOutside: false }),
  });
  const finding = job.add("finding", { joint: "canister-joint", what: "canister joint", evidence: [], confirmed: true });
  job.add("repair", repairBody(finding, { what: "Canister joint renewed" }));
  return job;
};
const fromNeck = (change: Parameters<typeof evapSmokeRun>[1] = {}) =>
  evapSmokeRun(0, {
    entry: "filler-cap",
    arrivals: (["purge-line", "canister", "tank"] as const).map((zone, i) => ({ zone, at: 30 + i })),
    ...change,
  });
const passed: Bodies["monitor"] = { result: "passed", readBy: "readiness complete, no pending code" };

describe("proof of a vapour leak", () => {
  it("asks for the whole system from a second entry, the hidden port and cap, and the car's own monitor", () => {
    const job = leaking();
    job.add("codes-cleared", {});
    job.add("complaint-tried", { how: "Two drives", result: "gone" });
    expect(closing(job).join("\n")).toMatch(/Repeat the EVAP smoke/);
    job.add("check", { check: "evap-smoke", record: evapSmokeRun() });
    expect(closing(job)).toEqual([
      expect.stringMatching(/^Test service port from the .*: not proved since the repair/),
      expect.stringMatching(/own EVAP monitor run/),
      expect.stringMatching(/^Drive 10 min/),
    ]);
    job.add("check", { check: "evap-smoke", record: fromNeck() });
    driven(job);
    expect(closing(job)).toEqual([expect.stringMatching(/own EVAP monitor run/)]);
    job.add("monitor", { result: "failed", readBy: "P0442 pending again" });
    expect(closing(job).join()).toMatch(/ran after the repair and failed/);
    // Passed a few minutes after the codes were cleared: it cannot have run.
    job.add("monitor", passed);
    expect(closing(job)).toEqual([expect.stringMatching(/sooner than it can have run/)]);
    job.add("monitor", passed, { at: minute(12 * 60) });
    expect(closing(job)).toEqual([]);
  });

  it("takes the cap's own test for what a neck entry hid, and names zones no run showed", () => {
    const job = leaking(SEALED_NECK);
    job.add("check", {
      check: "evap-smoke",
      record: evapSmokeRun(0, {
        arrivals: [
          { zone: "canister", at: 30 },
          { zone: "tank", at: 40 },
        ],
      }),
    });
    expect(closing(job).join("\n")).toMatch(/Test .*filler neck.* from the filler cap: not proved/);
    job.add("check", { check: "evap-smoke", record: fromNeck({ heldOpen: ["neck-flap"] }) });
    expect(closing(job).join("\n")).toMatch(/Test filler cap.*: not proved since/);
    job.add("check", { check: "cap", record: capRecord({ part: "new" }) });
    expect(closing(job).join("\n")).toMatch(/Test filler cap.*: not proved since/);
    job.add("check", { check: "cap", record: capRecord() });
    // The flap keeps smoke away from the seat, and the adapter stood in its place: eyes will do.
    expect(closing(job).join("\n")).toMatch(/Test cap's seat in the neck.*: not proved since/);
    job.add("check", { check: "look", record: { items: [{ id: "cap-seat", state: "fine" }] } });
    expect(closing(job).join("\n")).not.toMatch(/filler cap|not proved since/);
  });

  it("lets a decay answer what smoke could not tell, and a void run answers nothing", () => {
    const job = leaking();
    job.add("check", {
      check: "evap-smoke",
      record: evapSmokeRun(0, { required: { size: { value: 0.2, unit: "mm" }, source: "maker" } }),
    });
    expect(closing(job).join()).toMatch(/not sure yet of .*time the decay/);
    job.add("check", { check: "decay", record: decayRecord(0, { touchedBefore: ["filler-cap"] }, 0.508) });
    expect(closing(job).join()).toMatch(/not sure yet/);
    job.add("check", { check: "decay", record: decayRecord(0, {}, 0.508) });
    expect(closing(job).join()).not.toMatch(/not sure yet|^Repeat/);
  });

  it("wants a purge seat that leaked cold proved cold", () => {
    const job = begun("P0496");
    job.add("check", { check: "valve", record: valve });
    expect(job.state().suspects[0]?.cause.id).toBe("purge-valve");
    job.add("check", { check: "valve", record: { ...valve, temperature: "cold", rest: { start: 18, end: 9, seconds: 60 } } });
    const finding = job.add("finding", { joint: "purge-valve", what: "seat leaks cold", evidence: [], confirmed: true });
    job.add("repair", repairBody(finding, { what: "Purge valve renewed" }));
    job.add("check", { check: "valve", record: valve });
    expect(closing(job).join()).toMatch(/Finish the .*: purge valve holds where it must, cold not shown yet/);
    job.add("check", { check: "valve", record: { ...valve, temperature: "cold" } });
    expect(closing(job).join()).not.toMatch(/cold/);
    // A warm test that comes after takes nothing back, a bad one does.
    job.add("check", { check: "valve", record: valve });
    expect(closing(job).join()).not.toMatch(/cold/);
    job.add("check", { check: "valve", record: { ...valve, rest: { start: 18, end: 9, seconds: 60 } } });
    expect(closing(job).join()).toMatch(/shows after the repair: Purge valve leaks at rest/);
  });
});

describe("suspects of the vapour system", () => {
  it("weighs the family its codes point at, and both where both do", () => {
    const ids = (job: Writer) => job.state().suspects.map((s) => s.cause.id);
    expect(ids(begun())).toContain("filler-cap");
    expect(ids(begun())).not.toContain("manifold-gasket");
    expect(ids(begun("P0171"))).not.toContain("filler-cap");
    const both = begun("P0171");
    both.add("codes", {
      codes: [
        { code: "P0171", status: "stored" },
        { code: "P0496", status: "stored" },
      ],
    });
    expect(both.state().suspects[0]?.cause.id).toBe("purge-valve");
    expect(ids(both)).toEqual(expect.arrayContaining(["manifold-gasket", "filler-cap"]));
  });

  it("tells a vent stuck open from a gross leak once it has been pulled down with the vent plugged", () => {
    const job = begun("P0455");
    const first = (): string | undefined => job.state().suspects[0]?.cause.id;
    job.add("check", { check: "pulldown", record: pulldownTrace({ ventShut: 8e-3 }) });
    job.add("check", { check: "pulldown", record: pulldownTrace({}, { vent: { by: "plug" } }) });
    expect(first()).toBe("vent-open");
    const gross = begun("P0455");
    gross.add("check", { check: "pulldown", record: pulldownTrace({ leak: 8e-3 }) });
    gross.add("check", { check: "pulldown", record: pulldownTrace({ leak: 8e-3 }, { vent: { by: "plug" } }) });
    expect(gross.state().suspects[0]?.cause.id).not.toBe("vent-open");
    expect(gross.state().suspects.find((s) => s.cause.id === "vent-open")?.odds).toBeLessThan(0.02);
  });

  it("lets a symptom of the pump lead to the vent path", () => {
    const job = new Writer();
    job.add("opened", { number: 6 });
    job.add("vehicle", VAPOUR);
    job.add("story", { complaint: "Will not take fuel", symptoms: ["nozzle-clicks"], verified: "seen" });
    expect(job.state().suspects[0]?.cause.trait).toBe("vent-blocked");
    expect(
      job
        .state()
        .next.slice(0, 3)
        .map((n) => n.check),
    ).toContain("vent-path");
  });
});

describe("readiness", () => {
  const context = contextOf(VAPOUR);
  const parkedAt = "2026-03-02T18:00:00Z";
  const facts = { fuelLevel: 45, outside: { value: 8, unit: "°C" }, parkedAt } as const;
  const at = (iso: string) => Date.parse(iso);
  it("turns the enabling conditions into a time, and says what must stay so", () => {
    const plan = planReadiness(facts, context, { cleared: true }, at("2026-03-02T20:00:00Z"));
    expect(plan.readyFrom).toBe(at("2026-03-03T02:00:00Z"));
    expect(plan.conditions.map((c) => c.state)).toEqual(["met", "met", "met", "waits"]);
    expect(plan.aslong).toBe("if the tank stays between 15 and 85 % and the air between 4 and 35 °C");
    expect(planReadiness(facts, context, { cleared: true }, at("2026-03-03T02:00:00Z")).conditions.at(-1)?.state).toBe("met");
  });
  it("names what must be put right first, and then gives no time", () => {
    const plan = planReadiness({ ...facts, fuelLevel: 9, outside: { value: -3, unit: "°C" } }, context, { cleared: false }, 0);
    expect(plan.readyFrom).toBeUndefined();
    expect(plan.conditions.filter((c) => c.state === "wrong").map((c) => c.id)).toEqual(["codes", "fuel", "outside"]);
  });
  it("is folded with the clock it is given, and a plan from before the repair is dropped", () => {
    const job = leaking();
    job.add("codes-cleared", {});
    job.add("readiness", { ...facts, parkedAt: minute(30) });
    const soak = (hours: number) => job.state(Date.parse(minute(30)) + hours * 3600_000).readiness?.conditions.at(-1)?.state;
    expect(soak(1)).toBe("waits");
    expect(soak(9)).toBe("met");
    job.add("repair", repairBody(job.entries.find((e) => e.kind === "finding")?.id as string));
    expect(job.state().readiness).toBeUndefined();
  });
});
