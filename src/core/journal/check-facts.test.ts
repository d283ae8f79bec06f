import { describe, expect, it } from "vitest";
import { CHECKS, type CheckId } from "../checks";
import type { CheckFacts } from "../checks/check-form";
import { pressure } from "../checks/records.fixture";
import { contextOf, TURBO } from "../core.fixture";
import { type Form, formStateOf } from "../form";
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

describe("the set-up of a check that failed", () => {
  const failing = (kind: CheckId, failed: object) => {
    const job = new Writer();
    job.add("opened", { number: 1 });
    job.add("vehicle", car);
    job.add("check", { check: kind, record: failed });
    return checkFacts(kind, job.state(), SHOP, context);
  };
  const value = (kind: CheckId, known: CheckFacts, name: string, draft = {}) =>
    formStateOf((CHECKS[kind].form as Form<object, CheckFacts>).fields, draft, known).value(name);
  const bar = (value: number) => ({ value, unit: "bar", kind: "gauge" }) as const;
  const failed = {
    ...pressure,
    entry: "cold-pipe-split",
    blocked: ["compressor"],
    maxBoost: bar(0.8),
    crank: "mark at the pulley",
    escapes: [{ joint: "cooler-tank", sign: "soap", from: bar(0.6) }],
    everywhere: true,
  };

  it("is proposed for its proof: choices as they were, and no observation", () => {
    const known = failing("pressure-test", failed);
    expect(value("pressure-test", known, "maxBoost")).toBe("0.8 bar");
    expect(value("pressure-test", known, "crank")).toBe("mark at the pulley");
    expect(value("pressure-test", known, "blocked")).toEqual(["compressor"]);
    expect(value("pressure-test", known, "everywhere")).toBeUndefined();
    expect(value("pressure-test", known, "steps")).not.toEqual(failed.steps);
  });

  it("stays what somebody typed instead, and is not proposed at another place", () => {
    const known = failing("pressure-test", failed);
    expect(value("pressure-test", known, "maxBoost", { maxBoost: "1" })).toBe("1");
    expect(value("pressure-test", known, "maxBoost", { entry: "hot-pipe-clamp" })).not.toBe("0.8 bar");
    const pinched = { joint: "booster-hose", how: "cap", blankProved: true, reads: "rpm", before: 900, shut: 700, released: 900 };
    const pinch = failing("pinch", pinched);
    expect(value("pinch", pinch, "how")).toBe("cap");
    expect(value("pinch", pinch, "reads")).toBe("rpm");
    expect(value("pinch", pinch, "blankProved")).toBeUndefined();
    expect(value("pinch", pinch, "how", { joint: "pcv-hose" })).toBe("pinch");
  });
});
