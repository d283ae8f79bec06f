import { describe, expect, it } from "vitest";
import { cabin as sound } from "../records.fixture";
import { judgeCabin } from ".";

describe("cabin leak", () => {
  it("is where smoke is blown away, and no more than the seals that were gone along", () => {
    expect(judgeCabin(sound).outcome).toBe("pass");
    expect(judgeCabin(sound).reasons.join()).toMatch(/the others were not checked/);
    const leaking = { ...sound, seals: [...sound.seals, { name: "roof seam", blown: true }] };
    expect(judgeCabin(leaking)).toMatchObject({ outcome: "fail", headline: "Smoke is blown away at roof seam" });
  });
  it("proves nothing without pressure in the cabin, or in a draught", () => {
    expect(judgeCabin({ ...sound, fanOnFresh: false }).outcome).toBe("void");
    expect(judgeCabin({ ...sound, still: false }).outcome).toBe("void");
  });
});
