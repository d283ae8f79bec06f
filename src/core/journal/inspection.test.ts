import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, TURBO } from "../core.fixture";
import { handoverOf } from ".";
import { inspectionOf } from "./inspection";
import { SHOP, Writer } from "./journal.fixture";

function inspection(purpose: "inspection" | "complaint" = "inspection") {
  const job = new Writer();
  job.add("opened", { number: 1 });
  job.add("vehicle", NATURAL);
  job.add("story", {
    complaint: "Looked over",
    symptoms: [],
    verified: "not-tried",
    ...(purpose === "inspection" ? { purpose } : {}),
  });
  return job;
}
const why = (job: Writer) => job.state().blocks.close.map((b) => b.reason);

describe("an inspection", () => {
  it("asks for no repair, no complaint and no drive; a complaint does", () => {
    const job = inspection();
    expect(why(job)).toEqual([expect.stringMatching(/nothing is inspected yet/)]);
    job.smoke();
    expect(why(job)).toEqual([]);
    const complaint = inspection("complaint");
    complaint.smoke();
    expect(why(complaint)).toEqual([expect.stringMatching(/nothing is repaired yet/)]);
  });

  it("does not count a void run or a look as one", () => {
    const job = inspection();
    job.add("check", { check: "look", record: { items: [] } });
    job.smoke({ zeroed: false, proof: { pressure: { value: 3, unit: "inH2O" }, ballAtBottom: false, smokeSeen: false } });
    expect(why(job)).toEqual([expect.stringMatching(/nothing is inspected yet/)]);
  });

  it("does not end while what leaks is neither recorded nor left as the customer decided", () => {
    const job = inspection();
    const run = job.smoke({ seen: [{ joint: "pcv-hose", at: 40 }], noSmokeOutside: false });
    expect(why(job).join()).toMatch(/Record what the .* showed as found, or set it aside/);
    const finding = job.add("finding", { joint: "pcv-hose", what: "split", confirmed: true, evidence: [run] });
    expect(why(job)).toEqual([expect.stringMatching(/Repair what was found, or set it aside: split/)]);
    job.add("set-aside", {
      of: "finding",
      id: finding,
      reason: "later",
      risk: "light",
      decision: "in spring",
      date: "2027-04-01",
    });
    expect(why(job)).toEqual([]);
  });

  it("hands over what is tight, what leaks and what was not reached", () => {
    const job = inspection();
    job.smoke({ seen: [{ joint: "pcv-hose", at: 40 }], noSmokeOutside: false });
    const page = handoverOf(job.state());
    expect(page.inspected?.notReached).toEqual(expect.arrayContaining(["Booster branch", "Purge line"]));
    expect([...(page.inspected?.tight ?? []), ...(page.inspected?.leaking ?? [])].length).toBeGreaterThan(0);
    expect(page.proved).toMatch(/Inspected in part/);
    expect(handoverOf(inspection("complaint").state()).inspected).toBeUndefined();
  });

  it("goes circuit by circuit as the shop offers them, and ends with the page", () => {
    const job = inspection();
    expect(job.state().nextStation).toEqual({ station: "check", reason: "Inspect the intake: smoke run" });
    expect(job.state().next[0]).toMatchObject({ check: "smoke", why: expect.stringContaining("1 of 2 circuits") });
    job.smoke({ zeroed: false, proof: { pressure: { value: 3, unit: "inH2O" }, ballAtBottom: false, smokeSeen: false } });
    // A void run has inspected nothing.
    expect(job.state().next[0]?.check).toBe("smoke");
    job.smoke();
    expect(job.state().nextStation.reason).toBe("Inspect the vapour system: EVAP smoke");
    expect(job.state().inspection).toMatchObject({ done: [{ circuit: "Intake" }], left: [{ circuit: "Vapour system" }] });
  });

  it("has no routine where the car is here for a complaint, and asks for nothing that the car has not", () => {
    expect(inspection("complaint").state().inspection).toBeUndefined();
    const steps = (house: "all" | "smoke" | "intake", vehicle: typeof NATURAL) =>
      inspectionOf(contextOf(vehicle, { ...SHOP, house: { ...SHOP.house, inspection: house } }), []).left.map((s) => s.check);
    expect(steps("intake", NATURAL)).toEqual(["smoke"]);
    expect(steps("all", NATURAL)).not.toContain("pressure-test");
    expect(steps("all", TURBO)).toContain("pressure-test");
  });
});
