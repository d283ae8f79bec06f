import { describe, expect, it } from "vitest";
import { contextOf, TURBO, VAPOUR } from "../core.fixture";
import { inSentence } from "../sentence";
import { CHECK_IDS, CHECKS, type CheckId, judgeCheck } from ".";
import * as vapour from "./evap.fixture";
import * as good from "./records.fixture";

describe("what a gauge stood in the place of", () => {
  const records: Partial<Record<CheckId, object>> = {
    vacuum: good.vacuum,
    crankcase: good.crankcase,
    "pressure-test": good.pressure,
    "tank-sensor": vapour.tankSensorRecord(),
  };
  const hiding = CHECK_IDS.filter((id) => CHECKS[id].hides);

  it("is tried here for every check that hides something", () => {
    expect(hiding.toSorted()).toEqual(Object.keys(records).toSorted());
  });
  it.each(hiding)("%s names it as untested, and counts it as its own setup", (id) => {
    const record = records[id] as object;
    const context = contextOf(id === "pressure-test" ? TURBO : VAPOUR);
    const hidden = CHECKS[id].hides?.(record) ?? [];
    const verdict = judgeCheck(id, record, context);
    expect(verdict.outcome).not.toBe("void");
    expect(hidden.length).toBeGreaterThan(0);
    for (const joint of hidden) {
      expect(CHECKS[id].setup?.(record)).toContain(joint);
      expect(verdict.tested ?? []).not.toContain(joint);
      const name = context.layout.joints.find((j) => j.id === joint)?.name;
      expect(verdict.reasons.join()).toContain(`${inSentence(name ?? "")} was off for this check: untested`);
    }
  });
});
