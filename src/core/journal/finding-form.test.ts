import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../core.fixture";
import { type Draft, toDraft, toRecord } from "../form";
import { findingFacts, findingForm } from ".";
import { Writer } from "./journal.fixture";

const context = contextOf(NATURAL);
function jobWith(leak?: string) {
  const job = new Writer();
  job.add("opened", { number: 1 });
  job.add("vehicle", NATURAL);
  job.add("codes", { codes: [{ code: "P0171", status: "stored" }] });
  if (leak) job.smoke({ seen: [{ joint: leak, at: 60 }], noSmokeOutside: false });
  return job.state();
}
const read = (draft: Draft, leak?: string) => toRecord(findingForm, draft, findingFacts(jobWith(leak), context));

describe("a finding", () => {
  it("is taken to be where a check pointed last, then where most is suspected, and says which", () => {
    expect(findingFacts(jobWith("pcv-hose"), context).place).toEqual({ id: "pcv-hose", because: "Where a check pointed last" });
    const { place, groups } = findingFacts(jobWith(), context);
    expect(place?.because).toMatch(/^Suspected most/);
    expect(groups[0]).toMatchObject({ name: "Likely now", places: expect.arrayContaining([[place?.id, expect.any(String)]]) });
    expect(groups.at(-1)?.places).toEqual([["other", "Another place"]]);
    expect(read({ what: "split" }, "pcv-hose").record).toMatchObject({
      joint: "pcv-hose",
      confirmed: false,
      evidence: [expect.any(String)],
    });
  });

  it("offers every place of the car once, circuit by circuit, besides the likely ones", () => {
    const { groups } = findingFacts(jobWith("pcv-hose"), context);
    const circuits = groups.slice(1).flatMap((g) => g.places.map(([id]) => id));
    expect(new Set(circuits).size).toBe(circuits.length);
    for (const { id } of context.layout.joints) expect(circuits).toContain(id);
  });

  it("needs what was found; a size is a size, a place is one of this car's; confirmed is what somebody said how", () => {
    expect(read({}).errors).toMatchObject([{ field: "what", missing: true }]);
    expect(read({ what: "x", size: "two" }).errors).toMatchObject([{ field: "size", missing: false }]);
    expect(read({ what: "x", joint: "moon" }).errors).toMatchObject([{ field: "joint" }]);
    const { record } = read({
      what: "x",
      size: "2",
      confirmedBy: "seen",
      residue: "inside",
      failed: { why: "heat", against: "" },
    });
    expect(record).toMatchObject({
      size: { value: 2, unit: "mm" },
      confirmed: true,
      confirmedBy: "seen",
      residue: "inside",
      failed: { why: "heat" },
    });
    const known = findingFacts(jobWith(), context);
    expect(toRecord(findingForm, toDraft(findingForm, record as never, known), known).record).toEqual(record);
  });
});
