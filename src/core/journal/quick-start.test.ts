import { describe, expect, it } from "vitest";
import { toRecord } from "../form";
import { firstEntries, type QuickStart, quickStartForm } from ".";
import { Writer } from "./journal.fixture";

const read = (draft: object) => toRecord(quickStartForm, draft as never, undefined);
const jobOf = (draft: object) => {
  const job = new Writer();
  job.add("opened", { number: 1 });
  for (const { kind, body } of firstEntries(read(draft).record as QuickStart)) job.add(kind, body as never);
  return job.state();
};

describe("straight to an instrument", () => {
  it("needs fuel and displacement alone, typed as people type it", () => {
    for (const [typed, value] of [
      ["1998", { value: 1998, unit: "mL" }],
      ["1998 cc", { value: 1998, unit: "mL" }],
      ["2,0 L", { value: 2, unit: "L" }],
      ["2.0", { value: 2, unit: "L" }],
    ] as const)
      expect(read({ displacement: typed }).record).toMatchObject({ fuel: "petrol", displacement: value });
    expect(read({}).errors).toMatchObject([
      { field: "displacement", message: "Type the engine's displacement: volumes and airflow depend on it", missing: true },
    ]);
    expect(read({ displacement: "20 L" }).errors).toMatchObject([{ field: "displacement", missing: false }]);
  });

  it("takes codes and noises along, and says what is still owed", () => {
    const state = jobOf({ displacement: "1.6", codes: "p0171, P0300;P0171", symptoms: ["hiss-idle"] });
    expect(state.codes.map((c) => c.code)).toEqual(["P0171", "P0300"]);
    expect(state.story?.complaint).toMatch(/hiss/i);
    expect(state.suspects.length).toBeGreaterThan(0);
    expect(state.next.length).toBeGreaterThan(0);
    expect(state.vehicle?.unknown?.length).toBeGreaterThan(0);
    expect(read({ displacement: "1.6", codes: "P0171!" }).errors).toMatchObject([{ field: "codes" }]);
  });

  it("makes nothing up: without words there is no story, without codes none were read", () => {
    const state = jobOf({ displacement: "1.6" });
    expect(state.story).toBeUndefined();
    expect(state.codesRead).toBe(false);
    expect(state.stations.story).toBe("needs-you");
  });
});
