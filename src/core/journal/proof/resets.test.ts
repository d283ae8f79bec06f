import { describe, expect, it } from "vitest";
import { filter } from "../../checks/records.fixture";
import { DIESEL, NATURAL } from "../../core.fixture";
import { BadInput } from "../../input";
import type { Bodies } from "../entries";
import { validateBody } from "../entries";
import { Writer } from "../journal.fixture";

const hPa = (value: number) => ({ value, unit: "hPa", kind: "gauge" }) as const;
const loaded = { ...filter, held: { rpm: 3000, pressure: hPa(120) } };

function begun(): Writer {
  const job = new Writer();
  job.add("opened", { number: 1 });
  job.add("vehicle", DIESEL);
  job.add("check", { check: "filter", record: loaded });
  return job;
}
const work = (change: Partial<Bodies["repair"]> = {}): Bodies["repair"] => ({
  what: "Filter flushed on the car",
  permanence: "temporary",
  method: "cleaned",
  culprit: "boost-leak",
  limit: "to the next service",
  recheck: "2027-03-01",
  places: ["filter-loaded"],
  labourMinutes: 60,
  parts: [],
  otherChanges: [],
  ...change,
});
const reset = (job: Writer) => job.state().proof.resets[0];
const says = (job: Writer) =>
  job
    .state()
    .blocks.close.map((b) => b.reason)
    .join("\n");
const told = { check: "filter", learned: "soot 0 g, ash 0 g" } as const;

describe("telling the ECU that its filter is as new", () => {
  it("is not there without a filter", () => {
    const job = new Writer();
    job.add("vehicle", NATURAL);
    expect(job.state().proof.resets).toEqual([]);
  });

  it("is locked until the pressures are back within limits since the last work on it", () => {
    const job = begun();
    expect(reset(job)?.locked).toMatch(/out of its limits/);
    job.add("repair", work());
    expect(reset(job)?.locked).toMatch(/not been read within its limits since/);
    job.add("check", { check: "filter", record: { ...filter, pipes: "not-looked" } });
    expect(reset(job)?.locked).toMatch(/does not count/);
    job.add("check", { check: "filter", record: loaded });
    expect(reset(job)?.locked).toMatch(/out of its limits since/);
    job.add("repair", work({ what: "Flushed once more" }));
    job.add("check", { check: "filter", record: filter });
    expect(reset(job)?.locked).toBeUndefined();
    // Work on it again: what was read before says nothing of it.
    job.add("repair", work({ what: "Burned free", method: "regenerated", regeneration: { by: "driven" } }));
    expect(reset(job)?.locked).toBeDefined();
  });

  it("is open where a new one is in, and shut again where that was undone or only said", () => {
    const job = begun();
    const renewed = work({
      what: "New filter",
      method: "renewed",
      permanence: "permanent",
      parts: [{ name: "filter", count: 1 }],
    });
    job.add("repair", { ...renewed, parts: [] });
    expect(reset(job)?.locked).toBeDefined();
    const id = job.add("repair", renewed);
    expect(reset(job)?.locked).toBeUndefined();
    job.add("undone", { repair: id });
    expect(reset(job)?.locked).toBeDefined();
    job.add("repair", { ...renewed, places: ["filter-pipe-front"] });
    expect(reset(job)?.locked).toBeDefined();
  });

  it("keeps a job from closing where it was told too early, until the readings bear it", () => {
    const job = begun();
    job.add("repair", work());
    job.add("reset", told);
    expect(says(job)).toMatch(/Correct what was reset too early/);
    job.add("check", { check: "filter", record: filter });
    expect(says(job)).not.toMatch(/too early/);
    expect(reset(job)?.told?.learned).toBe("soot 0 g, ash 0 g");
  });

  it.each([
    ["burned free", { method: "regenerated", regeneration: { by: "driven" } }, false],
    ["flushed on the car", {}, false],
    ["cleaned off the car, not measured", { cleanProof: "none" }, false],
    ["cleaned off the car and weighed", { cleanProof: "weight" }, true],
    ["cleaned off the car, its flow measured", { cleanProof: "flow" }, true],
    ["renewed", { method: "renewed", permanence: "permanent", parts: [{ name: "filter", count: 1 }] }, true],
  ] as const)("has its ash set to zero where it is out: %s", (_, change, out) => {
    for (const [reset, all] of [
      [{ ...told }, true],
      [{ ...told, learned: "ash: 0.0 g, soot 0" }, true],
      [{ ...told, zeroed: "all", learned: "distance 0 km" }, true],
      [{ ...told, learned: "soot 0 g, ash 31 g" }, false],
      [{ ...told, learned: "soot 0 g" }, false],
      [{ ...told, zeroed: "soot", learned: "soot 0 g, ash not shown" }, false],
    ] as const) {
      const job = begun();
      job.add("repair", work(change));
      job.add("check", { check: "filter", record: filter });
      job.add("reset", reset);
      if (all && !out) expect(says(job)).toMatch(/ash goes with a new part alone/);
      else expect(says(job)).not.toMatch(/ash/);
    }
  });

  it("keeps an inspection open too, where nothing is repaired", () => {
    const job = begun();
    job.add("story", { complaint: "Looked over", symptoms: [], verified: "not-tried", purpose: "inspection" });
    job.add("reset", told);
    expect(says(job)).toMatch(/too early/);
  });

  it("asks what loaded it, and does not close on not knowing", () => {
    const body = (change: object) => () => validateBody("repair", { ...work(), ...change }, 2);
    expect(body({ culprit: undefined })).toThrow(/Say what loaded it/);
    expect(body({ method: "regenerated" })).toThrow(/commanded or driven/);
    expect(body({ permanence: "permanent", limit: undefined, recheck: undefined })).toThrow(BadInput);
    expect(body({})).not.toThrow();
    expect(body({ culprit: undefined, places: ["throttle"] })).not.toThrow();
    const job = begun();
    job.add("repair", work({ culprit: "not-found" }));
    expect(says(job)).toMatch(/Find what made it necessary/);
    expect(() => validateBody("reset", { check: "smoke", learned: "x" })).toThrow(BadInput);
    expect(() => validateBody("reset", { check: "filter" })).toThrow(/Write down what the ECU shows/);
  });
});

describe("a code of our own making", () => {
  const codes = (...list: string[]) => ({ codes: list.map((code) => ({ code, status: "stored" as const })) });
  it("is one that was first read after something came off that sets it, and is not chased as a suspect", () => {
    const job = begun();
    job.add("codes", codes("P2463"));
    const pipe = job.add("displaced", { what: "front pressure pipe off", joint: "filter-pipe-front" });
    job.add("restored", { item: pipe });
    job.add("codes", codes("P2463", "P2453", "P2002"));
    const state = job.state();
    expect(state.ownCodes).toEqual([{ code: "P2453", because: "front pressure pipe off" }]);
    const weighed = state.suspects.flatMap((s) => s.because.map((b) => b.observation));
    expect(weighed).toContain("code:filter-full");
    expect(weighed).not.toContain("code:filter-sensor");
    // It is owed all the same until it is cleared and read again.
    expect(state.proof.codes.map((c) => c.code)).toContain("P2453");
  });

  it("is the car's own once it came back after all was on again and codes were cleared", () => {
    const job = begun();
    job.add("codes", codes());
    const pipe = job.add("displaced", { what: "front pressure pipe off", joint: "filter-pipe-front" });
    job.add("codes", codes("P2453"));
    job.add("codes-cleared", {});
    job.add("codes", codes("P2453"));
    expect(job.state().ownCodes).toHaveLength(1);
    job.add("restored", { item: pipe });
    job.add("codes", codes("P2453"));
    expect(job.state().ownCodes).toHaveLength(1);
    job.add("codes-cleared", {});
    job.add("codes", codes("P2453"));
    expect(job.state().ownCodes).toEqual([]);
  });

  it("is the car's own where it was there before, or nobody had read it before", () => {
    const before = begun();
    before.add("codes", codes("P2453"));
    before.add("displaced", { what: "front pressure pipe off", joint: "filter-pipe-front" });
    before.add("codes", codes("P2453"));
    expect(before.state().ownCodes).toEqual([]);
    const never = begun();
    never.add("displaced", { what: "front pressure pipe off", joint: "filter-pipe-front" });
    never.add("codes", codes("P2453"));
    expect(never.state().ownCodes).toEqual([]);
    const other = begun();
    other.add("codes", codes());
    other.add("displaced", { what: "oil cap off", joint: "oil-cap" });
    other.add("codes", codes("P2453"));
    expect(other.state().ownCodes).toEqual([]);
  });
});
