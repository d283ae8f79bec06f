import { describe, expect, it } from "vitest";
import { gateTrial } from "./gate-trial";

describe("random histories on cars whose faults stand until they are repaired", () => {
  it("none closes while its fault stands, and those truly repaired and fully checked are let out", () => {
    const trial = gateTrial(60, 20_000);
    expect(trial.failing).toEqual([]);
    expect(trial.letThroughByNoise).toBe(0);
    expect(trial.standing).toBeGreaterThan(12);
    expect(trial.repaired).toBeGreaterThan(9);
    expect(trial.refused / trial.repaired, JSON.stringify(trial.reasons)).toBeLessThanOrEqual(0.04);
  });
});
