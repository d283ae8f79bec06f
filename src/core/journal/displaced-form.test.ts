import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../core.fixture";
import { type Draft, toRecord } from "../form";
import { displacedFacts, displacedForm } from ".";
import { Writer } from "./journal.fixture";

const { layout } = contextOf(NATURAL);
const read = (draft: Draft) => toRecord(displacedForm, draft, displacedFacts(layout));

describe("what came off by hand", () => {
  it("is named by its place until somebody says it otherwise, and is of no gas path where no place is said", () => {
    expect(read({ joint: "pcv-hose" }).record).toEqual({ joint: "pcv-hose", what: "PCV hose off" });
    expect(read({ joint: "pcv-hose", what: "hose off for room" }).record).toMatchObject({ what: "hose off for room" });
    expect(read({ what: "engine cover", kept: "6 bolts, tray 2" }).record).toEqual({
      what: "engine cover",
      kept: "6 bolts, tray 2",
      elsewhere: true,
    });
    expect(read({}).errors).toMatchObject([{ field: "what", missing: true }]);
    expect(read({ joint: "moon", what: "x" }).errors).toMatchObject([{ field: "joint" }]);
    expect(toRecord(displacedForm, { what: "cover" }, displacedFacts(undefined)).record).toMatchObject({ elsewhere: true });
  });

  it("is owed until it is back, and keeps where its bolts are", () => {
    const job = new Writer();
    job.add("opened", { number: 1 });
    job.add("vehicle", NATURAL);
    job.add("displaced", { what: "engine cover", kept: "6 bolts, tray 2", elsewhere: true });
    const state = job.state();
    expect(state.offCar).toMatchObject([{ what: "engine cover", kept: "6 bolts, tray 2", open: true }]);
    expect(state.blocks.close.map((b) => b.reason).join()).toContain("engine cover");
  });
});
