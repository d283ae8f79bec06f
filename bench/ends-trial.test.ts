import { describe, expect, it } from "vitest";
import { endsTrial } from "./ends-trial";

describe("practice cars that were truly repaired", () => {
  it("are closed by a few rounds of doing what the job itself names", () => {
    const trial = endsTrial(9, 2_001);
    expect(trial.open).toEqual([]);
    expect(trial.ended).toBeGreaterThan(7);
  }, 120_000);
});
