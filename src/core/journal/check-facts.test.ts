import { describe, expect, it } from "vitest";
import { pressure } from "../checks/records.fixture";
import { contextOf, TURBO } from "../core.fixture";
import { checkFacts } from ".";
import { SHOP, Writer } from "./journal.fixture";

const car = { ...TURBO, maxBoost: { value: 1, unit: "bar", kind: "gauge" } } as const;
const context = contextOf(car);

describe("where a check is proposed", () => {
  it("is the most suspect place, but for what goes in by a way of its own: that hides what it is let in at", () => {
    const job = new Writer();
    job.add("opened", { number: 1 });
    job.add("vehicle", car);
    job.add("codes", { codes: [{ code: "P0299", status: "current" }] });
    // Nothing is best next here: only the place itself speaks.
    const state = { ...job.state(), next: [] };
    const pinch = checkFacts("pinch", state, SHOP, context);
    expect(pinch.place).toEqual({ id: pinch.places[0]?.id, because: "The most suspect" });
    const test = checkFacts("pressure-test", state, SHOP, context);
    expect(test.place).toEqual({ id: "hot-pipe-clamp", because: "" });
  });

  it("is where it failed, as long as that is not answered, whatever is most suspect since", () => {
    const job = new Writer();
    job.add("opened", { number: 1 });
    job.add("vehicle", car);
    const at = { value: 0.6, unit: "bar", kind: "gauge" } as const;
    const entry = "cold-pipe-split";
    job.add("check", {
      check: "pressure-test",
      record: { ...pressure, entry, blocked: ["compressor"], escapes: [{ joint: "cooler-tank", sign: "soap", from: at }] },
    });
    const finding = job.add("finding", { joint: "cooler-tank", what: "cracked", confirmed: true, evidence: [] });
    const repair = { finding, what: "cooler", permanence: "permanent", places: ["cooler-tank"], labourMinutes: 1 } as const;
    job.add("repair", { ...repair, parts: [], otherChanges: [] });
    expect(checkFacts("pressure-test", job.state(), SHOP, context).place).toEqual({
      id: entry,
      because: "As it was when it failed",
    });
    job.add("check", { check: "pressure-test", record: { ...pressure, entry, blocked: ["compressor"] } });
    expect(checkFacts("pressure-test", { ...job.state(), next: [] }, SHOP, context).place?.id).toBe("hot-pipe-clamp");
  });
});
